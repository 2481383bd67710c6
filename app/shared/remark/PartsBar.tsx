import { RadioGroup, Toggle } from 'radix-ui';
import { useState, type KeyboardEvent } from 'react';
import clsx from 'clsx';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { cuttableWords, partsOf, piecesAt } from '#core/saying/remark-parts.ts';
import { stanceOf } from '#core/saying/saying-of.ts';
import * as words from '../../words/en.ts';
import { cutParts } from '../../workspace/commands/decide.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { MadeSign } from './Decisions.tsx';
import { takeInHand, usePartInHand } from './in-hand.ts';

const WHOLE = 'whole';

/** Which part of a remark is decided about, and where its parts begin. */
export function PartsBar({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const [cutting, setCutting] = useState(false);
  const parts = partsOf(remark, view);
  const inHand = usePartInHand(view, remark);
  if (cuttableWords(remark.text).length < 2) return null;
  return (
    <div className={clsx('text-sm', (parts.length > 0 || cutting) && 'mt-1 basis-full')}>
      <div className="flex flex-wrap items-center gap-1.5">
        {parts.length > 0 && (
          <RadioGroup.Root
            aria-label={words.slip.parts.label}
            orientation="horizontal"
            value={inHand === null ? WHOLE : String(inHand.from)}
            onValueChange={(value) => takeInHand(remark.id, value === WHOLE ? null : Number(value))}
            className="flex flex-wrap items-center gap-1"
          >
            <Chip value={WHOLE} chosen={inHand === null}>
              {words.slip.parts.whole}
            </Chip>
            {parts.map(({ from, stance, decision, carry }, index) => (
              <Chip key={from} value={String(from)} chosen={inHand?.from === from}>
                {words.slip.parts.one(index + 1, words.stances[stance])}
                <MadeSign made={decision} />
                <MadeSign made={carry ? 'carry' : null} />
              </Chip>
            ))}
          </RadioGroup.Root>
        )}
        <Toggle.Root
          pressed={cutting}
          onPressedChange={setCutting}
          className="ml-auto font-semibold text-accent hover:underline"
        >
          {cutting ? words.slip.parts.cutDone : words.slip.parts.cut}
        </Toggle.Root>
      </div>
      {cutting && <Cutter view={view} remark={remark} />}
    </div>
  );
}

function Chip({ value, chosen, children }: { value: string; chosen: boolean; children: React.ReactNode }) {
  return (
    <RadioGroup.Item
      value={value}
      className={clsx(
        'inline-flex min-h-7 items-center gap-1.5 rounded-full border px-2.5 whitespace-nowrap',
        chosen ? 'border-ink bg-surface font-semibold' : 'border-rule bg-paper hover:border-rule-strong',
      )}
    >
      {children}
    </RadioGroup.Item>
  );
}

/** The remark word by word: a part begins before the word that is chosen, or no more. */
function Cutter({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const workspace = useWorkspace();
  const { text } = remark;
  const spans = cuttableWords(text);
  const parts = partsOf(remark, view);
  const begins = new Set(parts.map(({ from }) => from));
  const [at, setAt] = useState(1);
  const cut = async (from: number) => {
    const said = await workspace.sayings.saysOf(piecesAt(text, parts, from));
    // Where the model can't be reached both say what the part did.
    const was = parts.findLast((part) => part.from <= from)?.stance ?? stanceOf(remark.id, view) ?? 'note';
    await cutParts(workspace, remark, from, [said?.at(0) ?? was, said?.at(1) ?? was]);
  };
  const step = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    const next = Math.min(spans.length - 1, Math.max(1, at + by));
    if (by === 0) return;
    event.preventDefault();
    setAt(next);
    event.currentTarget
      .querySelectorAll('button')
      .item(next - 1)
      .focus();
  };
  return (
    <div className="mt-1.5 rounded-md border border-dashed border-rule-strong p-2.5">
      <p className="mb-1.5 text-quiet">{words.slip.parts.cutLead}</p>
      <div role="group" aria-label={words.slip.parts.cutLabel} onKeyDown={step} className="leading-8">
        {spans.map(({ from, to }, index) => {
          const word = text.slice(from, to).trim();
          if (index === 0) return <span key={from}>{word} </span>;
          const isBegin = begins.has(from);
          return (
            <button
              key={from}
              type="button"
              tabIndex={index === at ? 0 : -1}
              aria-pressed={isBegin}
              aria-label={words.slip.parts.beginsAt(word)}
              onFocus={() => setAt(index)}
              onClick={() => void cut(from)}
              className={clsx(
                'mr-1 rounded border-l-2 px-0.5 hover:bg-sunken',
                isBegin ? 'ml-2 border-ink font-semibold' : 'border-transparent',
              )}
            >
              {word}
            </button>
          );
        })}
      </div>
    </div>
  );
}

import { Tooltip } from '../../shared/controls/Tooltip.tsx';
import { compare, fromDecimal } from '#core/scores/fraction.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { X } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Assignment } from '#core/model/facts.ts';
import { decimalIn } from '#core/model/ids.ts';
import * as words from '../../words/en.ts';
import { setIf } from '../../workspace/commands/by-hand.ts';

/** A score that is not given: the course is reckoned as if it were, from the first key on. */
export function IfField({
  assignment,
  again,
  marked,
  ifScore,
  counts,
}: {
  assignment: Assignment;
  /** It would be one more attempt. */
  again: boolean;
  marked: boolean;
  ifScore: string | null;
  /** What it would count by the policy. */
  counts: string | null;
}) {
  const workspace = useWorkspace();
  const [typed, setTyped] = useState<string | null>(null);
  const spell = useRef('');
  if (assignment.excused || assignment.possible === null) return <span />;
  const { possible } = assignment;
  const shown = typed ?? ifScore ?? '';
  const number = decimalIn(shown);
  const wrong = shown.trim() !== '' && number === null;
  const outside = number !== null && compare(fromDecimal(number), fromDecimal(possible)) > 0;
  const type = (text: string) => {
    setTyped(text);
    const score = decimalIn(text);
    if (score !== null || text.trim() === '') void setIf(workspace, assignment, score, spell.current);
  };
  const how = again ? words.standing.ifAgain : marked ? words.standing.ifInstead : words.standing.ifFirst;
  const note = wrong
    ? words.standing.notANumber
    : outside
      ? words.standing.outside(possible)
      : counts !== null && counts !== number
        ? words.standing.ifWouldCount(counts)
        : '';
  return (
    <div className="justify-self-end text-right">
      <span className="inline-flex items-center">
        <Tooltip text={how(possible)}>
          <input
            type="text"
            inputMode="decimal"
            aria-label={words.standing.ifLabel(assignment.title)}
            aria-invalid={wrong}
            placeholder={words.standing.ifNone}
            value={shown}
            onFocus={() => {
              spell.current = crypto.randomUUID();
            }}
            onChange={(event) => type(event.target.value)}
            onBlur={() => {
              if (!wrong) setTyped(null);
            }}
            className={clsx(
              'w-16 rounded-md border bg-paper px-1.5 py-0.5 text-right italic placeholder:text-quiet',
              ifScore === null ? 'border-rule-strong/60' : 'border-accent font-semibold text-accent',
            )}
          />
        </Tooltip>
        {ifScore !== null && (
          <button
            type="button"
            aria-label={words.standing.clearIf(assignment.title)}
            onClick={() => {
              setTyped(null);
              void setIf(workspace, assignment, null);
            }}
            className="ml-1 rounded p-0.5 text-quiet hover:text-ink"
          >
            <X size={15} aria-hidden />
          </button>
        )}
      </span>
      {note !== '' && (
        <p role={wrong ? 'alert' : undefined} className="max-w-40 text-xs text-quiet">
          {note}
        </p>
      )}
    </div>
  );
}

import clsx from 'clsx';
import { Pin } from 'lucide-react';
import { instantOf } from '#core/model/ids.ts';
import type { PlacedBlock } from '#core/plan/place.ts';
import type { WeekDay } from '#core/plan/week-days.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { shownDay, shownTime } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { titleOfBlock, viewOfBlock, type Names } from './block-words.ts';
import type { Due } from './Week.tsx';

/** The days as a list, for a narrow window. */
export function WeekList({
  days,
  dues,
  names,
  today,
  onOpen,
}: {
  days: readonly WeekDay[];
  dues: readonly Due[];
  names: Names;
  today: string;
  onOpen: (block: PlacedBlock) => void;
}) {
  const zone = ownZone();
  const time = (ms: number) => shownTime(instantOf(ms), zone);
  return (
    <ol className="grid gap-4">
      {days.map(({ day, span, blocks }) => {
        const due = dues.filter(({ atMs }) => atMs >= span.from && atMs < span.to);
        return (
          <li key={day}>
            <h2 className={clsx('border-b border-rule pb-0.5', day === today ? 'font-bold' : 'text-quiet')}>
              {shownDay(instantOf(span.from), zone)}
            </h2>
            {due.map((one) => (
              <p key={one.view.assignment.id} className="py-1 text-sm font-semibold">
                {dueWords(one, zone)}
              </p>
            ))}
            {blocks.length === 0 && due.length === 0 && (
              <p className="py-1 text-sm text-quiet">{words.week.noBlocks}</p>
            )}
            <ul className="grid gap-1.5 pt-1.5">
              {blocks.map((block) => (
                <li key={block.id}>
                  <button
                    type="button"
                    data-block={block.id}
                    onClick={() => onOpen(block)}
                    className="flex w-full gap-3 rounded-lg border border-l-[3px] border-rule border-l-act bg-surface px-3 py-2 text-left"
                  >
                    <span className="w-24 shrink-0 text-sm whitespace-nowrap text-quiet">
                      {time(block.from)}–{time(block.to)}
                    </span>
                    <span className="min-w-0 flex-1">
                      <span className="line-clamp-2 font-semibold">{titleOfBlock(block, names)}</span>
                      <span className="line-clamp-1 text-sm text-quiet">
                        {viewOfBlock(block, names)?.assignment.title}
                      </span>
                    </span>
                    {block.pinned && <Pin size={15} aria-hidden className="shrink-0 text-quiet" />}
                  </button>
                </li>
              ))}
            </ul>
          </li>
        );
      })}
    </ol>
  );
}

export function dueWords({ view, atMs, kind }: Due, zone: string): string {
  const said = kind === 'due' ? words.week.due : words.week.closes;
  return said(view.assignment.title, shownTime(instantOf(atMs), zone));
}

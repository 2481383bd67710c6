import clsx from 'clsx';
import { useMemo } from 'react';
import type { ShownMatch } from '#core/overlap/items.ts';
import { mapOf } from '#core/overlap/map.ts';
import type { Paper } from '#core/paper/paper.ts';

/** A letter's height on a map that is about 600 pixels high. */
const LETTER_ROOM = 0.03;

const percent = (share: number) => `${100 * share}%`;

/** The whole text as a narrow map: a band for each source, each match at its height with its letter. */
export function Strip({
  paper,
  matches,
  chosen,
  onChoose,
}: {
  paper: Paper;
  matches: readonly ShownMatch[];
  chosen: ShownMatch | null;
  onChoose: (id: string) => void;
}) {
  const { ticks, bands } = useMemo(
    () => mapOf(paper.text.length, matches, LETTER_ROOM),
    [paper.text.length, matches],
  );
  return (
    <div aria-hidden className="relative m-3 mr-7 border border-rule bg-surface max-md:hidden">
      {ticks.map(({ match, top, height, band, isNamed }) => {
        const isOfSource = match.sourceId === chosen?.sourceId;
        return (
          <button
            key={match.id}
            type="button"
            tabIndex={-1}
            onClick={() => onChoose(match.id)}
            style={{ top: percent(top), height: percent(height) }}
            className="group absolute -right-6 left-0 min-h-1"
          >
            <span
              style={{
                left: `calc(${band / bands} * (100% - 1.5rem))`,
                width: `calc((100% - 1.5rem) / ${bands})`,
              }}
              className={clsx(
                'absolute inset-y-0 min-h-1 border-x border-surface',
                isOfSource ? 'bg-ink' : 'bg-rule-strong group-hover:bg-ink',
              )}
            />
            {(isNamed || match === chosen) && (
              <span
                className={clsx(
                  'absolute right-0 -top-1.5 w-5 text-center text-xs leading-4',
                  match === chosen
                    ? 'bg-ink font-bold text-surface'
                    : isOfSource
                      ? 'font-bold'
                      : 'text-quiet',
                )}
              >
                {match.letter}
              </span>
            )}
          </button>
        );
      })}
    </div>
  );
}

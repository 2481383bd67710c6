import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { Remark } from '#core/model/remark.ts';
import type { ShownMatch } from '#core/overlap/items.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';
import type { ShownOverlap } from '../../workspace/state/overlap.ts';
import { RemarkLink } from './MatchCard.tsx';

/** All matches in the order of the text. @param fresh which the marked version hadn't; null where there is none */
export function MatchList({
  shown: { matches, counted, paper },
  chosen,
  fresh,
  onChoose,
}: {
  shown: ShownOverlap;
  chosen: ShownMatch | null;
  fresh: ReadonlySet<string> | null;
  onChoose: (id: string) => void;
}) {
  return (
    <section>
      <SectionTitle>{words.overlap.matches}</SectionTitle>
      {matches.length === 0 && (
        <p className="text-sm text-quiet">
          {counted.length === 0 ? words.overlap.noMatches : words.overlap.onlyAttempt}
        </p>
      )}
      <ul className="mt-1">
        {matches.map((match) => (
          <li key={match.id} className="border-t border-rule text-sm">
            <button
              type="button"
              aria-pressed={match === chosen}
              onClick={() => onChoose(match.id)}
              className={clsx('w-full text-left hover:bg-sunken', match === chosen && 'font-semibold')}
            >
              <Line letter={match.letter} text={paper.text.slice(match.place.from, match.place.to)}>
                {fresh?.has(match.id) === true && <b>{words.overlap.fresh}</b>}
                <span className="whitespace-nowrap text-quiet tabular-nums">
                  {words.overlap.words(match.words)} · {words.overlap.adviceShort[match.advice]}
                </span>
              </Line>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Line({ letter, text, children }: { letter: string; text: string; children: ReactNode }) {
  return (
    <span className="flex items-baseline gap-3 py-1.5">
      <b className="w-6">{letter}</b>
      <span className="min-w-0 flex-1 truncate font-serif">{text}</span>
      {children}
    </span>
  );
}

/** Matches of the marked version that the draft has no more. */
export function Gone({ gone, older }: { gone: readonly ShownMatch[]; older: ShownOverlap }) {
  if (gone.length === 0) return null;
  return (
    <section>
      <SectionTitle>{words.overlap.gone}</SectionTitle>
      <ul className="mt-1">
        {gone.map(({ id, letter, place, words: count }) => (
          <li key={id} className="border-t border-rule text-sm text-quiet">
            <s className="no-underline">
              <Line letter={letter} text={older.paper.text.slice(place.from, place.to)}>
                <span>{words.overlap.words(count)}</span>
              </Line>
            </s>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What a report says that came back, where no text of its source is here. */
export function OnlyReported({ remarks }: { remarks: readonly Remark[] }) {
  if (remarks.length === 0) return null;
  return (
    <section>
      <SectionTitle>{words.overlap.notHere}</SectionTitle>
      <ul className="mt-1">
        {remarks.map((remark) => (
          <li key={remark.id} className="border-t border-rule py-1.5 text-sm">
            <RemarkLink remark={remark} />
          </li>
        ))}
      </ul>
    </section>
  );
}

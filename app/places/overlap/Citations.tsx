import { useMemo, type ReactNode } from 'react';
import { lookOverCitations } from '#core/citations/findings.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { Span } from '#core/text/span.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';

/** So much of a place is shown. */
const SHOWN = 70;

/** What may be wrong with citations and references, each line leading to its place. */
export function Citations({
  paper,
  onShow,
  children,
}: {
  paper: Paper;
  onShow: (place: Span) => void;
  children: ReactNode;
}) {
  const { findings, cited, listed } = useMemo(() => lookOverCitations(paper), [paper]);
  const found = cited === 0 && listed === null ? words.overlap.nothingCited : words.overlap.noFaults;
  return (
    <section>
      <SectionTitle>{words.overlap.citations}</SectionTitle>
      {cited > 0 && listed === null && <p className="text-sm text-quiet">{words.overlap.notListed(cited)}</p>}
      {findings.length === 0 && !(cited > 0 && listed === null) && (
        <p className="text-sm text-quiet">{found}</p>
      )}
      <ul className="mt-1">
        {findings.map(({ fault, place }) => {
          const text = paper.text.slice(place.from, Math.min(place.to, place.from + SHOWN));
          return (
            <li key={`${fault} ${place.from}`} className="border-t border-rule text-sm">
              <button
                type="button"
                onClick={() => onShow(place)}
                className="flex w-full flex-wrap items-baseline gap-x-3 py-1.5 text-left hover:bg-sunken"
              >
                <span className="min-w-40 flex-1 truncate font-serif">
                  {text}
                  {place.to - place.from > SHOWN && ' …'}
                </span>
                <span className="text-quiet">{words.overlap.fault[fault]}</span>
              </button>
            </li>
          );
        })}
      </ul>
      {children}
    </section>
  );
}

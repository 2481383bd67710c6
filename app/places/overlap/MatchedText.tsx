import clsx from 'clsx';
import { memo, useEffect, useMemo, useRef } from 'react';
import { markedPieces, matchesByBlock, type ShownMatch } from '#core/overlap/items.ts';
import { columnsOf } from '#core/overlap/map.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { Span } from '#core/text/span.ts';
import * as words from '../../words/en.ts';
import type { HereSource } from '../../workspace/state/overlap.ts';
import { lineOf } from './lines.ts';

/** Brings something to the upper third of what scrolls, and nothing around it: the page itself stays. */
function bringIntoView(scroller: HTMLElement | null, selector: string): void {
  const found = scroller?.querySelector(selector);
  if (scroller === null || found === undefined || found === null) return;
  const [outer, inner] = [scroller.getBoundingClientRect(), found.getBoundingClientRect()];
  scroller.scrollTo({ top: scroller.scrollTop + inner.top - outer.top - outer.height / 3 });
}

/** A text with the words that stand in sources underlined, each match with its letter where it begins. */
export function MatchedText({
  paper,
  matches,
  sources,
  chosen,
  place,
  onChoose,
}: {
  paper: Paper;
  matches: readonly ShownMatch[];
  sources: readonly HereSource[];
  chosen: string | null;
  /** Where to look, without a match. */
  place: Span | null;
  onChoose: (id: string) => void;
}) {
  const text = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (chosen === null) return;
    bringIntoView(text.current, `[data-letter="${CSS.escape(chosen)}"]`);
  }, [chosen]);
  useEffect(() => {
    if (place === null) return;
    const block = paper.starts.findLastIndex((start) => start <= place.from);
    bringIntoView(text.current, `[data-block="${block}"]`);
  }, [place, paper]);
  const byBlock = useMemo(() => matchesByBlock(paper, matches), [paper, matches]);
  return (
    <div
      ref={text}
      role="region"
      aria-label={words.overlap.text}
      tabIndex={0}
      className="relative h-full overflow-auto bg-surface pr-8 pl-18 py-8 max-md:px-5 max-md:py-4"
    >
      <div className="mx-auto max-w-[38rem] font-serif text-[1.05rem] leading-relaxed">
        {paper.blocks.map((block, i) => {
          const span = { from: paper.starts[i], to: paper.starts[i] + block.text.length };
          const inIt = byBlock[i];
          const isShown = place !== null && place.from >= span.from && place.from < span.to;
          return (
            <Paragraph
              // Paragraphs of one text stay in their places.
              key={i}
              index={i}
              kind={block.kind}
              text={paper.text}
              span={span}
              matches={inIt}
              sources={sources}
              chosen={inIt.some(({ id }) => id === chosen) ? chosen : null}
              place={isShown ? place : null}
              onChoose={onChoose}
            />
          );
        })}
      </div>
    </div>
  );
}

const Paragraph = memo(function Paragraph({
  index,
  kind,
  text,
  span,
  matches,
  sources,
  chosen,
  place,
  onChoose,
}: {
  index: number;
  kind: 'heading' | 'paragraph' | 'item';
  text: string;
  span: Span;
  matches: readonly ShownMatch[];
  sources: readonly HereSource[];
  chosen: string | null;
  place: Span | null;
  onChoose: (id: string) => void;
}) {
  const pieces = matches.length === 0 ? [] : markedPieces(text, span, matches);
  const begunAt = pieces.map((piece) => piece.in.filter(({ place: at }) => at.from === piece.from));
  const columns = columnsOf(begunAt.flatMap((begun, i) => (begun.length > 0 ? [pieces[i].from] : [])));
  const content =
    matches.length === 0
      ? text.slice(span.from, span.to)
      : pieces.map((piece, i) => {
          const [first] = piece.in;
          if ((first as ShownMatch | undefined) === undefined) return <span key={i}>{piece.text}</span>;
          const begun = begunAt[i];
          const before = begunAt.slice(0, i).filter((list) => list.length > 0).length;
          const isChosen = piece.in.some(({ id }) => id === chosen);
          return (
            <span key={i}>
              {begun.length > 0 && (
                <Letters begun={begun} column={columns[before]} chosen={chosen} onChoose={onChoose} />
              )}
              <span
                onClick={() => onChoose((piece.in.find(({ id }) => id === chosen) ?? first).id)}
                className={clsx(
                  'cursor-pointer underline decoration-ink/70 underline-offset-4',
                  lineOf[sources[first.source].work.relation],
                  isChosen ? 'bg-sunken decoration-2' : 'decoration-1',
                )}
              >
                {piece.text}
              </span>
            </span>
          );
        });
  const looks = clsx(
    'relative mb-3 break-words',
    place !== null && 'outline-2 outline-offset-4 outline-accent',
  );
  if (kind === 'heading')
    return (
      <h2 data-block={index} className={clsx(looks, 'mt-5 font-semibold')}>
        {content}
      </h2>
    );
  return (
    <p data-block={index} className={clsx(looks, kind === 'item' && 'pl-5')}>
      {content}
    </p>
  );
});

/** The letters of the matches that begin at a place: in the margin, level with it; on a narrow screen before its words. */
function Letters({
  begun,
  column,
  chosen,
  onChoose,
}: {
  begun: readonly ShownMatch[];
  column: 0 | 1;
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  return (
    <span
      className={clsx(
        'inline-flex md:absolute md:-translate-x-full md:justify-end',
        column === 0 ? 'md:-left-1.5' : 'md:-left-8',
      )}
    >
      {begun.map((match) => (
        <button
          key={match.id}
          type="button"
          data-letter={match.id}
          aria-label={words.overlap.letter(match.letter)}
          aria-pressed={match.id === chosen}
          onClick={() => onChoose(match.id)}
          className={clsx(
            'mr-0.5 inline-flex min-w-6 justify-center rounded border px-1 align-text-top font-sans text-xs leading-5 font-bold',
            match.id === chosen
              ? 'border-ink bg-ink text-surface'
              : 'border-rule-strong bg-paper text-quiet hover:border-ink',
          )}
        >
          {match.letter}
        </button>
      ))}
    </span>
  );
}

import { Fold } from '../controls/Fold.tsx';
import type { Comparison, Passage, Piece } from '#core/difference/display.ts';
import * as words from '../../words/en.ts';

/** Two texts word by word: counts, then what changed, with what didn't folded. */
export function ComparedText({ comparison }: { comparison: Comparison }) {
  const { kept, added, removed, moved } = comparison.counts;
  const same = comparison.passages.every(isUnchanged);
  return (
    <>
      <p className="mt-1 font-sans text-sm text-quiet">{words.check.counts(kept, added, removed, moved)}</p>
      <p className="mb-4 font-sans text-sm text-quiet">{same ? words.check.same : words.check.legend}</p>
      <div className="max-w-[44rem] font-serif leading-relaxed">{foldUnchanged(comparison.passages)}</div>
    </>
  );
}

function isUnchanged(passage: Passage): boolean {
  return passage.every((piece) => piece.kind === 'kept');
}

/** Longer runs of unchanged paragraphs are folded between the changed ones. */
function foldUnchanged(passages: readonly Passage[]): React.ReactNode[] {
  const shown: React.ReactNode[] = [];
  for (let from = 0; from < passages.length;) {
    let to = from;
    while (to < passages.length && isUnchanged(passages[to]) === isUnchanged(passages[from])) to++;
    const run = passages
      .slice(from, to)
      .map((passage, i) => <ComparedPassage key={from + i} passage={passage} />);
    shown.push(
      isUnchanged(passages[from]) && run.length > 1 ? (
        <Fold
          key={`fold ${from}`}
          className="mb-3"
          labelClass="font-sans text-sm text-quiet"
          label={words.check.skipped(run.length)}
        >
          <div className="mt-2">{run}</div>
        </Fold>
      ) : (
        run
      ),
    );
    from = to;
  }
  return shown;
}

const NAMES: Record<Exclude<Piece['kind'], 'kept'>, string> = {
  added: words.check.added,
  removed: words.check.removed,
  'moved here': words.check.movedHere,
  'moved away': words.check.movedAway,
};

/** What became of the words that follow, for whoever can't see how they look. */
function Named({ name }: { name: string }) {
  return <span className="sr-only select-none">{`[${name}] `}</span>;
}

function ComparedPassage({ passage }: { passage: Passage }) {
  return (
    <p className="mb-3 whitespace-pre-wrap">
      {passage.map((piece, index) => {
        if (piece.kind === 'kept') return <span key={index}>{piece.text}</span>;
        const name = NAMES[piece.kind];
        if (piece.kind === 'added')
          return (
            <ins
              key={index}
              className="bg-[color-mix(in_srgb,var(--accent)_12%,transparent)] decoration-accent decoration-2 underline-offset-3"
            >
              <Named name={name} />
              {piece.text}
            </ins>
          );
        if (piece.kind === 'removed')
          return (
            <del key={index} className="text-quiet">
              <Named name={name} />
              {piece.text}
            </del>
          );
        return (
          <span
            key={index}
            className={
              piece.kind === 'moved here'
                ? 'underline decoration-dotted decoration-2 underline-offset-4'
                : 'text-quiet line-through decoration-dotted'
            }
          >
            <Named name={name} />
            {piece.text}
          </span>
        );
      })}
    </p>
  );
}

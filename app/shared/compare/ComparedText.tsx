import { Fold } from '../controls/Fold.tsx';
import type { Comparison, Passage } from '#core/difference/display.ts';
import * as words from '../../words/en.ts';
import { Pieces } from './Pieces.tsx';

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

function ComparedPassage({ passage }: { passage: Passage }) {
  return (
    <p className="mb-3 whitespace-pre-wrap">
      <Pieces pieces={passage} />
    </p>
  );
}

import type { Piece } from '#core/difference/display.ts';
import * as words from '../../words/en.ts';

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

/** What was kept, added, removed and moved, one behind another. */
export function Pieces({ pieces }: { pieces: readonly Piece[] }) {
  return (
    <>
      {pieces.map((piece, index) => {
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
    </>
  );
}

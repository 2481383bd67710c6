import clsx from 'clsx';
import type { ShownMatch } from '#core/overlap/items.ts';
import type { Paper } from '#core/paper/paper.ts';

/** The whole text as a narrow map, with each match at its height; those of the source in focus stand out as a band. */
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
  const share = (at: number) => `${(100 * at) / Math.max(1, paper.text.length)}%`;
  return (
    <div aria-hidden className="relative m-3 mr-6 border border-rule bg-surface max-md:hidden">
      {matches.map((match) => (
        <button
          key={match.id}
          type="button"
          tabIndex={-1}
          onClick={() => onChoose(match.id)}
          style={{ top: share(match.place.from), height: share(match.place.to - match.place.from) }}
          className={clsx(
            'absolute -right-3 left-0 min-h-1 border-r-4',
            match.sourceId === chosen?.sourceId ? 'border-ink' : 'border-rule-strong hover:border-ink',
            match === chosen && 'bg-sunken',
          )}
        />
      ))}
    </div>
  );
}

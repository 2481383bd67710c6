import { Fold } from '../../shared/controls/Fold.tsx';
import * as words from '../../words/en.ts';
import { isGoneThrough, unreadIn, type AssignmentView } from '#core/assignment/view.ts';
import { CameBackCard } from './CameBackCard.tsx';
import { ReadRow } from './ReadRow.tsx';

/** Terms that are over, folded away, the latest first. */
export function PastTerms({
  views,
  onMarked,
}: {
  views: readonly AssignmentView[];
  onMarked: (id: string) => void;
}) {
  const byTerm = new Map<string, AssignmentView[]>();
  const latestFirst = views.toSorted((x, y) =>
    (y.course?.termEndsAt ?? '').localeCompare(x.course?.termEndsAt ?? ''),
  );
  for (const view of latestFirst) {
    const key = `${view.course?.term ?? ''}\n${view.course?.termEndsAt ?? ''}`;
    byTerm.set(key, [...(byTerm.get(key) ?? []), view]);
  }
  return [...byTerm].map(([key, list]) => {
    const unread = list.reduce((sum, view) => sum + unreadIn(view), 0);
    return (
      <Fold
        key={key}
        className="mt-6 border-t border-rule pt-2"
        labelClass=""
        label={
          <>
            <span className="font-serif text-[1.12rem] font-semibold">
              {words.arrivals.pastTerm(key.split('\n')[0], list.length)}
            </span>{' '}
            {unread > 0 && (
              <span className="text-sm text-quiet">{words.arrivals.pastTermUnread(unread)}</span>
            )}
          </>
        }
      >
        <ul className="mt-2 grid gap-2.5">
          {list.map((view) =>
            view.latestMarking !== null && !isGoneThrough(view) ? (
              <CameBackCard key={view.assignment.id} view={view} onMarked={onMarked} />
            ) : (
              <ReadRow key={view.assignment.id} view={view} />
            ),
          )}
        </ul>
      </Fold>
    );
  });
}

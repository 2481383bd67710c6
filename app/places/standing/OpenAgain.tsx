import { shownShare } from '../../shared/shown/figures.ts';
import { useNow } from '../../workspace/use-workspace.ts';
import { memo, useMemo } from 'react';
import { Link } from 'react-router';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { stateSentence } from '../../shared/line/state-words.ts';
import * as words from '../../words/en.ts';
import { worthIn } from '#core/assignment/worth.ts';
import type { Standing } from '#core/assignment/standing.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** What each open resubmission can still move, under its policy, with drops and weights. */
export const OpenAgain = memo(function OpenAgain({
  standing: { graded, categories },
}: {
  standing: Standing;
}) {
  const atMs = useNow();
  const open = useMemo(
    () =>
      categories
        .flatMap(({ rows }) => rows)
        .filter(({ view }) => view.state.kind === 'open for another attempt')
        .map(({ view }) => ({ view, worth: worthIn(graded, view.assignment.id) })),
    [graded, categories],
  );
  return (
    <section>
      <SectionTitle>{words.standing.again}</SectionTitle>
      {open.length === 0 ? (
        <p className="mt-1 text-quiet">{words.standing.againNone}</p>
      ) : (
        <ul className="mt-1">
          {open.map(({ view, worth }) => (
            <li key={view.assignment.id} className="border-t border-rule py-2 text-sm">
              <Link
                to={assignmentAddress(view.assignment.id)}
                className="text-base font-semibold hover:underline"
              >
                {view.assignment.title}
              </Link>
              <p className="text-quiet">{stateSentence(view, atMs)}</p>
              <p>
                {worth === null
                  ? words.standing.againNothing
                  : words.standing.againMoves(
                      shownShare(worth.gain),
                      shownShare(worth.now),
                      shownShare(worth.most),
                    )}
              </p>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
});

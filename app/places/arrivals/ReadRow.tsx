import { memo } from 'react';
import { Link } from 'react-router';
import * as words from '../../words/en.ts';
import { unreadIn, type AssignmentView } from '#core/assignment/view.ts';
import { factsOf, ScoreShown } from './CameBackCard.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** An assignment that was gone through, in one row; what was read stays findable. */
export const ReadRow = memo(function ReadRow({ view }: { view: AssignmentView }) {
  const { assignment, tally, countByDecision } = view;
  const unread = unreadIn(view);
  return (
    <li className="border-t border-rule py-2.5">
      <div className="flex items-baseline justify-between gap-4">
        <Link
          to={assignmentAddress(assignment.id)}
          className="min-w-0 font-serif font-semibold hover:underline"
        >
          {assignment.title}
        </Link>
        <ScoreShown view={view} />
      </div>
      <p className="text-sm text-quiet">
        {[
          factsOf(view),
          unread > 0 ? words.arrivals.pastTermUnread(unread) : words.arrivals.allRead(tally.received),
          countByDecision.carry > 0 ? words.arrivals.carriedOn(countByDecision.carry) : '',
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
    </li>
  );
});

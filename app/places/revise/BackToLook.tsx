import { Link, useSearchParams } from 'react-router';
import type { AssignmentView } from '#core/assignment/view.ts';
import { assignmentAddress, placeAsked } from '../../shared/page/addresses.ts';
import * as words from '../../words/en.ts';

/** The way back for whoever came from a line of the last look. */
export function BackToLook({ view }: { view: AssignmentView }) {
  const [search] = useSearchParams();
  if (placeAsked(search) === null) return null;
  return (
    <Link
      to={assignmentAddress(view.assignment.id, 'check')}
      className="text-sm font-semibold text-accent hover:underline"
    >
      {words.look.back}
    </Link>
  );
}

import { Link } from 'react-router';
import { carriedIn } from '#core/assignment/carried.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import * as words from '../../words/en.ts';
import { Fold } from '../controls/Fold.tsx';
import { remarkAddress } from '../page/addresses.ts';
import { saidBy } from './said.ts';

/** Remarks of the same course that were carried on, to keep in mind. */
export function Carried({ view, all }: { view: AssignmentView; all: readonly AssignmentView[] }) {
  const carried = carriedIn(view, all);
  if (carried.length === 0) return null;
  return (
    <Fold labelClass="" label={words.arrivals.carried(carried.length)}>
      <ul className="mt-1 border-l border-carry pl-2.5">
        {carried.map(({ remark, hint }) => (
          <li key={remark.id} className="py-0.5">
            <Link to={remarkAddress(remark)} className="line-clamp-2 hover:underline">
              {hint ?? saidBy(remark)}
            </Link>
          </li>
        ))}
      </ul>
    </Fold>
  );
}

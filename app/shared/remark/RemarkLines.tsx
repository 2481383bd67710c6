import clsx from 'clsx';
import { Link } from 'react-router';
import type { Remark } from '#core/model/remark.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { DecisionSign } from './Decisions.tsx';
import { RemarkFacts } from './RemarkFacts.tsx';
import { saidBy } from './said.ts';
import { remarkAddress } from '../page/addresses.ts';

/** Remarks as lines, each leading to its place. */
export function RemarkLines({
  view,
  remarks,
  bold,
  onOpen,
}: {
  view: AssignmentView;
  remarks: readonly Remark[];
  /** Those that stand out. */
  bold?: ReadonlySet<string>;
  onOpen?: () => void;
}) {
  if (remarks.length === 0) return null;
  return (
    <ul className="mt-1">
      {remarks.map((remark) => (
        <li key={remark.id} className="flex items-baseline gap-3 border-t border-rule py-2">
          <span className="w-6 shrink-0 text-right text-sm text-quiet">
            {view.numberByRemark.get(remark.id)}
          </span>
          <div className="min-w-0 flex-1">
            <Link
              to={remarkAddress(remark)}
              onClick={onOpen}
              className={clsx(
                'line-clamp-2 hover:underline',
                bold?.has(remark.id) === true && 'font-semibold',
              )}
            >
              {saidBy(remark)}
            </Link>
            <RemarkFacts view={view} remark={remark} />
          </div>
          <span className="shrink-0 text-sm">
            <DecisionSign judgement={view.judgements.get(remark.id)} />
          </span>
        </li>
      ))}
    </ul>
  );
}

import type { ReactNode } from 'react';
import type { Remark } from '#core/model/remark.ts';
import { Slip } from '../../../shared/remark/Slip.tsx';
import type { AssignmentView } from '#core/assignment/view.ts';
import { useUnfolded } from '../reading-state.ts';

export interface SlipListProps {
  readonly view: AssignmentView;
  readonly remarks: readonly Remark[];
  readonly focusedId: string | null;
  readonly onFocus: (id: string) => void;
}

/** Slips below one another, for remarks that are not shown beside a paper. */
export function SlipList({
  view,
  remarks,
  focusedId,
  onFocus,
  below,
}: SlipListProps & {
  /** What stands below each. */
  below?: (remark: Remark) => ReactNode;
}) {
  const [unfolded, unfold] = useUnfolded(view.assignment.id);
  return (
    <ol className="grid gap-3">
      {remarks.map((remark) => (
        <li key={remark.id}>
          <Slip
            view={view}
            remark={remark}
            focused={remark.id === focusedId}
            unfolded={unfolded.includes(remark.id)}
            onUnfold={unfold}
            onFocus={onFocus}
          />
          {below?.(remark)}
        </li>
      ))}
    </ol>
  );
}

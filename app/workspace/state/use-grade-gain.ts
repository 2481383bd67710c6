import { useMemo } from 'react';
import { gradeGain, type GradeGain } from '#core/assignment/grade-gain.ts';
import { recordsIn } from '#core/assignment/records.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { useWorkspaceState } from '../use-workspace.ts';

/** What points won on an assignment do to the course grade; null where nobody can tell. @param gain hundredths of a point */
export function useGradeGain(view: AssignmentView, gain: number): GradeGain | null {
  const records = useWorkspaceState((state) => state.records);
  return useMemo(() => gradeGain(recordsIn(records), view, gain), [records, view, gain]);
}

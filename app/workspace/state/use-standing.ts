import { useMemo } from 'react';
import { recordsIn } from '#core/assignment/records.ts';
import { ifsOf, type Ifs, type Standing } from '#core/assignment/standing.ts';
import { worthOf, type Worth } from '#core/assignment/worth.ts';
import { useWorkspace, useWorkspaceState } from '../use-workspace.ts';

/** Where a course stands, kept up to date; null where nobody says how its grade is made. */
export function useStanding(courseId: string): Standing | null {
  const { views } = useWorkspace();
  return useWorkspaceState(({ records, atMs }) => views.standingOf(records, courseId, atMs));
}

export function useIfs(standing: Standing): Ifs | null {
  const ifScores = useWorkspaceState(({ records }) => records.ifScores);
  return useMemo(() => ifsOf(ifScores, standing), [ifScores, standing]);
}

/** What one more attempt could move in the course grade; null where it could move nothing, or nobody knows. */
export function useWorth(assignmentId: string): Worth | null {
  const records = useWorkspaceState((state) => state.records);
  return useMemo(() => worthOf(recordsIn(records), assignmentId), [records, assignmentId]);
}

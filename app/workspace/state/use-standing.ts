import { useMemo } from 'react';
import { ifsOf, type Ifs, type Standing } from '#core/assignment/standing.ts';
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

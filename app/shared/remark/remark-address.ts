import type { Remark } from '#core/model/remark.ts';

/** Where a remark is shown in its place. */
export function remarkAddress({ assignmentId, id }: Pick<Remark, 'assignmentId' | 'id'>): string {
  return `/a/${encodeURIComponent(assignmentId)}/read?remark=${encodeURIComponent(id)}`;
}

/** Where a criterion stands in the rubric of an assignment. */
export function criterionAddress(assignmentId: string, criterionId: string): string {
  return `/a/${encodeURIComponent(assignmentId)}/read?material=criteria&criterion=${encodeURIComponent(criterionId)}`;
}

import type { Remark } from '#core/model/remark.ts';

/** Where a remark is shown in its place. */
export function remarkAddress({ assignmentId, id }: Pick<Remark, 'assignmentId' | 'id'>): string {
  return `/a/${encodeURIComponent(assignmentId)}/read?remark=${encodeURIComponent(id)}`;
}

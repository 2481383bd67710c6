import type { AssignmentId, CourseId } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Span } from '#core/text/span.ts';

/** The places of an assignment, by the last part of their address (App.tsx); '' is the assignment's own page. */
type AssignmentPlace =
  | ''
  | 'read'
  | 'decide'
  | 'plan'
  | 'revise'
  | 'check'
  | 'send'
  | 'edit'
  | 'score'
  | 'rubric'
  | 'take'
  | 'overlap'
  | 'response';

/** The address of a place of an assignment. */
export function assignmentAddress(
  id: AssignmentId,
  place: AssignmentPlace = '',
  asked: Readonly<Record<string, string>> = {},
): string {
  const query = new URLSearchParams(asked).toString();
  const path = `/a/${encodeURIComponent(id)}${place === '' ? '' : `/${place}`}`;
  return query === '' ? path : `${path}?${query}`;
}

const PLACE = /^(\d{1,9})-(\d{1,9})$/;

/** A place of the draft, where it is written on. */
export function placeAddress(id: AssignmentId, { from, to }: Span): string {
  return assignmentAddress(id, 'revise', { at: `${from}-${to}` });
}

/** The place that an address asks for; null where it asks for none. */
export function placeAsked(search: URLSearchParams): Span | null {
  const found = PLACE.exec(search.get('at') ?? '');
  return found === null ? null : { from: Number(found[1]), to: Number(found[2]) };
}

/** The address of a course's standing, or of a form of it. */
export function courseAddress(id: CourseId, form: '' | 'edit' | 'add' = ''): string {
  return `/standing/${encodeURIComponent(id)}${form === '' ? '' : `/${form}`}`;
}

/** Where a remark is shown in its place. */
export function remarkAddress({ assignmentId, id }: Pick<Remark, 'assignmentId' | 'id'>): string {
  return assignmentAddress(assignmentId, 'read', { remark: id });
}

/** Where a criterion stands in the rubric of an assignment. */
export function criterionAddress(assignmentId: AssignmentId, criterionId: string): string {
  return assignmentAddress(assignmentId, 'read', { material: 'criteria', criterion: criterionId });
}

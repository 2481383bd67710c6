import { useMemo } from 'react';
import type { Assignment } from '#core/model/facts.ts';
import { rubricOf } from './assignment-points.ts';
import { viewOf, type AssignmentView } from './assignment-view.ts';
import { ownRecords } from './by-assignment.ts';
import { storeNames, type RecordMaps } from './records.ts';
import { nowMs, useWorkspace } from './workspace.ts';

/** Views that are kept: of many assignments, only those that something was changed in are computed anew. */

/** What a view was computed from; the same things give the same view. */
interface Kept {
  readonly from: readonly unknown[];
  readonly until: number;
  readonly view: AssignmentView | null;
}
const kept = new Map<string, Kept>();

const OWN_STORES = [
  'markings',
  'attempts',
  'withdrawals',
  'files',
  'remarks',
  'promises',
  'submissions',
  'drafts',
  'tasks',
  'queries',
  'aims',
] as const;

function madeFrom(records: RecordMaps, id: string): unknown[] {
  const assignment = records.assignments.get(id);
  const remarks = ownRecords(records, 'remarks', id);
  return [
    assignment,
    records.courses.get(assignment?.courseId ?? ''),
    assignment === undefined ? null : rubricOf(records, assignment),
    ...ofFinal(records, assignment),
    records.people,
    records.assignments,
    ...OWN_STORES.flatMap((store) => ['|', ...ownRecords(records, store, id)]),
    ...ownRecords(records, 'arrivals', id),
    ...ownRecords(records, 'readings', id),
    '|',
    ...remarks.map((remark) => records.judgements.get(remark.id)),
  ];
}

/** What a draft stage is computed from beside its own: its final's rubric and results. */
function ofFinal(records: RecordMaps, assignment: Assignment | undefined): unknown[] {
  const final = records.assignments.get(assignment?.draftOf ?? '');
  if (final === undefined) return [];
  return [
    rubricOf(records, final),
    ...ownRecords(records, 'attempts', final.id),
    ...ownRecords(records, 'markings', final.id),
    ...ownRecords(records, 'withdrawals', final.id),
    '|',
  ];
}

/** Until when nothing changes by time alone. */
function steadyUntil({ opensAt, dueAt, extendedTo, closesAt }: Assignment, atMs: number): number {
  const next = [opensAt, dueAt, extendedTo, closesAt]
    .map((at) => (at === null ? Infinity : Date.parse(at)))
    .filter((ms) => ms >= atMs);
  return Math.min(Infinity, ...next);
}

/** The view of an assignment; of many, only those are computed anew that something was changed in. */
export function keptViewOf(records: RecordMaps, id: string, atMs: number): AssignmentView | null {
  const from = madeFrom(records, id);
  const known = kept.get(id);
  if (
    known !== undefined &&
    atMs <= known.until &&
    known.from.length === from.length &&
    known.from.every((one, i) => one === from[i])
  )
    return known.view;
  const view = viewOf(records, id, atMs);
  kept.set(id, { from, view, until: view === null ? Infinity : steadyUntil(view.assignment, atMs) });
  return view;
}

/** The view of an assignment, computed again when a record changes. */
export function useAssignmentView(id: string): AssignmentView | null {
  const records = useWorkspace((state) => state.records);
  return useMemo(() => keptViewOf(records, id, nowMs()), [records, id]);
}

export function useAllViews(): AssignmentView[] {
  const records = useWorkspace((state) => state.records);
  return useMemo(() => allViews(records, nowMs()), [records]);
}

/** Stores that no view is computed from. */
const BESIDE_VIEWS: ReadonlySet<string> = new Set<keyof RecordMaps>(['ifScores', 'versions']);

/** Whether views of the one records hold for the other: only what they aren't computed from differs. */
export function sameForViews(x: RecordMaps, y: RecordMaps): boolean {
  return x === y || storeNames.every((store) => BESIDE_VIEWS.has(store) || x[store] === y[store]);
}

let keptAll: { records: RecordMaps; until: number; views: AssignmentView[] } | null = null;

/** The views of all assignments; several places that ask for the same records get the same. */
export function allViews(records: RecordMaps, atMs: number): AssignmentView[] {
  if (keptAll !== null && atMs <= keptAll.until && sameForViews(keptAll.records, records))
    return keptAll.views;
  const views = [...records.assignments.keys()].flatMap((id) => keptViewOf(records, id, atMs) ?? []);
  const until = Math.min(Infinity, ...views.map(({ assignment }) => steadyUntil(assignment, atMs)));
  keptAll = { records, until, views };
  return views;
}

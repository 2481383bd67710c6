import type { RecordByStore, RecordMaps, StoreName } from './records.ts';

/** Stores whose records belong to an assignment. */
export type OwnedStore = {
  readonly [Store in StoreName]: RecordByStore[Store] extends { readonly assignmentId: unknown }
    ? Store
    : never;
}[StoreName];

const grouped = new WeakMap<object, ReadonlyMap<string, readonly unknown[]>>();

function groupsOf(records: ReadonlyMap<string, { readonly assignmentId: string | null }>) {
  const known = grouped.get(records);
  if (known !== undefined) return known;
  const groups = new Map<string, unknown[]>();
  for (const record of records.values()) {
    if (record.assignmentId === null) continue;
    const group = groups.get(record.assignmentId);
    if (group === undefined) groups.set(record.assignmentId, [record]);
    else group.push(record);
  }
  grouped.set(records, groups);
  return groups;
}

const NONE: readonly never[] = [];

/** The records of a store that belong to an assignment. A store is gone through once for all assignments. */
export function ownRecords<Store extends OwnedStore>(
  records: RecordMaps,
  store: Store,
  assignmentId: string,
): readonly RecordByStore[Store][] {
  const groups = groupsOf(records[store]);
  return (groups.get(assignmentId) ?? NONE) as readonly RecordByStore[Store][];
}

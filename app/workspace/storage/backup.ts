import type { Workspace } from '../workspace.ts';
import * as v from 'valibot';
import type { Payload } from '#formats/bag/bag.ts';
import { reader } from '../../workers/clients.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { bodyHashIn, packText, type Body } from './bodies.ts';
import { fileSafe } from '../../shared/files/file-name.ts';
import * as words from '../../words/en.ts';
import { DATABASE_VERSION, type GoneRow, type StoredRow } from './database.ts';
import { mergeOf, type Merge } from './merge.ts';
import { recordStores, storeNames, type RecordByStore, type StoreName } from './records.ts';
import type { Writing } from './transact.ts';
import { packedIn, upgradeRecordsFrom, type MovedBodies } from './upgrades.ts';

const WORKSPACE = 'workspace.json';

const BackupRow = v.object({
  store: v.picklist(storeNames),
  key: v.string(),
  record: v.unknown(),
  at: v.exactOptional(v.string()),
});
type BackupRow = v.InferOutput<typeof BackupRow>;
const BackupFile = v.object({
  kind: v.literal('juncture workspace'),
  version: v.number(),
  at: v.string(),
  cursor: v.number(),
  /** Whose workspace it is, by the name of its database; backups from before version 13 don't say. */
  of: v.optional(v.string(), ''),
  /** Whose it is, as people are called; '' where nobody is signed in. */
  by: v.optional(v.string(), ''),
  /** The one assignment that it holds; null for the whole workspace. */
  only: v.optional(v.nullable(v.string()), null),
  records: v.array(BackupRow),
  gone: v.optional(v.array(v.object({ store: v.picklist(storeNames), key: v.string(), at: v.string() })), []),
});

const FILES = 'files/';
const BODIES = 'bodies/';

/** Records that belong to no assignment and are needed with every one. */
const SHARED: ReadonlySet<StoreName> = new Set(['courses', 'rubrics', 'people', 'markKeys']);
const OfAssignment = v.looseObject({ assignmentId: v.string() });

/** The rows of one assignment, and what it is in. */
function rowsOf(rows: readonly StoredRow[], only: string): StoredRow[] {
  return rows.filter(({ store, key, record }) => {
    if (store === 'assignments') return key === only;
    if (SHARED.has(store)) return true;
    const own = v.safeParse(OfAssignment, record);
    return own.success && own.output.assignmentId === only;
  });
}

/**
 * The whole workspace as one ZIP: a BagIt bag with the records as JSON and every file.
 * @param only one assignment alone, to be given to somebody; null for everything
 */
export async function writeBackup(
  workspace: Workspace,
  {
    only = null,
    told,
  }: { readonly only?: string | null; readonly told?: (done: number, of: number) => void } = {},
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
  const date = workspace.now().slice(0, 10);
  const { identity } = workspace;
  const stored = await workspace.storedRows();
  const rows = only === null ? stored.rows : rowsOf(stored.rows, only);
  const content: v.InferInput<typeof BackupFile> = {
    kind: 'juncture workspace',
    version: DATABASE_VERSION,
    at: workspace.now(),
    cursor: v.parse(v.fallback(v.number(), 0), await workspace.metaValue('cursor')),
    of: workspace.name,
    by: identity.kind === 'student' ? identity.studentName : '',
    only,
    records: rows,
    gone: only === null ? stored.gone : [],
  };
  const payload: Record<string, Uint8Array<ArrayBuffer>> = {
    [WORKSPACE]: new TextEncoder().encode(JSON.stringify(content, null, 1)),
  };
  const hashes = rows.flatMap(({ store, key }) => (store === 'files' ? [key] : []));
  const bodies = [...bodiesIn(rows)];
  const all = hashes.length + bodies.length;
  for (const [index, hash] of hashes.entries()) {
    const bytes = await workspace.fileBytes(hash);
    if (bytes !== null) payload[`${FILES}${hash}`] = bytes;
    told?.(index + 1, all);
  }
  for (const [index, hash] of bodies.entries()) {
    const text = await workspace.bodyText(hash);
    if (text !== null) payload[`${BODIES}${hash}.json`] = new TextEncoder().encode(text);
    told?.(hashes.length + index + 1, all);
  }
  const title =
    only === null ? 'workspace' : fileSafe(workspace.records.assignments.get(only)?.title ?? only);
  const name = `juncture-${title}-${date}`;
  return { name: `${name}.zip`, bytes: await reader.ask((worker) => worker.writeBag(name, payload, date)) };
}

export interface CheckedBackup {
  readonly at: string;
  readonly cursor: number;
  readonly of: string;
  readonly by: string;
  readonly only: string | null;
  readonly rows: readonly StoredRow[];
  readonly gone: readonly GoneRow[];
  readonly files: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
  readonly bodies: readonly Body[];
}

/** The documents that records have. */
function bodiesIn(rows: readonly { readonly record?: unknown }[]): Set<string> {
  return new Set(rows.flatMap(({ record }) => bodyHashIn(record)));
}

/** Reads a backup and checks all of it; nothing in the workspace is touched. */
export async function checkBackup(bytes: Uint8Array): Promise<ReadResult<CheckedBackup>> {
  const bag = await reader.ask((worker) => worker.readBag(bytes));
  return bag.kind === 'read' ? parseBackup(bag.value) : bag;
}

async function parseBackup(payload: Payload): Promise<ReadResult<CheckedBackup>> {
  const json = payload[WORKSPACE] as Uint8Array | undefined;
  if (json === undefined) return { kind: 'unreadable', reason: 'not a backup', detail: '' };
  const parsed = v.safeParse(BackupFile, JSON.parse(new TextDecoder().decode(json)));
  if (!parsed.success) return { kind: 'unreadable', reason: 'damaged backup', detail: WORKSPACE };
  if (parsed.output.version > DATABASE_VERSION)
    return { kind: 'unreadable', reason: 'newer backup', detail: '' };
  const { version, records: rows, of, by, only, gone } = parsed.output;
  const moved = version < 8 ? await packedIn(rows) : new Map<string, Body>();
  const records = upToDate(version, rows, moved);
  const wrong = records.find((row) => !isSound(row));
  if (wrong !== undefined)
    return {
      kind: 'unreadable',
      reason: 'damaged backup',
      detail: `${WORKSPACE}, ${wrong.store} ${wrong.key}`,
    };
  const inside = (folder: string) =>
    Object.entries(payload).flatMap(([name, content]) =>
      name.startsWith(folder) ? [[name.slice(folder.length), content] as const] : [],
    );
  const bodies = [...moved.values()];
  for (const [, content] of inside(BODIES)) bodies.push(await packText(new TextDecoder().decode(content)));
  const known = new Set<string>(bodies.map(({ hash }) => hash));
  const lost = records.find(({ record }) => bodyHashIn(record).some((hash) => !known.has(hash)));
  if (lost !== undefined)
    return { kind: 'unreadable', reason: 'damaged backup', detail: `${BODIES}, ${lost.store} ${lost.key}` };
  return {
    kind: 'read',
    value: {
      at: parsed.output.at,
      cursor: parsed.output.cursor,
      of,
      by,
      only,
      gone,
      rows: records,
      files: new Map(inside(FILES)),
      bodies,
    },
  };
}

function upToDate(version: number, rows: readonly BackupRow[], moved: MovedBodies): StoredRow[] {
  const upgrade = upgradeRecordsFrom(version, rows, moved);
  return rows.map((row) => ({ ...row, record: upgrade(row.store, row.key, row.record) }));
}

function isSound(row: { store: StoreName; record: unknown }): boolean {
  return v.is(recordStores[row.store].schema, row.record);
}

/** Puts a checked backup in place of everything that is in the workspace. */
export function restoreBackup(workspace: Workspace, backup: CheckedBackup): Promise<void> {
  return workspace.replaceAll(backup, { cursor: backup.cursor });
}

/** What joining a checked backup with this workspace would do. */
export async function mergeWith(workspace: Workspace, backup: CheckedBackup): Promise<Merge> {
  return mergeOf(await workspace.storedRows(), backup);
}

/** In which place joining is taken back. */
export const SHELF_SCOPE = 'shelf';

/** Joins a checked backup with what is here, as one command. */
export async function joinBackup(workspace: Workspace, backup: CheckedBackup): Promise<Merge> {
  // What is still being typed goes first.
  await workspace.whenSaved();
  const merge = await mergeWith(workspace, backup);
  const put = (writing: Writing, { store, record, at }: StoredRow) =>
    writing.put(store, record as RecordByStore[typeof store], at);
  await workspace.run(SHELF_SCOPE, words.undo.joined, async (writing) => {
    for (const [hash, bytes] of backup.files) writing.putBytes(hash, bytes);
    for (const body of backup.bodies) writing.putBody(body);
    await Promise.all(merge.puts.map((row) => put(writing, row)));
    await Promise.all(merge.removes.map(({ store, key, at }) => writing.remove(store, key, at)));
  });
  return merge;
}

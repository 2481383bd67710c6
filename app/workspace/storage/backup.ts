import type { Workspace } from '../workspace.ts';
import * as v from 'valibot';
import type { Payload } from '#formats/bag/bag.ts';
import { reader } from '../../workers/clients.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { bodyHashIn, packText, type Body } from './bodies.ts';
import { DATABASE_VERSION } from './database.ts';
import { recordStores, storeNames, type RecordMaps, type StoreName } from './records.ts';
import { packedIn, upgradeRecordsFrom, type MovedBodies } from './upgrades.ts';

const WORKSPACE = 'workspace.json';

const BackupRow = v.object({ store: v.picklist(storeNames), key: v.string(), record: v.unknown() });
type BackupRow = v.InferOutput<typeof BackupRow>;
const BackupFile = v.object({
  kind: v.literal('juncture workspace'),
  version: v.number(),
  at: v.string(),
  cursor: v.number(),
  records: v.array(BackupRow),
});

const FILES = 'files/';
const BODIES = 'bodies/';

function rowsOf(records: RecordMaps): BackupRow[] {
  return storeNames.flatMap((store) => [...records[store]].map(([key, record]) => ({ store, key, record })));
}

/** The whole workspace as one ZIP: a BagIt bag with the records as JSON and every file. */
export async function writeBackup(
  workspace: Workspace,
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
  const { records } = workspace;
  const date = workspace.now().slice(0, 10);
  const content: v.InferInput<typeof BackupFile> = {
    kind: 'juncture workspace',
    version: DATABASE_VERSION,
    at: workspace.now(),
    cursor: v.parse(v.fallback(v.number(), 0), await workspace.metaValue('cursor')),
    records: rowsOf(records),
  };
  const payload: Record<string, Uint8Array<ArrayBuffer>> = {
    [WORKSPACE]: new TextEncoder().encode(JSON.stringify(content, null, 1)),
  };
  for (const hash of records.files.keys()) {
    const bytes = await workspace.fileBytes(hash);
    if (bytes !== null) payload[`${FILES}${hash}`] = bytes;
  }
  for (const hash of bodiesIn(content.records)) {
    const text = await workspace.bodyText(hash);
    if (text !== null) payload[`${BODIES}${hash}.json`] = new TextEncoder().encode(text);
  }
  const name = `juncture-workspace-${date}`;
  return { name: `${name}.zip`, bytes: await reader.ask((worker) => worker.writeBag(name, payload, date)) };
}

export interface CheckedBackup {
  readonly at: string;
  readonly cursor: number;
  readonly rows: readonly BackupRow[];
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
  const { version, records: rows } = parsed.output;
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
      rows: records,
      files: new Map(inside(FILES)),
      bodies,
    },
  };
}

function upToDate(version: number, rows: readonly BackupRow[], moved: MovedBodies): BackupRow[] {
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

import type { Workspace } from '../workspace.ts';
import * as v from 'valibot';
import type { Payload } from '#formats/bag/bag.ts';
import { reader } from '../../workers/clients.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { DATABASE_VERSION } from './database.ts';
import { recordStores, storeNames, type RecordMaps, type StoreName } from './records.ts';
import { upgradeRecordsFrom } from './upgrades.ts';
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
    if (bytes !== null) payload[`files/${hash}`] = bytes;
  }
  const name = `juncture-workspace-${date}`;
  return { name: `${name}.zip`, bytes: await reader.ask((worker) => worker.writeBag(name, payload, date)) };
}

export interface CheckedBackup {
  readonly at: string;
  readonly cursor: number;
  readonly rows: readonly BackupRow[];
  readonly files: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
}

/** Reads a backup and checks all of it; nothing in the workspace is touched. */
export async function checkBackup(bytes: Uint8Array): Promise<ReadResult<CheckedBackup>> {
  const bag = await reader.ask((worker) => worker.readBag(bytes));
  return bag.kind === 'read' ? parseBackup(bag.value) : bag;
}

function parseBackup(payload: Payload): ReadResult<CheckedBackup> {
  const json = payload[WORKSPACE] as Uint8Array | undefined;
  if (json === undefined) return { kind: 'unreadable', reason: 'not a backup', detail: '' };
  const parsed = v.safeParse(BackupFile, JSON.parse(new TextDecoder().decode(json)));
  if (!parsed.success) return { kind: 'unreadable', reason: 'damaged backup', detail: WORKSPACE };
  if (parsed.output.version > DATABASE_VERSION)
    return { kind: 'unreadable', reason: 'newer backup', detail: '' };
  const records = upToDate(parsed.output.version, parsed.output.records);
  const wrong = records.find((row) => !isSound(row));
  if (wrong !== undefined)
    return {
      kind: 'unreadable',
      reason: 'damaged backup',
      detail: `${WORKSPACE}, ${wrong.store} ${wrong.key}`,
    };
  const files = Object.entries(payload).filter(([name]) => name.startsWith('files/'));
  return {
    kind: 'read',
    value: {
      at: parsed.output.at,
      cursor: parsed.output.cursor,
      rows: records,
      files: new Map(files.map(([name, content]) => [name.slice('files/'.length), content])),
    },
  };
}

function upToDate(version: number, rows: readonly BackupRow[]): BackupRow[] {
  const upgrade = upgradeRecordsFrom(version, rows);
  return rows.map((row) => ({ ...row, record: upgrade(row.store, row.key, row.record) }));
}

function isSound(row: { store: StoreName; record: unknown }): boolean {
  return v.is(recordStores[row.store].schema, row.record);
}

/** Puts a checked backup in place of everything that is in the workspace. */
export function restoreBackup(workspace: Workspace, backup: CheckedBackup): Promise<void> {
  return workspace.replaceAll(backup.rows, backup.files, { cursor: backup.cursor });
}

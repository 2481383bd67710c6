import { refusedAs } from '../malformed.ts';
import { strFromU8, strToU8, zipSync, type Zippable } from 'fflate';
import { hashOf } from '../hash.ts';
import { UnreadableFile } from '../unreadable.ts';
import { readZip } from '../zip/read-zip.ts';

/** A BagIt 1.0 bag (RFC 8493) in a ZIP: payload files under data/, each with its SHA-256 in the manifest. */

const DECLARATION = 'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n';
const MANIFEST = 'manifest-sha256.txt';

/** The files of a bag, by their names relative to data/. */
export type Payload = Readonly<Record<string, Uint8Array<ArrayBuffer>>>;

/**
 * Writes a bag. `root` is the folder within the ZIP; payload names are relative to data/.
 * @param date the day in the bag's description, YYYY-MM-DD
 */
export async function writeBag(
  root: string,
  payload: Payload,
  date: string,
): Promise<Uint8Array<ArrayBuffer>> {
  const names = Object.keys(payload).sort();
  const size = names.reduce((sum, name) => sum + payload[name].length, 0);
  const lines = await Promise.all(
    names.map(async (name) => `${await hashOf(payload[name])}  data/${name}\n`),
  );
  const entries: Zippable = {
    [`${root}/bagit.txt`]: strToU8(DECLARATION),
    [`${root}/bag-info.txt`]: strToU8(`Bagging-Date: ${date}\nPayload-Oxum: ${size}.${names.length}\n`),
    [`${root}/${MANIFEST}`]: strToU8(lines.join('')),
  };
  // PDF and Word files are compressed already: packing them again costs time and gains nothing.
  for (const name of names)
    entries[`${root}/data/${name}`] = [payload[name], { level: name.endsWith('.json') ? 6 : 0 }];
  return new Uint8Array(zipSync(entries, { mtime: new Date(`${date}T12:00:00`) }));
}

/**
 * Reads a bag and verifies every checksum before anything is returned.
 * @throws UnreadableFile 'not a backup', or 'damaged backup' with the file that is missing, changed or too many
 */
export async function readBag(bytes: Uint8Array): Promise<Payload> {
  const entries = entriesOf(bytes);
  const declaration = Object.keys(entries).find((name) => /^[^/]+\/bagit\.txt$/.test(name));
  if (declaration === undefined) throw new UnreadableFile('not a backup');
  const root = declaration.slice(0, -'bagit.txt'.length);
  const manifest = entries[root + MANIFEST] as Uint8Array | undefined;
  if (manifest === undefined) throw new UnreadableFile('damaged backup', MANIFEST);
  const payload: Record<string, Uint8Array<ArrayBuffer>> = {};
  for (const line of strFromU8(manifest).split('\n').filter(Boolean)) {
    const [, expected, name] = /^([0-9a-f]{64})\s+data\/(.+)$/.exec(line) ?? [];
    if (!expected || !name) throw new UnreadableFile('damaged backup', MANIFEST);
    const content = entries[`${root}data/${name}`] as Uint8Array<ArrayBuffer> | undefined;
    if (content === undefined || (await hashOf(content)) !== expected)
      throw new UnreadableFile('damaged backup', name);
    payload[name] = content;
  }
  const listed = new Set(Object.keys(payload).map((name) => `${root}data/${name}`));
  const extra = Object.keys(entries).find(
    (name) => name.startsWith(`${root}data/`) && !name.endsWith('/') && !listed.has(name),
  );
  if (extra !== undefined) throw new UnreadableFile('damaged backup', extra.slice(root.length));
  return payload;
}

function entriesOf(bytes: Uint8Array) {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new UnreadableFile('not a backup');
  return refusedAs('damaged backup', () => readZip(bytes, () => true));
}

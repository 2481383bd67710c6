import { createHash } from 'node:crypto';
import {
  closeSync,
  createReadStream,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { asId, FileHash } from '#core/model/ids.ts';
import type { Part, UploadState } from '#formats/desk/handing-in.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';

/** What became of a part: taken, or why it was not. */
type PartTaken =
  | { readonly kind: 'taken'; readonly state: UploadState }
  | { readonly kind: 'refused'; readonly status: 409 | 413 | 422; readonly why: string };

/** Files on their way to the desk: parts are put behind one another, in a file of their own until all are there. */
export interface Uploads {
  stateOf(hash: string): UploadState | null;
  /** Takes the next part; one that is there already is taken as it is, one beyond what is there is refused. */
  take(hash: string, part: Part, bytes: Uint8Array): Promise<PartTaken>;
}

const HASH = /^[0-9a-f]{64}$/;

/** Nobody goes on with an upload after so long; a term's breaks are shorter. */
const ABANDONED_MS = 30 * 86_400_000;

/** Takes away parts of files that nobody sent on for long. */
function forgetAbandoned(folder: string): void {
  if (!existsSync(folder)) return;
  for (const name of readdirSync(folder)) {
    const path = join(folder, name);
    if (Date.now() - statSync(path).mtimeMs > ABANDONED_MS) rmSync(path);
  }
}

async function hashOfFile(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/**
 * The uploads of a desk's folder. They outlive the server: what was received when it stopped is there when it starts.
 * @param files where whole files are kept by their hashes
 */
export function uploadsIn(folder: string, files: string): Uploads {
  forgetAbandoned(folder);
  const pathOf = (hash: string) => join(folder, `${hash}.part`);
  const stateOf = (hash: string): UploadState | null => {
    if (!HASH.test(hash)) return null;
    const whole = existsSync(join(files, hash));
    const path = whole ? join(files, hash) : pathOf(hash);
    const received = existsSync(path) ? statSync(path).size : 0;
    return { hash: asId(FileHash, hash), received, whole };
  };
  /** One part at a time for each file: two tabs may send the same. */
  const queues = new Map<string, Promise<unknown>>();
  const takeNow = async (hash: string, part: Part, bytes: Uint8Array): Promise<PartTaken> => {
    const state = stateOf(hash);
    if (state === null) return { kind: 'refused', status: 422, why: 'An upload is named by its SHA-256.' };
    if (state.whole) return { kind: 'taken', state };
    if (part.size > MOST_FILE_BYTES)
      return { kind: 'refused', status: 413, why: 'The file is larger than 300 MB.' };
    if (part.to - part.from + 1 !== bytes.length || part.from > state.received)
      return { kind: 'refused', status: 409, why: `The desk has ${state.received} bytes of this file.` };
    mkdirSync(folder, { recursive: true });
    // What was sent again after a break is the same bytes.
    const handle = openSync(pathOf(hash), existsSync(pathOf(hash)) ? 'r+' : 'w+');
    try {
      writeSync(handle, bytes, 0, bytes.length, part.from);
      fsyncSync(handle);
    } finally {
      closeSync(handle);
    }
    const received = Math.max(state.received, part.to + 1);
    if (received < part.size) return { kind: 'taken', state: { ...state, received } };
    if ((await hashOfFile(pathOf(hash))) !== hash) {
      rmSync(pathOf(hash));
      return { kind: 'refused', status: 422, why: 'The file arrived damaged. It is sent anew.' };
    }
    renameSync(pathOf(hash), join(files, hash));
    return { kind: 'taken', state: { ...state, received, whole: true } };
  };
  return {
    stateOf,
    take(hash, part, bytes) {
      const before = queues.get(hash) ?? Promise.resolve();
      const taken = before.then(() => takeNow(hash, part, bytes));
      const settled = taken.catch(() => undefined);
      queues.set(hash, settled);
      void settled.then(() => {
        if (queues.get(hash) === settled) queues.delete(hash);
      });
      return taken;
    },
  };
}

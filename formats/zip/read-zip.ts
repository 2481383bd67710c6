import { unzipSync, type UnzipFileInfo } from 'fflate';
import { parsing } from '../malformed.ts';
import { UnreadableFile } from '../unreadable.ts';

const MOST_ENTRIES = 10_000;
const MOST_EXPANDED = 1024 * 1024 * 1024;
/** Deflate reaches about 1,000 : 1 at the most; text of a paper stays far below this. */
const MOST_RATIO = 250;
/** Ratios of small archives say nothing. */
const RATIO_FROM_BYTES = 8 * 1024 * 1024;

/**
 * The wanted entries of a ZIP by name, within limits on number, size and expansion. Names that lead outside are refused.
 * @throws UnreadableFile 'archive too large'; Malformed for bytes that are no sound ZIP
 */
export function readZip(
  bytes: Uint8Array,
  wanted: (name: string) => boolean,
): Record<string, Uint8Array<ArrayBuffer>> {
  const files: UnzipFileInfo[] = [];
  // Looked through first, with nothing unpacked.
  parsing(() => unzipSync(bytes, { filter: (file) => files.push(file) < 0 }));
  let expanded = 0;
  for (const { name, originalSize } of files) {
    expanded += originalSize;
    if (name.startsWith('/') || name.split(/[/\\]/).includes('..'))
      throw new UnreadableFile('archive too large', name);
  }
  if (files.length > MOST_ENTRIES || expanded > MOST_EXPANDED) throw new UnreadableFile('archive too large');
  if (expanded > RATIO_FROM_BYTES && expanded > MOST_RATIO * bytes.length)
    throw new UnreadableFile('archive too large');
  const names = new Set(files.map(({ name }) => name).filter(wanted));
  const entries = parsing(() => unzipSync(bytes, { filter: ({ name }) => names.has(name) }));
  const found: Record<string, Uint8Array<ArrayBuffer>> = {};
  for (const [name, content] of Object.entries(entries)) found[name] = new Uint8Array(content);
  return found;
}

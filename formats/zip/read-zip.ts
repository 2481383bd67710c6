import { unzipSync, type UnzipFileInfo } from 'fflate';
import { UnreadableFile } from '../unreadable.ts';

const MOST_ENTRIES = 10_000;
const MOST_EXPANDED = 1024 * 1024 * 1024;
/** Deflate reaches about 1,000 : 1 at the most; text of a paper stays far below this. */
const MOST_RATIO = 250;
/** Ratios of small archives say nothing. */
const RATIO_FROM_BYTES = 8 * 1024 * 1024;

/**
 * The wanted entries of a ZIP by name, within limits on number, size and expansion. Names that lead outside are refused.
 * @throws UnreadableFile 'archive too large'; other errors mean that the bytes are no sound ZIP
 */
export function readZip(
  bytes: Uint8Array,
  wanted: (name: string) => boolean,
): Record<string, Uint8Array<ArrayBuffer>> {
  let entries = 0;
  let expanded = 0;
  const filter = (file: UnzipFileInfo): boolean => {
    entries++;
    expanded += file.originalSize;
    if (file.name.startsWith('/') || file.name.split(/[/\\]/).includes('..'))
      throw new UnreadableFile('archive too large', file.name);
    if (entries > MOST_ENTRIES || expanded > MOST_EXPANDED) throw new UnreadableFile('archive too large');
    if (expanded > RATIO_FROM_BYTES && expanded > MOST_RATIO * bytes.length)
      throw new UnreadableFile('archive too large');
    return wanted(file.name);
  };
  const found: Record<string, Uint8Array<ArrayBuffer>> = {};
  for (const [name, content] of Object.entries(unzipSync(bytes, { filter })))
    found[name] = new Uint8Array(content);
  return found;
}

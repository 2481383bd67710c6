import { readPaperAs } from './formats.ts';
import type { MarkedPaper } from './marked-paper.ts';
import type { PdfAssets } from './pdf/open-pdf.ts';
import type { PdfReading } from './pdf/read-marked-pdf.ts';
import { formatOf } from './recognise.ts';
import { MOST_FILE_BYTES, UnreadableFile } from './unreadable.ts';

/**
 * Reads a marked paper of any kind: PDF, Word, OpenDocument text, plain text, a quiz, posts, or a picture.
 * @throws UnreadableFile
 */
export async function readPaper(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  options: PdfReading = {},
): Promise<MarkedPaper> {
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  return readPaperAs(formatOf(bytes), bytes, assets, options);
}

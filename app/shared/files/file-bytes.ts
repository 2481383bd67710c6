import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import * as words from '../../words/en.ts';

/** The bytes of a chosen file, or the sentence why it isn't even begun. */
export async function bytesOfFile(file: File): Promise<Uint8Array<ArrayBuffer> | string> {
  if (file.size > MOST_FILE_BYTES) return words.unreadable['too large'](file.name, '');
  return new Uint8Array(await file.arrayBuffer());
}

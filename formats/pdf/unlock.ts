import { PDFDocument } from '@cantoo/pdf-lib';
import { UnreadableFile } from '../unreadable.ts';

/**
 * A copy of a locked PDF that opens without its password; what is in it stays as it was.
 * @throws UnreadableFile 'wrong password', or 'damaged PDF' for one that can't be written anew
 */
export async function unlockPdf(bytes: Uint8Array, password: string): Promise<Uint8Array<ArrayBuffer>> {
  try {
    const document = await PDFDocument.load(bytes, { password, updateMetadata: false });
    return new Uint8Array(await document.save({ useObjectStreams: false, addDefaultPage: false }));
  } catch (error) {
    const message = error instanceof Error ? error.message : '';
    throw new UnreadableFile(/password/i.test(message) ? 'wrong password' : 'damaged PDF', message);
  }
}

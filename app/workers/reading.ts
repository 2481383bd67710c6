import { UnreadableFile } from '#formats/unreadable.ts';
import type { ReadResult } from './protocol.ts';

/** Work on a file as a value to be sent: what can't be read is one too, and so is a fault of our own, under that name. */
export async function reading<T>(work: () => T | Promise<T>): Promise<ReadResult<T>> {
  try {
    return { kind: 'read', value: await work() };
  } catch (error) {
    if (error instanceof UnreadableFile)
      return { kind: 'unreadable', reason: error.reason, detail: error.detail };
    // A fault of our own is told as one, and seen where faults are looked for.
    console.error(error);
    return { kind: 'unreadable', reason: 'fault', detail: String(error) };
  }
}

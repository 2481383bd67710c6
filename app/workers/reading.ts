import { UnreadableFile } from '#formats/unreadable.ts';
import type { ReadResult } from './protocol.ts';

/** Work on a file as a value to be sent: what can't be read is one too, and only what was not foreseen is thrown on. */
export async function reading<T>(work: () => T | Promise<T>): Promise<ReadResult<T>> {
  try {
    return { kind: 'read', value: await work() };
  } catch (error) {
    if (error instanceof UnreadableFile)
      return { kind: 'unreadable', reason: error.reason, detail: error.detail };
    throw error;
  }
}

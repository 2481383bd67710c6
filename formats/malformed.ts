import { UnreadableFile, type UnreadableReason } from './unreadable.ts';

/**
 * Input that a parser can make nothing of. Thrown only where a parser is called, so that a fault of our own is never
 * taken for a damaged file.
 */
export class Malformed extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'Malformed';
  }
}

function malformed(error: unknown): Malformed {
  return new Malformed(error instanceof Error ? error.message : String(error));
}

/**
 * Calls a parser of a library, and nothing else.
 * @throws Malformed for whatever it throws
 */
export function parsing<T>(parse: () => T): T {
  try {
    return parse();
  } catch (error) {
    throw malformed(error);
  }
}

/**
 * The answer of a library's parser that takes its time.
 * @throws Malformed for whatever it rejects with
 */
export async function parsed<T>(answer: Promise<T>): Promise<T> {
  try {
    return await answer;
  } catch (error) {
    throw malformed(error);
  }
}

/** @throws Malformed for what is no JSON */
export function jsonIn(text: string): unknown {
  return parsing(() => JSON.parse(text) as unknown);
}

function refused(error: unknown, reason: UnreadableReason): unknown {
  return error instanceof Malformed ? new UnreadableFile(reason, error.message) : error;
}

/**
 * Reads a file; what its parser could make nothing of makes it one that can't be read.
 * @throws UnreadableFile with this reason for Malformed; whatever else `read` throws
 */
export function refusedAs<T>(reason: UnreadableReason, read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw refused(error, reason);
  }
}

/** The same for reading that takes its time. */
export async function refusedLaterAs<T>(reason: UnreadableReason, read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    throw refused(error, reason);
  }
}

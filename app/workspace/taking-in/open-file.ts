import { proxy } from 'comlink';
import type { FileContent } from '../../workers/protocol.ts';
import { reader } from '../../workers/clients.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import type { NotTaken } from './told.ts';

/** What a file holds, and its bytes: of a locked PDF those of a copy that opens without its password. */
export type Opened =
  | { readonly kind: 'opened'; readonly content: FileContent; readonly bytes: Uint8Array<ArrayBuffer> }
  | NotTaken;

interface Opening {
  readonly signal: AbortSignal;
  readonly progress: (done: number, of: number) => void;
  /** Asks for a password; null when it is not given. */
  readonly askPassword: (wrong: boolean) => Promise<string | null>;
}

function stoppedOnly(error: unknown): 'stopped' {
  if (error instanceof WorkerStopped) return 'stopped';
  throw error;
}

/** Reads a file in the worker until it is read, refused or given up; asks for a password as needed. */
export async function openFile(
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
  { signal, progress, askPassword }: Opening,
): Promise<Opened> {
  for (let password: string | null = null, tries = 0; ; tries++) {
    const given = password;
    const result = await reader
      .ask((worker) => worker.readFile(name, bytes, given, proxy(progress)), { signal })
      .catch(stoppedOnly);
    if (signal.aborted) return { kind: 'cancelled' };
    if (result === 'stopped') return { kind: 'stopped' };
    if (result.kind === 'read') {
      if (given === null) return { kind: 'opened', content: result.value, bytes };
      // Kept as a copy that opens without: nobody wants to type it each time.
      const copy = await reader.ask((worker) => worker.unlockPdf(bytes, given));
      return copy.kind === 'read' ? { kind: 'opened', content: result.value, bytes: copy.value } : copy;
    }
    if (result.reason !== 'locked PDF' && result.reason !== 'wrong password') return result;
    password = await askPassword(tries > 0);
    if (password === null) return { kind: 'unreadable', reason: 'locked PDF', detail: '' };
  }
}

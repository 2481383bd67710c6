import { wrap } from 'comlink';

/** A worker as it is asked from outside: every answer takes time. */
type Asked<Api> = {
  readonly [Name in keyof Api]: Api[Name] extends (...given: infer Given) => infer Answer
    ? (...given: Given) => Promise<Awaited<Answer>>
    : never;
};

/** The worker died again and again over the same work, or the work was given up. */
export class WorkerStopped extends Error {}

/** A newer request took the place of this one before it was begun. */
export class Superseded extends Error {}

interface Running<Api> {
  readonly remote: Asked<Api>;
  /** Ends it; all who wait for it ask its successor. */
  readonly stop: () => void;
  /** Settles when it was stopped, or died. */
  readonly stopped: Promise<'stopped'>;
}

/** Work that kills its worker so often is given up. */
const MOST_TRIES = 3;

interface Asking {
  /** Gives the work up: the worker is stopped over it, and begun anew for whatever else it was asked. */
  readonly signal?: AbortSignal;
  /** Of requests under one name, one is under way, and of those that wait only the newest is done. */
  readonly latestOf?: string;
}

/**
 * A worker that is started when it is first asked, begun anew when it dies, and never leaves a request without an answer.
 * What it can be asked is the type that it implements (protocol.ts).
 */
export class WorkerClient<Api> {
  private running: Running<Api> | null = null;
  private readonly underWay = new Map<string, Promise<unknown>>();
  private readonly newest = new Map<string, symbol>();

  constructor(private readonly start: () => Worker) {}

  private begin(): Running<Api> {
    const worker = this.start();
    let stop: () => void = () => undefined;
    const stopped = new Promise<'stopped'>((resolve) => {
      stop = () => {
        worker.terminate();
        if (this.running?.stop === stop) this.running = null;
        resolve('stopped');
      };
    });
    worker.addEventListener('error', stop);
    worker.addEventListener('messageerror', stop);
    return { remote: wrap(worker) as unknown as Asked<Api>, stop, stopped };
  }

  /**
   * @returns what the work answers
   * @throws WorkerStopped where the worker died over it again and again, or it was given up; Superseded where a newer one
   * of the same name came; and what the work itself throws
   */
  async ask<Answer>(
    work: (worker: Asked<Api>) => Promise<Answer>,
    { signal, latestOf }: Asking = {},
  ): Promise<Answer> {
    if (latestOf === undefined) return this.askUntilAnswered(work, signal);
    const own = Symbol(latestOf);
    this.newest.set(latestOf, own);
    await this.underWay.get(latestOf)?.catch(() => undefined);
    if (this.newest.get(latestOf) !== own) throw new Superseded(latestOf);
    const answer = this.askUntilAnswered(work, signal);
    this.underWay.set(latestOf, answer);
    return answer;
  }

  private async askUntilAnswered<Answer>(
    work: (worker: Asked<Api>) => Promise<Answer>,
    signal: AbortSignal | undefined,
  ): Promise<Answer> {
    for (let tries = 1; ; tries++) {
      if (signal?.aborted === true) throw new WorkerStopped('given up');
      this.running ??= this.begin();
      const { remote, stop, stopped } = this.running;
      signal?.addEventListener('abort', stop);
      try {
        const answer = await Promise.race([this.answered(work, remote), stopped]);
        if (answer !== 'stopped') return answer.value;
      } finally {
        signal?.removeEventListener('abort', stop);
      }
      if (tries === MOST_TRIES) throw new WorkerStopped('died over the same work again and again');
    }
  }

  private async answered<Answer>(work: (worker: Asked<Api>) => Promise<Answer>, remote: Asked<Api>) {
    return { value: await work(remote) };
  }
}

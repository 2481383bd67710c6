import { expose } from 'comlink';
import { describe, expect, it } from 'vitest';
import { Superseded, WorkerClient, WorkerStopped } from './worker-client.ts';

interface Echo {
  echo(text: string): string;
  slow(text: string): Promise<string>;
  /** Kills the worker. */
  die(): Promise<never>;
  dieOnce(): Promise<string>;
  fail(): never;
}

/** Workers on message ports: what they do is theirs, how they die is told here. */
function workers() {
  let started = 0;
  const release: (() => void)[] = [];
  const client = new WorkerClient<Echo>(() => {
    started++;
    const own = started;
    const { port1, port2 } = new MessageChannel();
    const events = new EventTarget();
    const die = () => {
      events.dispatchEvent(new Event('error'));
      return new Promise<never>(() => undefined);
    };
    const api: Echo = {
      echo: (text) => text,
      slow: (text) => new Promise((resolve) => release.push(() => resolve(text))),
      die,
      dieOnce: () => (own === 1 ? die() : Promise.resolve('alive')),
      fail: () => {
        throw new Error('not to be done');
      },
    };
    expose(api, port1);
    return Object.assign(port2, {
      terminate: () => {
        port1.close();
        port2.close();
      },
      addEventListener: (name: string, listener: EventListener) =>
        name === 'message'
          ? MessagePort.prototype.addEventListener.call(port2, name, listener)
          : events.addEventListener(name, listener),
    }) as unknown as Worker;
  });
  return { client, release, count: () => started };
}
const until = async (isSo: () => boolean) => {
  while (!isSo()) await new Promise((resolve) => setTimeout(resolve, 1));
};

describe('a worker', () => {
  it('is started once, and answers', async () => {
    const { client, count } = workers();
    expect(await client.ask((worker) => worker.echo('peat'))).toBe('peat');
    expect(await client.ask((worker) => worker.echo('moss'))).toBe('moss');
    expect(count()).toBe(1);
  });

  it('passes on what its work throws', async () => {
    const { client } = workers();
    await expect(client.ask((worker) => worker.fail())).rejects.toThrow('not to be done');
  });

  it('that dies is begun anew, and all that was asked of it is asked again', async () => {
    const { client, count, release } = workers();
    const other = client.ask((worker) => worker.slow('other'));
    await until(() => release.length === 1);
    expect(await client.ask((worker) => worker.dieOnce())).toBe('alive');
    await until(() => release.length === 2);
    release[1]();
    expect(await other).toBe('other');
    expect(count()).toBe(2);
  });

  it('that dies over the same work again and again is given up, and works on for others', async () => {
    const { client } = workers();
    await expect(client.ask((worker) => worker.die())).rejects.toBeInstanceOf(WorkerStopped);
    expect(await client.ask((worker) => worker.echo('still there'))).toBe('still there');
  });

  it('stops what is given up, and does again what it did for others', async () => {
    const { client, release } = workers();
    const over = new AbortController();
    const long = client.ask((worker) => worker.slow('long'), { signal: over.signal });
    const other = client.ask((worker) => worker.slow('other'));
    await until(() => release.length === 2);
    over.abort();
    await expect(long).rejects.toBeInstanceOf(WorkerStopped);
    await until(() => release.length === 3);
    release[2]();
    expect(await other).toBe('other');
  });

  it('does of several requests under one name the first and the newest', async () => {
    const { client, release } = workers();
    const ask = (text: string) => client.ask((worker) => worker.slow(text), { latestOf: 'outcomes' });
    const first = ask('first');
    await until(() => release.length === 1);
    const second = ask('second');
    const third = ask('third');
    release[0]();
    expect(await first).toBe('first');
    await expect(second).rejects.toBeInstanceOf(Superseded);
    await until(() => release.length === 2);
    release[1]();
    expect(await third).toBe('third');
  });
});

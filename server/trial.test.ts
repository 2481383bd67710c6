import { describe, expect, it } from 'vitest';
import { clockAhead, steppedClock } from './clock.ts';
import { NO_TRIAL, startOptions, trying, UnknownTrial, type Trial } from './trial.ts';

describe('what the server is started with', () => {
  it('is nothing where nothing is given', () => {
    expect(startOptions([])).toEqual({ newDemo: false, trial: NO_TRIAL });
  });

  it('is read with its units', () => {
    const { newDemo, trial } = startOptions([
      ...['--new-demo', '--clock-ahead', '9d', '--slow', '3s'],
      ...['--marked-after', '5m', '--refuse', 'sending'],
    ]);
    expect(newDemo).toBe(true);
    expect(trial).toEqual({
      aheadMs: 9 * 86_400_000,
      slowMs: 3000,
      markedAfterSeconds: 300,
      refuses: 'sending',
    });
    expect(clockAhead(steppedClock(1000), trial.aheadMs).now()).toBe(1000 + 9 * 86_400_000);
  });

  it.each([['--slow', 'much'], ['--refuse', 'marks'], ['--colour'], ['--clock-ahead', '-3d']])(
    'is refused with what is taken: %s %s',
    (...args) => expect(() => startOptions(args)).toThrow(UnknownTrial),
  );
});

/** What a desk that is set so answers; null where it goes on. */
function answered(trial: Partial<Trial>, method: string, path: string): Promise<number | null> {
  return new Promise((resolve) => {
    const response = {
      status: (code: number) => ({ json: () => resolve(code) }),
    };
    const handler = trying({ ...NO_TRIAL, ...trial });
    Reflect.apply(handler, undefined, [{ method, path }, response, () => resolve(null)]);
  });
}

describe('a desk that is set for a try', () => {
  it('refuses what it is told to, and nothing else', async () => {
    expect(await answered({ refuses: 'sending' }, 'PUT', '/uploads/a')).toBe(503);
    expect(await answered({ refuses: 'sending' }, 'POST', '/assignments/x/attempts')).toBe(503);
    expect(await answered({ refuses: 'attempts' }, 'POST', '/assignments/x/attempts')).toBe(409);
    expect(await answered({ refuses: 'attempts' }, 'PUT', '/uploads/a')).toBeNull();
    expect(await answered({ refuses: 'sending', slowMs: 5 }, 'GET', '/facts')).toBeNull();
    expect(await answered({}, 'POST', '/assignments/x/attempts')).toBeNull();
  });
});

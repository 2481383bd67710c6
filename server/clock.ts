/** The time of the desk, in milliseconds since 1970. */
export interface Clock {
  now(): number;
}

export const systemClock: Clock = { now: () => Date.now() };

/** A clock that is so far ahead of another: what is due can be tried before it is. */
export function clockAhead(clock: Clock, ms: number): Clock {
  return { now: () => clock.now() + ms };
}

/** A clock that stands still until it is moved on: for tests. */
export interface SteppedClock extends Clock {
  advance(ms: number): void;
}

export function steppedClock(startMs: number): SteppedClock {
  let at = startMs;
  return {
    now: () => at,
    advance(ms) {
      at += ms;
    },
  };
}

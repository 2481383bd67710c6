import { stances, type Stance } from '../model/work.ts';
import { CALLS_FOR_CHANGE, type Saying } from './saying.ts';

/** What a remark says, for tests: one thing, surely. */
export function exampleSaying(stance: Stance, given: Partial<Saying> = {}): Saying {
  const likely = Object.fromEntries(stances.map((one) => [one, Number(one === stance)])) as unknown as Record<
    Stance,
    number
  >;
  return {
    stance,
    confidence: 1,
    sure: true,
    callsForChange: CALLS_FOR_CHANGE.has(stance),
    hint: null,
    promise: null,
    promiseSaid: null,
    points: null,
    parts: [
      {
        from: 0,
        to: 1,
        stance,
        callsForChange: CALLS_FOR_CHANGE.has(stance),
        likely,
        promise: null,
        promising: 0,
      },
    ],
    model: 'example',
    because: null,
    ...given,
  };
}

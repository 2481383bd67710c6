import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changeKinds, type ChangeKind } from '../model/work.ts';
import { choose as chooseTasks } from './choose.ts';
import {
  estimatesFrom,
  sharedGain,
  STANDARD_ESTIMATES,
  type PastLoss,
  type TimedChange,
} from './estimates.ts';
import { MINUTES_BY_KIND } from './tasks.ts';

/** A small generator of numbers from 0 to 1 that is the same each time (Mulberry32). */
function chanceFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** What a student is like: how often changes of a kind work, and how many times the standard they take. */
interface Habits {
  readonly chance: Readonly<Record<ChangeKind, number>>;
  readonly times: Readonly<Record<ChangeKind, number>>;
}

function habitsFrom(random: () => number): Habits {
  const each = (of: () => number) =>
    Object.fromEntries(changeKinds.map((kind) => [kind, of()])) as Record<ChangeKind, number>;
  return { chance: each(() => 0.3 + 0.65 * random()), times: each(() => 0.4 + 2.2 * random()) };
}

/** Losses with one to three changes each, and how long these took, until there are `count` of each kind. */
function recordOf({ chance, times }: Habits, random: () => number, count: number, steps: number) {
  const losses: PastLoss[] = [];
  const timed: TimedChange[] = [];
  const open = changeKinds.flatMap((kind) => Array.from({ length: count }, () => kind));
  for (let i = open.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [open[i], open[j]] = [open[j], open[i]];
  }
  while (open.length > 0) {
    const shares = open
      .splice(0, 1 + Math.floor(random() * 3))
      .map((kind) => ({ kind, points: 20 + Math.floor(random() * 200) }));
    const won = (kind: ChangeKind) =>
      Array.from({ length: steps }, () => Number(random() < chance[kind])).reduce((x, y) => x + y) / steps;
    const real = shares.reduce((sum, { kind, points }) => sum + won(kind) * points, 0);
    losses.push({ real, shares });
    for (const { kind } of shares)
      timed.push({ kind, minutes: MINUTES_BY_KIND[kind] * times[kind] * (0.5 + random()) });
  }
  return { losses, timed };
}

describe('estimates', () => {
  it('are the standard ones before there is a record', () => {
    expect(estimatesFrom([], [])).toEqual(STANDARD_ESTIMATES);
  });

  it('begin as ten cases at 0.7', () => {
    const loss = { real: 0, shares: [{ kind: 'sentence' as const, points: 100 }] };
    const { sentence, paragraph } = estimatesFrom([loss, loss], [{ kind: 'sentence', minutes: 20 }]);
    expect(sentence.chance).toBeCloseTo(7 / 12, 9);
    expect(sentence).toMatchObject({ cases: 2, timed: 1, minutes: 13 });
    expect(paragraph).toEqual(STANDARD_ESTIMATES.paragraph);
  });

  it('never leave their bounds, whatever came of it', () => {
    const kind = fc.constantFrom(...changeKinds);
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            real: fc.integer({ min: -3000, max: 3000 }),
            shares: fc.array(fc.record({ kind, points: fc.integer({ min: 0, max: 900 }) }), { maxLength: 5 }),
          }),
          { maxLength: 60 },
        ),
        fc.array(fc.record({ kind, minutes: fc.double({ min: 0, max: 5000, noNaN: true }) }), {
          maxLength: 60,
        }),
        (losses, timed) => {
          const estimates = estimatesFrom(losses, timed);
          for (const one of changeKinds) {
            const { chance, minutes } = estimates[one];
            expect(chance).toBeGreaterThanOrEqual(0.05);
            expect(chance).toBeLessThanOrEqual(0.95);
            expect(minutes).toBeGreaterThanOrEqual(Math.floor(MINUTES_BY_KIND[one] / 4));
            expect(minutes).toBeLessThanOrEqual(MINUTES_BY_KIND[one] * 4);
          }
        },
      ),
    );
  });

  it('share what came back as it was planned: all of it, and to none more than lay behind it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2000 }),
        fc.array(
          fc.record({ kind: fc.constantFrom(...changeKinds), points: fc.integer({ min: 1, max: 400 }) }),
          { minLength: 1, maxLength: 6 },
        ),
        (real, shares) => {
          const got = sharedGain(real, shares, (kind) => 0.2 + 0.1 * changeKinds.indexOf(kind));
          const all = shares.reduce((sum, { points }) => sum + points, 0);
          expect(got.reduce((sum, one) => sum + one, 0)).toBeCloseTo(Math.min(real, all), 6);
          for (const [index, one] of got.entries())
            expect(one).toBeLessThanOrEqual(shares[index].points + 1e-9);
        },
      ),
    );
    const even = [
      { kind: 'sentence' as const, points: 100 },
      { kind: 'sentence' as const, points: 300 },
    ];
    expect(sharedGain(200, even, () => 0.7)).toEqual([50, 150]);
  });

  it.each([
    ['wins points in part', 4, 0.1],
    // One that wins all or nothing is told less by 60 changes: the mean of 60 throws of a coin is off by 0.13 one time in twenty.
    ['wins all or nothing', 1, 0.25],
  ])('come to what a student is like after 60 changes of a kind who %s', (_, steps, most) => {
    const off = { chance: 0, minutes: 0, all: 0 };
    for (let seed = 1; seed <= 40; seed++) {
      const random = chanceFrom(seed);
      const habits = habitsFrom(random);
      const { losses, timed } = recordOf(habits, random, 60, steps);
      const estimates = estimatesFrom(losses, timed);
      for (const kind of changeKinds) {
        const { chance, minutes } = estimates[kind];
        off.all++;
        off.chance += Number(Math.abs(chance - habits.chance[kind]) > 0.1);
        const real = MINUTES_BY_KIND[kind] * habits.times[kind];
        // Whole minutes: 20 % of four minutes is none of them.
        off.minutes += Number(Math.abs(minutes - real) > Math.max(0.2 * real, 1));
      }
    }
    expect(off.minutes).toBe(0);
    expect(off.chance / off.all).toBeLessThanOrEqual(most);
  });
});

/** Does chosen tasks as long as there is time, and comes to what they win on average. */
function realGain(
  chosen: readonly { readonly kind: ChangeKind; readonly points: number }[],
  { chance, times }: Habits,
  minutes: number,
): {
  readonly gain: number;
  readonly done: readonly { readonly kind: ChangeKind; readonly points: number }[];
} {
  let left = minutes;
  const done = chosen.filter(({ kind }) => {
    const took = MINUTES_BY_KIND[kind] * times[kind];
    if (took > left) return false;
    left -= took;
    return true;
  });
  return { gain: done.reduce((sum, { kind, points }) => sum + points * chance[kind], 0), done };
}

describe('a plan made with the record', () => {
  it('wins no less than one made without, over 200 terms', () => {
    let [learned, standard] = [0, 0];
    for (let term = 1; term <= 200; term++) {
      const random = chanceFrom(1000 + term);
      const habits = habitsFrom(random);
      const losses: PastLoss[] = [];
      const timed: TimedChange[] = [];
      for (let assignment = 0; assignment < 6; assignment++) {
        const tasks = Array.from({ length: 12 }, () => ({
          kind: changeKinds[Math.floor(random() * changeKinds.length)],
          points: 20 + Math.floor(random() * 200),
        }));
        const time = 60 + Math.floor(random() * 180);
        const planned = (estimates: typeof STANDARD_ESTIMATES) => {
          const choosable = tasks.map(({ kind, points }, index) => ({
            id: String(index),
            minutes: estimates[kind].minutes,
            gain: points * estimates[kind].chance,
            needs: [],
            must: false,
          }));
          const { chosen } = chooseTasks(choosable, time);
          // Whoever is done early goes on with what was left out.
          const isLeftOut = ({ id }: { id: string }) => Number(!chosen.includes(id));
          return choosable
            .toSorted((x, y) => isLeftOut(x) - isLeftOut(y) || y.gain / y.minutes - x.gain / x.minutes)
            .map(({ id }) => tasks[Number(id)]);
        };
        standard += realGain(planned(STANDARD_ESTIMATES), habits, time).gain;
        const { gain, done } = realGain(planned(estimatesFrom(losses, timed)), habits, time);
        learned += gain;
        for (const one of done) {
          losses.push({ real: random() < habits.chance[one.kind] ? one.points : 0, shares: [one] });
          timed.push({ kind: one.kind, minutes: MINUTES_BY_KIND[one.kind] * habits.times[one.kind] });
        }
      }
    }
    expect(learned).toBeGreaterThanOrEqual(standard);
  });
});

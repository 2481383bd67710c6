import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AttemptPolicy } from '../model/facts.ts';
import type { DecimalString } from '../model/ids.ts';
import { courseGrade, type GradedCourse } from './course-grade.ts';
import { fromDecimal, type Fraction } from './fraction.ts';

/**
 * The course grade once more, written from computation.md 1 alone: rationals as pairs that are never reduced, every choice
 * of what to drop tried, no function of ours used.
 */
type Ratio = readonly [bigint, bigint];
const num = (text: string): Ratio => {
  const [whole, part = ''] = text.split('.');
  return [BigInt(whole + part), BigInt(`1${'0'.repeat(part.length)}`)];
};
const plus = (x: Ratio, y: Ratio): Ratio => [x[0] * y[1] + y[0] * x[1], x[1] * y[1]];
const times = (x: Ratio, y: Ratio): Ratio => [x[0] * y[0], x[1] * y[1]];
const over = (x: Ratio, y: Ratio): Ratio =>
  y[0] < 0n ? [-x[0] * y[1], -x[1] * y[0]] : [x[0] * y[1], x[1] * y[0]];
const minus = (x: Ratio, y: Ratio): Ratio => [x[0] * y[1] - y[0] * x[1], x[1] * y[1]];
const less = (x: Ratio, y: Ratio) => x[0] * y[1] < y[0] * x[1];
const most = (list: readonly Ratio[]) => list.reduce((x, y) => (less(x, y) ? y : x));
const NOUGHT: Ratio = [0n, 1n];

interface Given {
  scheme: 'weighted' | 'points';
  categories: { weight: string; drop: number; extraCredit: boolean }[];
  assignments: {
    category: number;
    possible: string;
    dueH: number;
    extraCredit: boolean;
    excused: boolean;
    policy: AttemptPolicy;
    late: { graceHours: number; pointsPerDay: string; maxPoints: string | null } | null;
    attempts: { atH: number; score: string | null }[];
  }[];
}

function scoreIn({
  excused,
  attempts,
  dueH,
  late,
  policy,
  possible,
}: Given['assignments'][number]): Ratio | null {
  if (excused) return null;
  const marked = [...attempts]
    .sort((x, y) => x.atH - y.atH)
    .flatMap(({ atH, score }): Ratio[] => {
      if (score === null) return [];
      if (late === null || atH - dueH <= late.graceHours) return [num(score)];
      const days = Math.ceil((atH - dueH) / 24);
      const off = times(num(late.pointsPerDay), [BigInt(days), 1n]);
      const taken = late.maxPoints !== null && less(num(late.maxPoints), off) ? num(late.maxPoints) : off;
      const left = minus(num(score), taken);
      return [less(left, NOUGHT) ? NOUGHT : left];
    });
  if (marked.length === 0) return null;
  const [first, ...later] = marked;
  switch (policy.kind) {
    case 'latest':
      return marked[marked.length - 1];
    case 'best':
      return most(marked);
    case 'mean':
      return over(marked.reduce(plus), [BigInt(marked.length), 1n]);
    case 'capped': {
      if (later.length === 0) return first;
      const cap = times(num(policy.cap), num(possible));
      const best = most(later);
      return most([first, less(best, cap) ? best : cap]);
    }
    case 'recover':
      return later.length === 0
        ? first
        : plus(first, times(num(policy.share), most([NOUGHT, minus(most(later), first)])));
  }
}

function oracle(given: Given): Ratio | null {
  const scores = given.assignments.map(scoreIn);
  let sum = NOUGHT;
  let whole = NOUGHT;
  for (const [c, { weight, drop, extraCredit }] of given.categories.entries()) {
    let extra = NOUGHT;
    const counted: { earned: Ratio; possible: Ratio; dueH: number; index: number }[] = [];
    for (const [index, one] of given.assignments.entries()) {
      const earned = scores[index];
      if (one.category !== c || earned === null) continue;
      if (one.extraCredit || (given.scheme === 'points' && extraCredit)) extra = plus(extra, earned);
      else counted.push({ earned, possible: num(one.possible), dueH: one.dueH, index });
    }
    const keep = Math.max(1, counted.length - drop);
    // Of choices that are worth the same the one that keeps the earlier due, then the smaller id.
    const inRank = counted.toSorted((x, y) => x.dueH - y.dueH || (`a${x.index}` < `a${y.index}` ? -1 : 1));
    let best: { ratio: Ratio; earned: Ratio; possible: Ratio; ranks: string } | null = null;
    for (let choice = 0; choice < 1 << counted.length; choice++) {
      const kept = inRank.filter((_, i) => (choice >> i) & 1);
      const ranks = kept.map((one) => String.fromCharCode(65 + inRank.indexOf(one))).join('');
      if (kept.length !== Math.min(keep, counted.length)) continue;
      const possible = kept.reduce<Ratio>((total, one) => plus(total, one.possible), NOUGHT);
      if (possible[0] === 0n) continue;
      const earned = kept.reduce<Ratio>((total, one) => plus(total, one.earned), extra);
      const ratio = over(earned, possible);
      const tie = best !== null && !less(best.ratio, ratio) && !less(ratio, best.ratio);
      if (best === null || less(best.ratio, ratio) || (tie && ranks < best.ranks))
        best = { ratio, earned, possible, ranks };
    }
    if (given.scheme === 'points') {
      sum = plus(sum, best?.earned ?? extra);
      whole = plus(whole, best?.possible ?? NOUGHT);
    } else if (best !== null) {
      sum = plus(sum, times(num(weight), best.ratio));
      if (!extraCredit) whole = plus(whole, num(weight));
    }
  }
  return whole[0] === 0n ? null : over(sum, whole);
}

const points = (max: number) => fc.integer({ min: 0, max: max * 4 }).map((n) => String(n / 4));
const policy: fc.Arbitrary<AttemptPolicy> = fc.oneof(
  fc.constantFrom<AttemptPolicy>({ kind: 'latest' }, { kind: 'best' }, { kind: 'mean' }),
  fc
    .constantFrom('0.5', '0.85', '1')
    .map((cap): AttemptPolicy => ({ kind: 'capped', cap: cap as DecimalString })),
  fc
    .constantFrom('0.25', '0.5')
    .map((share): AttemptPolicy => ({ kind: 'recover', share: share as DecimalString })),
);
const course: fc.Arbitrary<Given> = fc.record({
  scheme: fc.constantFrom('weighted', 'points'),
  categories: fc.array(
    fc.record({
      weight: fc.constantFrom('10', '12.5', '25', '40'),
      drop: fc.integer({ min: 0, max: 2 }),
      extraCredit: fc.integer({ min: 0, max: 4 }).map((n) => n === 0),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  assignments: fc.array(
    fc.record({
      category: fc.nat({ max: 2 }),
      possible: fc.integer({ min: 1, max: 60 }).map(String),
      dueH: fc.integer({ min: 0, max: 400 }),
      extraCredit: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
      excused: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
      policy,
      late: fc.option(
        fc.record({
          graceHours: fc.constantFrom(0, 2, 12),
          pointsPerDay: fc.constantFrom('1', '2.5', '4'),
          maxPoints: fc.option(fc.constantFrom('3', '8'), { nil: null }),
        }),
        { nil: null },
      ),
      attempts: fc.array(
        fc.record({ atH: fc.integer({ min: 0, max: 600 }), score: fc.option(points(60), { nil: null }) }),
        { maxLength: 3 },
      ),
    }),
    { maxLength: 10 },
  ),
});

const HOUR = 3_600_000;
function asGraded(given: Given): GradedCourse {
  const dec = (text: string) => fromDecimal(text as DecimalString);
  return {
    scheme: given.scheme,
    categories: given.categories.map(({ weight, drop, extraCredit }, i) => ({
      id: String(i),
      weight: dec(weight),
      drop,
      extraCredit,
    })),
    assignments: given.assignments.map((one, i) => ({
      id: `a${i}`,
      categoryId: String(one.category),
      possible: dec(one.possible),
      dueMs: one.dueH * HOUR,
      extraCredit: one.extraCredit,
      excused: one.excused,
      policy: one.policy,
      late: one.late as never,
      attempts: one.attempts.map(({ atH, score }) => ({
        atMs: atH * HOUR,
        score: score === null ? null : dec(score),
        dueMs: one.dueH * HOUR,
      })),
    })),
  };
}

const same = (ours: Fraction | null, theirs: Ratio | null) =>
  ours === null || theirs === null ? ours === theirs : ours.n * theirs[1] === theirs[0] * ours.d;

describe('the course grade', () => {
  it('is that of an oracle in rational arithmetic, on 10,000 random courses', () => {
    let graded = 0;
    fc.assert(
      fc.property(course, (given) => {
        const theirs = oracle(given);
        if (theirs !== null) graded++;
        expect(same(courseGrade(asGraded(given)).grade, theirs), JSON.stringify(given)).toBe(true);
      }),
      { numRuns: 10_000 },
    );
    expect(graded).toBeGreaterThan(5000);
  });
});

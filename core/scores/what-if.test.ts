import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DecimalString } from '../model/ids.ts';
import { courseGrade, type GradedAssignment, type GradedCourse } from './course-grade.ts';
import { explainGrade, explainScore } from './explain.ts';
import {
  add,
  compare,
  fromDecimal,
  multiply,
  roundedParts,
  shownParts,
  subtract,
  toShown,
  toShownUp,
  ZERO,
  type Fraction,
} from './fraction.ts';
import { neededAverage, restOf, withRest, withScore } from './what-if.ts';

const dec = (text: string) => fromDecimal(text as DecimalString);
const part = (n: number, d: number): Fraction => {
  const x = dec(String(n));
  return { n: x.n, d: BigInt(d) };
};

interface Row {
  c: number;
  possible: number;
  score: number | null;
  due: number;
  extra: boolean;
}
const rows = fc.array(
  fc.record<Row>({
    c: fc.nat({ max: 2 }),
    possible: fc.integer({ min: 1, max: 40 }),
    score: fc.option(fc.integer({ min: 0, max: 40 }), { nil: null }),
    due: fc.nat({ max: 9 }),
    extra: fc.integer({ min: 0, max: 7 }).map((n) => n === 0),
  }),
  { minLength: 1, maxLength: 10 },
);
const course = fc
  .record({
    rows,
    scheme: fc.constantFrom<GradedCourse['scheme']>('weighted', 'points'),
    drop: fc.nat({ max: 2 }),
  })
  .map(({ rows: list, scheme, drop }): GradedCourse => ({
    scheme,
    categories: ['0', '1', '2'].map((id, i) => ({
      id,
      weight: dec(String(15 * (i + 1))),
      drop: i === 1 ? drop : 0,
      extraCredit: false,
    })),
    assignments: list.map(({ c, possible, score, due, extra }, i): GradedAssignment => ({
      id: `a${i}`,
      categoryId: String(c),
      possible: dec(String(possible)),
      dueMs: due,
      extraCredit: extra,
      excused: false,
      policy: { kind: 'latest' },
      late: null,
      attempts: score === null ? [] : [{ atMs: i, score: dec(String(score)), dueMs: null }],
    })),
  }));

describe('what the rest would have to be', () => {
  const plain: GradedCourse = {
    scheme: 'weighted',
    categories: [
      { id: 'r', weight: dec('60'), drop: 0, extraCredit: false },
      { id: 'l', weight: dec('40'), drop: 0, extraCredit: false },
    ],
    assignments: [
      ['r1', 'r', '40', '30'],
      ['l1', 'l', '20', null],
      ['l2', 'l', '20', null],
    ].map(([id, categoryId, possible, score]): GradedAssignment => ({
      id: id ?? '',
      categoryId: categoryId ?? '',
      possible: dec(possible ?? '0'),
      dueMs: 0,
      extraCredit: false,
      excused: false,
      policy: { kind: 'latest' },
      late: null,
      attempts: score == null ? [] : [{ atMs: 0, score: dec(score), dueMs: null }],
    })),
  };

  it('solves a plain course', () => {
    // 0.6 · 0.75 + 0.4 · r = 0.8
    expect(neededAverage(plain, part(8, 10))).toEqual({ kind: 'ratio', ratio: part(7, 8), just: true });
    expect(neededAverage(plain, dec('0.3'))).toEqual({ kind: 'ratio', ratio: ZERO, just: true });
    expect(neededAverage(plain, dec('9'))).toEqual({ kind: 'out of reach' });
    const marked = withRest(plain, new Set(restOf(plain).map(({ id }) => id)), dec('1'));
    expect(neededAverage(marked, dec('0.8'))).toEqual({ kind: 'nothing to come' });
  });

  it('is the inverse of “if”: that average reaches the goal, and any lower one does not', () => {
    let solved = 0;
    fc.assert(
      fc.property(
        course,
        fc.integer({ min: 1, max: 130 }),
        fc.integer({ min: 1, max: 1000 }),
        (given, percent, step) => {
          const goal = part(percent, 100);
          const needed = neededAverage(given, goal);
          const rest = new Set(restOf(given).map(({ id }) => id));
          const reaches = (ratio: Fraction) => {
            const { grade } = courseGrade(withRest(given, rest, ratio));
            return grade !== null && compare(grade, goal) >= 0;
          };
          if (needed.kind === 'nothing to come') expect(rest.size).toBe(0);
          else if (needed.kind === 'out of reach') expect(reaches(dec('10'))).toBe(false);
          else {
            solved++;
            const { ratio, just } = needed;
            expect(just ? reaches(ratio) : reaches(add(ratio, part(1, 1_000_000_000)))).toBe(true);
            // Any lower one: shares of it, and one just below.
            const lower = [multiply(ratio, part(step, 1001)), subtract(ratio, part(1, 1_000_000_000))];
            for (const one of lower) if (ratio.n > 0n && one.n >= 0n) expect(reaches(one)).toBe(false);
            if (just && ratio.n > 0n && given.scheme === 'weighted') {
              const { grade } = courseGrade(withRest(given, rest, ratio));
              expect(grade !== null && compare(grade, goal) === 0).toBe(true);
            }
          }
        },
      ),
      { numRuns: 600 },
    );
    expect(solved).toBeGreaterThan(100);
  });

  it('takes an “if” score whatever the attempts and the policy are', () => {
    const capped = withScore(plain, 'r1', dec('36'));
    expect(courseGrade(capped).scoreByAssignment.get('r1')).toEqual(dec('36'));
  });
});

describe('explained figures', () => {
  it('are made of parts that add up to them exactly', () => {
    fc.assert(
      fc.property(course, (given) => {
        const { grade, categories } = explainGrade(given);
        const sum = (list: readonly Fraction[]) => list.reduce(add, ZERO);
        if (grade === null) return;
        expect(compare(sum(categories.map(({ brings }) => brings)), grade)).toBe(0);
        for (const category of categories) {
          expect(compare(sum(category.assignments.map(({ brings }) => brings)), category.brings)).toBe(0);
          const counted = category.assignments.filter(({ counting }) => counting === 'counts');
          if (category.ratio !== null)
            expect(compare(sum(counted.map(({ share }) => share)), category.share)).toBe(0);
        }
        // What is shown adds up as well.
        const shown = shownParts(
          categories.map(({ brings }) => multiply(brings, dec('100'))),
          1,
        );
        const total = shown.reduce((units, text) => units + Math.round(Number(text) * 10), 0);
        expect(total).toBe(Math.round(Number(toShown(multiply(grade, dec('100')), 1)) * 10));
      }),
    );
  });

  it('round up to what reaches them', () => {
    expect(toShownUp(part(771, 10), 1)).toBe('77.1');
    expect(toShownUp(part(7711, 100), 1)).toBe('77.2');
    expect(toShownUp(part(-7711, 100), 1)).toBe('-77.1');
  });

  it('round to parts that make the rounded sum', () => {
    expect(shownParts([part(1, 3), part(1, 3), part(1, 3)], 2)).toEqual(['0.34', '0.33', '0.33']);
    expect(shownParts([part(-1, 3), part(1, 3)], 1)).toEqual(['-0.3', '0.3']);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -99, max: 99 }), fc.integer({ min: 1, max: 13 })), {
          maxLength: 9,
        }),
        (list) => {
          const parts = list.map(([n, d]) => part(n, d));
          const units = roundedParts(parts, 1);
          expect(units.reduce((x, y) => x + y, 0n)).toBe(
            BigInt(toShown(multiply(parts.reduce(add, ZERO), dec('10')), 0)),
          );
          for (const [i, unit] of units.entries()) {
            const off = subtract({ n: unit, d: 1n }, multiply(parts[i], dec('10')));
            expect(compare(off, dec('1')) < 0 && compare(off, dec('-1')) > 0).toBe(true);
          }
        },
      ),
    );
  });

  it('tell of each attempt what was given, what came off and what counts', () => {
    const HOUR = 3_600_000;
    const explained = explainScore({
      id: 'a',
      categoryId: '',
      possible: dec('40'),
      dueMs: 0,
      extraCredit: false,
      excused: false,
      policy: { kind: 'capped', cap: '0.85' as DecimalString },
      late: { graceHours: 0, pointsPerDay: '2' as DecimalString, maxPoints: null },
      attempts: [
        { atMs: 30 * HOUR, score: dec('28.5'), dueMs: 0 },
        { atMs: 90 * HOUR, score: dec('39'), dueMs: null },
        { atMs: 95 * HOUR, score: null, dueMs: null },
      ],
    });
    expect(
      explained.attempts.map(({ days, deduction, counted }) => [
        days,
        toShown(deduction, 2),
        counted && toShown(counted, 2),
      ]),
    ).toEqual([
      [2, '4', '24.5'],
      [0, '0', '39'],
      [0, '0', null],
    ]);
    expect(explained.score).toEqual(dec('34'));
    expect(explained.cap).toEqual(dec('34'));
  });
});

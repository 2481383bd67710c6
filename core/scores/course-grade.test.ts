import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DecimalString } from '../model/ids.ts';
import {
  assignmentScore,
  courseGrade,
  withAnotherAttempt,
  type GradedAssignment,
  type GradedCategory,
  type GradedCourse,
} from './course-grade.ts';
import { keptAfterDrops, type Droppable } from './drops.ts';
import { compare, divide, fromDecimal, toShown, ZERO, add, type Fraction } from './fraction.ts';
import { afterDeduction, lateDays, lateDeduction } from './late.ts';

const dec = (text: string | number) => fromDecimal(String(text) as DecimalString);
const shown = (x: Fraction | null, places = 4) => (x === null ? null : toShown(x, places));
const HOUR = 3_600_000;

describe('late deduction', () => {
  const rule = { graceHours: 2, pointsPerDay: '4' as DecimalString, maxPoints: null };
  const due = Date.parse('2026-11-02T12:00:00Z');
  const at = (time: string) => shown(lateDeduction(rule, Date.parse(time), due));

  it('reckons the worked example', () => {
    expect(at('2026-11-02T13:59:00Z')).toBe('0');
    expect(at('2026-11-02T14:01:00Z')).toBe('4');
    expect(at('2026-11-03T12:01:00Z')).toBe('8');
  });

  it('is nothing within the grace to the millisecond, and counts elapsed hours', () => {
    expect(lateDays(due + 2 * HOUR, due, 2)).toBe(0);
    expect(lateDays(due + 2 * HOUR + 1, due, 2)).toBe(1);
    expect(lateDays(due + 24 * HOUR, due, 0)).toBe(1);
    expect(lateDays(due + 24 * HOUR + 1, due, 0)).toBe(2);
  });

  it('stops at the rule’s most, and never takes a score below 0', () => {
    const most = { ...rule, maxPoints: '6' as DecimalString };
    expect(shown(lateDeduction(most, due + 90 * 24 * HOUR, due))).toBe('6');
    expect(shown(afterDeduction(dec(3), dec(8)))).toBe('0');
    expect(shown(afterDeduction(dec('7.5'), dec(4)))).toBe('3.5');
  });
});

function pick<T>(list: readonly T[], count: number): T[][] {
  if (count === 0) return [[]];
  return list.flatMap((one, i) => pick(list.slice(i + 1), count - 1).map((rest) => [one, ...rest]));
}

const ratio = (list: readonly Droppable[], extra: Fraction) => {
  const possible = list.reduce((sum, one) => add(sum, one.possible), ZERO);
  return possible.n === 0n
    ? null
    : divide(
        list.reduce((sum, one) => add(sum, one.earned), extra),
        possible,
      );
};

describe('dropping the lowest', () => {
  const one = (id: string, earned: number, possible: number): Droppable => ({
    id,
    earned: dec(earned),
    possible: dec(possible),
    dueMs: 0,
  });

  it('is not always dropping the lowest percentage', () => {
    const all = [one('a', 8, 10), one('b', 38, 50), one('c', 3, 10), one('d', 20, 60), one('e', 9, 10)];
    const kept = keptAfterDrops(all, 1);
    expect(kept.map(({ id }) => id).sort()).toEqual(['a', 'b', 'c', 'e']);
    expect(shown(ratio(kept, ZERO), 3)).toBe('0.725');
  });

  it('keeps at least one, and of equal ones the earlier due, then the smaller id', () => {
    expect(keptAfterDrops([one('a', 1, 2), one('b', 2, 2)], 5)).toHaveLength(1);
    const late = { ...one('a', 1, 2), dueMs: 9 };
    expect(keptAfterDrops([late, one('z', 1, 2)], 1)[0].id).toBe('z');
    expect(keptAfterDrops([one('b', 1, 2), one('a', 1, 2)], 1)[0].id).toBe('a');
    expect(keptAfterDrops([{ ...late, dueMs: null }, one('z', 1, 2)], 1)[0].id).toBe('z');
  });

  it('is as good as the best of all choices', () => {
    const assignments = fc.array(
      fc.record({ earned: fc.nat({ max: 60 }), possible: fc.integer({ min: 1, max: 60 }) }),
      { minLength: 1, maxLength: 9 },
    );
    fc.assert(
      fc.property(assignments, fc.nat({ max: 9 }), fc.nat({ max: 10 }), (list, drop, extra) => {
        const all = list.map(({ earned, possible }, i) => one(String(i), earned, possible));
        const keep = Math.max(1, all.length - drop);
        const ours = ratio(keptAfterDrops(all, drop, dec(extra)), dec(extra));
        expect(keptAfterDrops(all, drop, dec(extra))).toHaveLength(keep);
        for (const choice of pick(all, keep)) {
          const theirs = ratio(choice, dec(extra));
          expect(ours !== null && theirs !== null && compare(ours, theirs) >= 0).toBe(true);
        }
      }),
    );
  });
});

const assignment = (
  id: string,
  categoryId: string,
  score: string | null,
  possible: string,
  more: Partial<GradedAssignment> = {},
): GradedAssignment => ({
  id,
  categoryId,
  possible: dec(possible),
  dueMs: 0,
  extraCredit: false,
  excused: false,
  policy: { kind: 'latest' },
  late: null,
  attempts: score === null ? [] : [{ atMs: 0, score: dec(score), dueMs: null }],
  ...more,
});
const category = (id: string, weight: string, more: Partial<GradedCategory> = {}): GradedCategory => ({
  id,
  weight: dec(weight),
  drop: 0,
  extraCredit: false,
  ...more,
});

describe('course grade', () => {
  const course: GradedCourse = {
    scheme: 'weighted',
    categories: [category('reports', '60'), category('labs', '40'), category('exam', '30')],
    assignments: [
      assignment('r1', 'reports', '30', '40'),
      assignment('r2', 'reports', '18', '20'),
      assignment('l1', 'labs', '5', '10'),
      assignment('x', 'exam', null, '100'),
    ],
  };

  it('weighs categories that have something, and leaves the others out', () => {
    // 0.6 · 48/60 + 0.4 · 5/10 over 1
    expect(shown(courseGrade(course).grade)).toBe('0.68');
    expect(courseGrade(course).categories[2].ratio).toBeNull();
  });

  it('sums points where there are no weights', () => {
    expect(shown(courseGrade({ ...course, scheme: 'points' }).grade)).toBe('0.7571');
  });

  it('adds extra credit on top: an assignment to earned, a category by its weight', () => {
    const extra = assignment('e', 'labs', '3', '5', { extraCredit: true });
    const withOne = { ...course, assignments: [...course.assignments, extra] };
    // labs become 8 of 10
    expect(shown(courseGrade(withOne).grade)).toBe('0.8');
    const withCategory: GradedCourse = {
      ...course,
      categories: [...course.categories, category('bonus', '5', { extraCredit: true })],
      assignments: [...course.assignments, assignment('b', 'bonus', '4', '5')],
    };
    expect(shown(courseGrade(withCategory).grade)).toBe('0.72');
    expect(shown(courseGrade({ ...withCategory, scheme: 'points' }).grade)).toBe('0.8143');
  });

  it('leaves out what is excused, and is nothing where nothing counts', () => {
    const excused = course.assignments.map((one) => ({ ...one, excused: true }));
    const result = courseGrade({ ...course, assignments: excused });
    expect(result.grade).toBeNull();
    expect([...result.scoreByAssignment.values()]).toEqual([null, null, null, null]);
    expect(courseGrade({ scheme: 'points', categories: [], assignments: [] }).grade).toBeNull();
  });

  it('takes lateness off before the policy, by each attempt’s own due time', () => {
    const late = { graceHours: 0, pointsPerDay: '4' as DecimalString, maxPoints: null };
    const one = assignment('a', 'c', null, '40', {
      late,
      policy: { kind: 'best' },
      attempts: [
        { atMs: 30 * HOUR, score: dec(30), dueMs: 0 },
        { atMs: 40 * HOUR, score: dec(25), dueMs: 48 * HOUR },
        { atMs: 50 * HOUR, score: null, dueMs: 0 },
      ],
    });
    expect(shown(assignmentScore(one))).toBe('25');
  });

  it('says what another attempt would make of it, caps included', () => {
    const capped = assignment('a', 'c', '26', '40', {
      policy: { kind: 'capped', cap: '0.85' as DecimalString },
    });
    const one: GradedCourse = { scheme: 'points', categories: [category('c', '1')], assignments: [capped] };
    expect(shown(courseGrade(withAnotherAttempt(one, 'a', dec(40))).grade)).toBe('0.85');
    expect(shown(courseGrade(withAnotherAttempt(one, 'a', dec(10))).grade)).toBe('0.65');
  });

  it('adds up: the grade is made of its categories, whatever the course', () => {
    const score = fc.nat({ max: 50 });
    const course2 = fc
      .array(fc.tuple(fc.nat({ max: 2 }), score, fc.integer({ min: 1, max: 50 }), fc.boolean()), {
        maxLength: 12,
      })
      .map((rows): GradedCourse => ({
        scheme: 'weighted',
        categories: ['0', '1', '2'].map((id, i) => category(id, String(10 * (i + 1)), { drop: i })),
        assignments: rows.map(([c, earned, possible, extraCredit], i) =>
          assignment(String(i), String(c), String(earned), String(possible), { extraCredit }),
        ),
      }));
    fc.assert(
      fc.property(course2, (given) => {
        const { grade, categories } = courseGrade(given);
        const counted = categories.flatMap(({ ratio: r }, i) =>
          r === null ? [] : [{ weight: 10 * (i + 1), ratio: Number(r.n) / Number(r.d) }],
        );
        const weights = counted.reduce((sum, c) => sum + c.weight, 0);
        if (weights === 0) expect(grade).toBeNull();
        else {
          const expected = counted.reduce((sum, c) => sum + c.weight * c.ratio, 0) / weights;
          expect(grade === null ? NaN : Number(grade.n) / Number(grade.d)).toBeCloseTo(expected, 9);
        }
        for (const { dropped } of categories)
          for (const id of dropped) expect(given.assignments[Number(id)].extraCredit).toBe(false);
      }),
    );
  });
});

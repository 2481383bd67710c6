import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AttemptPolicy } from '../model/facts.ts';
import type { DecimalString } from '../model/ids.ts';
import { exampleJudgement, exampleRemark, exampleRubric } from '../model/example.ts';
import type { Decision, Stance } from '../model/work.ts';
import { criterionLosses, pointsBehind, shareExactly } from './behind.ts';
import { add, compare, divide, fromDecimal, multiply, subtract, toHundredths, toShown } from './fraction.ts';
import { scoreOf } from './policy.ts';

const dec = (text: string) => text as DecimalString;
const score = (policy: AttemptPolicy, ...scores: string[]) => {
  const result = scoreOf(
    policy,
    scores.map((s) => fromDecimal(dec(s))),
    fromDecimal(dec('40')),
  );
  return result === null ? null : toShown(result, 2);
};
const capped: AttemptPolicy = { kind: 'capped', cap: dec('0.85') };
const recover: AttemptPolicy = { kind: 'recover', share: dec('0.5') };

describe('attempt policy', () => {
  it('reckons the worked examples', () => {
    expect(score({ kind: 'latest' }, '26', '37')).toBe('37');
    expect(score({ kind: 'best' }, '26', '37')).toBe('37');
    expect(score({ kind: 'mean' }, '26', '37')).toBe('31.5');
    expect(score(capped, '26', '37')).toBe('34');
    expect(score(recover, '26', '37')).toBe('31.5');
    expect(score({ kind: 'latest' }, '35', '30')).toBe('30');
    expect(score(capped, '35', '30')).toBe('35');
    expect(score(recover, '35', '30')).toBe('35');
  });

  it('has no score where nothing is marked', () => {
    expect(score(capped)).toBeNull();
  });
});

describe('fractions', () => {
  const decimal = fc
    .tuple(fc.integer({ min: -9999, max: 9999 }), fc.nat({ max: 999 }))
    .map(([w, p]) => dec(`${w}.${String(p).padStart(3, '0')}`));

  it('reckons exactly', () => {
    expect(toShown(add(fromDecimal(dec('0.1')), fromDecimal(dec('0.2'))), 20)).toBe('0.3');
    fc.assert(
      fc.property(decimal, decimal, (x, y) => {
        const [a, b] = [fromDecimal(x), fromDecimal(y)];
        expect(compare(subtract(add(a, b), b), a)).toBe(0);
        if (b.n !== 0n) expect(compare(multiply(divide(a, b), b), a)).toBe(0);
      }),
    );
  });

  it('rounds half up', () => {
    expect(toShown(fromDecimal(dec('1.005')), 2)).toBe('1.01');
    expect(toShown(fromDecimal(dec('-0.004')), 2)).toBe('0');
    expect(toShown(fromDecimal(dec('28.50')), 2)).toBe('28.5');
    expect(toHundredths(fromDecimal(dec('2.675')))).toBe(268);
    expect(() => divide(fromDecimal(dec('1')), fromDecimal(dec('0')))).toThrow(RangeError);
  });
});

describe('points behind remarks', () => {
  it('shares the worked example', () => {
    expect(shareExactly(500, [3, 2, 1])).toEqual([250, 167, 83]);
  });

  it('adds up exactly and never gives a part to a zero weight', () => {
    fc.assert(
      fc.property(
        fc.nat({ max: 10_000 }),
        fc.array(fc.nat({ max: 3 }), { minLength: 1 }),
        (total, weights) => {
          const parts = shareExactly(total, weights);
          const expected = weights.some((w) => w > 0) ? total : 0;
          expect(parts.reduce((x, y) => x + y, 0)).toBe(expected);
          weights.forEach((weight, i) => {
            if (weight === 0) expect(parts[i]).toBe(0);
          });
        },
      ),
    );
  });

  const rubric = exampleRubric([{ id: 'c', title: 'Method', possible: '8' }]);
  const remark = (key: string) =>
    exampleRemark({ id: key, markingId: 'm', attemptId: 't', criterionId: 'c' });
  const judged = (key: string, stance: Stance | null, decision: Decision | null = null) =>
    [key, exampleJudgement(key, { stance, decision })] as const;
  const result = [{ criterionId: rubric.criteria[0].id, points: dec('3'), level: null, comment: '' }];

  it('gives nothing to praise, and takes what is kept for praise', () => {
    const remarks = ['x', 'y', 'z', 'p'].map(remark);
    const judgements = new Map([judged('x', 'must-fix'), judged('z', 'polish'), judged('p', null, 'keep')]);
    const losses = criterionLosses(rubric, result, null, remarks, judgements);
    expect(remarks.map((r) => pointsBehind(losses, r.id))).toEqual([250, 167, 83, null]);
    expect(losses[0].unexplained).toBe(0);
    expect(pointsBehind(losses, 'someone else’s')).toBeNull();
  });

  it('leaves points unexplained where no remark calls for a change', () => {
    const losses = criterionLosses(rubric, result, null, [remark('p')], new Map([judged('p', 'praise')]));
    expect(losses[0]).toMatchObject({ lost: 500, unexplained: 500 });
  });
});

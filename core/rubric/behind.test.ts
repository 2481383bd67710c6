import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleJudgement, exampleRemark, exampleRubric } from '../model/example.ts';
import type { DecimalString } from '../model/ids.ts';
import type { Decision, Stance } from '../model/work.ts';
import { criterionLosses, pointsBehind, shareExactly } from './behind.ts';

const dec = (text: string) => text as DecimalString;

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

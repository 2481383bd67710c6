import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleJudgement, exampleRemark, exampleRubric } from '../model/example.ts';
import { exampleSaying } from '../saying/example.ts';
import type { DecimalString } from '../model/ids.ts';
import { decisions, stances, type Decision, type Judgement, type Stance } from '../model/work.ts';
import type { Saying } from '../saying/saying.ts';
import { criterionLosses, importanceOf, pointsBehind, shareExactly } from './behind.ts';

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
  const result = [{ criterionId: rubric.criteria[0].id, points: dec('3'), level: null, comment: '' }];
  /** What each of some remarks says, and what the student made of them. */
  const lossOf = (said: Readonly<Record<string, Saying>>, judgements: readonly Judgement[] = []) => {
    const remarks = Object.keys(said).map(remark);
    const understood = {
      judgements: new Map(judgements.map((one) => [one.remarkId, one])),
      sayings: new Map(Object.entries(said)),
    };
    const losses = criterionLosses(rubric, result, null, remarks, understood);
    return { losses, shares: remarks.map(({ id }) => pointsBehind(losses, id)) };
  };

  it('are shared by what remarks say, none to praise and plain notes', () => {
    const { losses, shares } = lossOf({
      x: exampleSaying('must-fix'),
      y: exampleSaying('fix'),
      z: exampleSaying('polish'),
      p: exampleSaying('praise'),
      n: exampleSaying('note'),
    });
    expect(shares).toEqual([250, 167, 83, null, null]);
    expect(losses[0].unexplained).toBe(0);
    expect(pointsBehind(losses, 'someone else’s')).toBeNull();
  });

  it('follow the student’s word before the proposal', () => {
    const said = { x: exampleSaying('fix'), y: exampleSaying('fix') };
    expect(lossOf(said, [exampleJudgement('y', { stance: 'praise' })]).shares).toEqual([500, null]);
  });

  it('are taken as the marker names them, and the rest is shared over the rest', () => {
    const said = {
      x: exampleSaying('fix', { points: 2 }),
      y: exampleSaying('fix'),
      z: exampleSaying('polish'),
    };
    const { shares, losses } = lossOf(said);
    expect(shares).toEqual([200, 200, 100]);
    expect([...losses[0].named]).toEqual(['x']);
  });

  it('are scaled where the marker names more than was lost, and what nobody explains is unexplained', () => {
    const more = { x: exampleSaying('fix', { points: 6 }), y: exampleSaying('fix', { points: 4 }) };
    expect(lossOf(more).shares).toEqual([300, 200]);
    const less = lossOf({ x: exampleSaying('fix', { points: 2 }), p: exampleSaying('praise') });
    expect(less.shares).toEqual([200, null]);
    expect(less.losses[0].unexplained).toBe(300);
    expect(lossOf({ p: exampleSaying('praise') }).losses[0]).toMatchObject({ lost: 500, unexplained: 500 });
  });

  it('are weighed by what is to be expected where it isn’t sure what a remark says', () => {
    const unsure = exampleSaying('fix', { sure: false });
    const likely = { ...unsure.parts[0].likely, fix: 0.5, praise: 0.5 };
    const said = { ...unsure, parts: [{ ...unsure.parts[0], likely }] };
    expect(importanceOf('x', { judgements: new Map(), sayings: new Map([['x', said]]) })).toBe(1);
    expect(lossOf({ x: said, y: exampleSaying('fix') }).shares).toEqual([167, 333]);
  });

  it('are not shown before it is known what each of the remarks says', () => {
    const remarks = ['x', 'y'].map(remark);
    const understood = { judgements: new Map(), sayings: new Map([['x', exampleSaying('fix')]]) };
    const [loss] = criterionLosses(rubric, result, null, remarks, understood);
    expect(loss.shareByRemark.size).toBe(0);
    expect(loss.unexplained).toBe(0);
  });

  it('add up exactly, and no sequence of decisions moves them', () => {
    const ids = ['a', 'b', 'c', 'd', 'e'];
    const saying = fc
      .tuple(
        fc.constantFrom<Stance>(...stances),
        fc.constantFrom<Stance>(...stances),
        fc.option(fc.integer({ min: 1, max: 7 })),
        fc.boolean(),
      )
      .map(([stance, other, points, sure]) => {
        const said = exampleSaying(stance, { points, sure });
        const [part] = said.parts;
        // An unsure one is as likely to say something else.
        const likely = { ...part.likely, [stance]: 0.5, [other]: stance === other ? 1 : 0.5 };
        return sure ? said : { ...said, parts: [{ ...part, likely }] };
      });
    const decided = fc.record({
      id: fc.constantFrom(...ids),
      decision: fc.option(fc.constantFrom<Decision>(...decisions)),
      carry: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.tuple(saying, saying, saying, saying, saying), fc.array(decided), (said, steps) => {
        const sayings = Object.fromEntries(ids.map((id, i) => [id, said[i]]));
        const before = lossOf(sayings);
        const judgements = new Map<string, Judgement>();
        for (const { id, decision, carry } of steps) {
          const taken = decision === null ? null : { stance: sayings[id].stance, model: 'example' };
          judgements.set(id, exampleJudgement(id, { decision, carry, taken }));
          const after = lossOf(sayings, [...judgements.values()]);
          expect(after.shares).toEqual(before.shares);
          const sum = after.shares.reduce<number>((total, share) => total + (share ?? 0), 0);
          expect(sum + after.losses[0].unexplained).toBe(500);
        }
      }),
    );
  });
});

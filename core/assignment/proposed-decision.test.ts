import { describe, expect, it } from 'vitest';
import { exampleJudgement, exampleRemark } from '../model/example.ts';
import type { Remark } from '../model/remark.ts';
import type { Decision, Judgement, MarkKey, Stance } from '../model/work.ts';
import { exampleSaying } from '../saying/example.ts';
import { proposedDecision, sameCalls } from './proposed-decision.ts';

const remark = (id: string, text: string, more: Partial<Remark> = {}) => exampleRemark({ id, text, ...more });
const known = (
  remarks: readonly Remark[],
  of: {
    stances?: Readonly<Record<string, Stance>>;
    decided?: Readonly<Record<string, Decision>>;
    keys?: readonly MarkKey[];
  },
) => ({
  remarks,
  markKeys: of.keys ?? [],
  judgements: new Map<string, Judgement>(
    Object.entries(of.decided ?? {}).map(([id, decision]) => [id, exampleJudgement(id, { decision })]),
  ),
  sayings: new Map(Object.entries(of.stances ?? {}).map(([id, stance]) => [id, exampleSaying(stance)])),
});

describe('what could be decided', () => {
  it('follows from what the remark says, and from a plain note nothing', () => {
    const one = remark('r', 'Say why.');
    const by = (stance: Stance) => proposedDecision(known([one], { stances: { r: stance } }), one)?.decision;
    expect([by('fix'), by('praise'), by('advice'), by('note'), by('pointer')]).toEqual([
      'act',
      'keep',
      'carry',
      undefined,
      undefined,
    ]);
    expect(proposedDecision(known([one], {}), one)).toBeNull();
  });

  it('follows from how the same rule was decided, if that was always the same', () => {
    const all = ['a', 'b', 'c'].map((id) => remark(id, 'Comma.', { rule: 'comma splice' }));
    const on = (decided: Record<string, Decision>) =>
      proposedDecision(known(all, { decided, stances: { c: 'fix' } }), all[2]);
    expect(on({ a: 'decline', b: 'decline' })).toEqual({
      decision: 'decline',
      why: { kind: 'rule', rule: 'comma splice', count: 2 },
    });
    expect(on({ a: 'decline' })?.why.kind).toBe('stance');
    expect(on({ a: 'decline', b: 'act' })?.decision).toBe('act');
  });

  it('follows from the author’s key before all else', () => {
    const one = remark('r', '', { kind: 'highlight', color: '#ffbf00' });
    const keys: MarkKey[] = [
      {
        id: 'k',
        author: one.author.name,
        sign: { kind: 'mark', name: 'highlight' },
        meaning: 'asks for evidence',
        stance: 'fix',
        decision: 'ask',
      },
    ];
    expect(proposedDecision(known([one], { keys, stances: { r: 'praise' } }), one)).toEqual({
      decision: 'ask',
      why: { kind: 'key', meaning: 'asks for evidence' },
    });
  });
});

describe('remarks that call for the same change', () => {
  it('are those of one rule, of the same words, or of one theme, and not decided', () => {
    const all = [
      remark('r1', 'Give the units of the water table depth.'),
      remark('r2', 'The water table depth needs its units.'),
      remark('r3', 'A map of the site is missing.'),
      remark('r4', 'ref?'),
      remark('r5', 'Ref??'),
      remark('r6', 'Full stop.', { rule: 'punctuation' }),
      remark('r7', 'Here too.', { rule: 'punctuation' }),
      remark('r9', 'Good: the units of the water table depth are given.'),
      remark('r8', 'Units of the water table depth, please!'),
    ];
    const like = (id: string) =>
      sameCalls(
        known(all, { decided: { r8: 'act' }, stances: { r1: 'fix', r2: 'must-fix', r9: 'praise' } }),
        all.find((one) => one.id === id) ?? all[0],
      ).map((one) => one.id);
    expect(like('r1')).toEqual(['r2']);
    expect(like('r3')).toEqual([]);
    expect(like('r4')).toEqual(['r5']);
    expect(like('r7')).toEqual(['r6']);
  });
});

import 'fake-indexeddb/auto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildDesk } from '#demo/build-desk.ts';
import { viewOf } from './assignment-view.ts';
import { keptViewOf } from './kept-views.ts';
import { decideRemark, markRead } from './decide.ts';
import { takeInFacts } from './facts.ts';
import { closeWorkspace, openWorkspace, undoLast, useWorkspace } from './workspace.ts';

const NOW = Date.parse('2026-11-02T10:00:00Z');
const DAY_MS = 86_400_000;
const desk = await buildDesk('2026-11-02');
const records = () => useWorkspace.getState().records;
const kept = (id: string, at = NOW) => {
  const view = keptViewOf(records(), id, at);
  if (view === null) throw new Error(`no assignment ${id}`);
  return view;
};

beforeAll(async () => {
  await openWorkspace({ kind: 'student', deskId: 'kept', studentId: 'views', studentName: 'Ines' });
  await takeInFacts(desk.facts, desk.rubrics, desk.facts.length);
});
afterAll(closeWorkspace);

describe('views that are kept', () => {
  it('stay the same as long as nothing of theirs changes', async () => {
    const [lab, portfolio] = [kept('dip-well-lab'), kept('portfolio')];
    expect(kept('dip-well-lab')).toBe(lab);
    await markRead(lab.remarks[0], true);
    expect(kept('dip-well-lab')).not.toBe(lab);
    expect(kept('portfolio')).toBe(portfolio);
    await decideRemark(kept('portfolio').remarks[0], 'act');
    expect(kept('portfolio')).not.toBe(portfolio);
    await undoLast('portfolio');
    await undoLast('dip-well-lab');
  });

  it('are always what would be computed anew', async () => {
    const all = [...records().assignments.keys()];
    // The maps of all assignments are kept as they were then; what is in them of this one is in the tally.
    const computed = (id: string) => ({ ...viewOf(records(), id, NOW), judgements: null, readings: null });
    const held = (id: string) => ({ ...kept(id), judgements: null, readings: null });
    for (const id of all) kept(id);
    for (const id of ['herbarium', 'dip-well-lab', 'portfolio']) {
      const [remark] = kept(id).remarks;
      await decideRemark(remark, 'ask');
      for (const one of all) expect(held(one)).toEqual(computed(one));
      await undoLast(id);
    }
    for (const one of all) expect(held(one)).toEqual(computed(one));
  });

  it('change when a time passes that their state hangs on', () => {
    expect(kept('seminar-post-4').state.kind).toBe('not open yet');
    expect(kept('seminar-post-4', NOW + 5 * DAY_MS).state.kind).toBe('open, nothing sent');
    expect(kept('seminar-post-4', NOW + 12 * DAY_MS).state.kind).toBe('closed');
    expect(kept('quiz-flow').state.kind).toBe('open for another attempt');
    expect(kept('quiz-flow', NOW + 5 * DAY_MS).state.kind).toBe('finished');
    // The own extension holds beyond the due time of the others.
    expect(kept('policy-brief', NOW + 7 * DAY_MS).state.kind).toBe('open, nothing sent');
  });
});

import 'fake-indexeddb/auto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as v from 'valibot';
import { recordsIn } from '#core/assignment/records.ts';
import { buildDesk } from '#demo/build-desk.ts';
import { exampleAssignment, exampleAttempt, exampleFile, exampleMarking } from '#core/model/example.ts';
import { StoredFile } from '#core/model/work.ts';
import { viewOf } from '#core/assignment/view.ts';
import { KeptViews, nextMoment } from './kept-views.ts';
import { decideRemark } from '../commands/decide.ts';
import { markRead } from '../commands/reading.ts';
import { takeInFacts } from '../desk/facts.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';

let workspace: Workspace;

const NOW = Date.parse('2026-11-02T10:00:00Z');
const DAY_MS = 86_400_000;
const desk = await buildDesk('2026-11-02');
const views = new KeptViews();
const records = () => workspace.records;
const kept = (id: string, at = NOW) => {
  const view = views.viewOf(records(), id, at);
  if (view === null) throw new Error(`no assignment ${id}`);
  return view;
};

beforeAll(async () => {
  workspace = await openWorkspace({
    kind: 'student',
    deskId: 'kept',
    studentId: 'views',
    studentName: 'Ines',
  });
  await takeInFacts(workspace, desk.facts, desk.rubrics, desk.facts.length);
});
afterAll(() => workspace.close());

describe('views that are kept', () => {
  it('stay the same as long as nothing of theirs changes', async () => {
    const [lab, portfolio] = [kept('dip-well-lab'), kept('portfolio')];
    expect(kept('dip-well-lab')).toBe(lab);
    await markRead(workspace, lab.remarks[0], true);
    expect(kept('dip-well-lab')).not.toBe(lab);
    expect(kept('portfolio')).toBe(portfolio);
    await decideRemark(workspace, kept('portfolio').remarks[0], 'act');
    expect(kept('portfolio')).not.toBe(portfolio);
    await workspace.undoLast('portfolio');
    await workspace.undoLast('dip-well-lab');
  });

  it('are always what would be computed anew', async () => {
    const all = [...records().assignments.keys()];
    const computed = (id: string) => viewOf(recordsIn(records()), id, NOW);
    const held = (id: string) => kept(id);
    for (const id of all) kept(id);
    for (const id of ['herbarium', 'dip-well-lab', 'portfolio']) {
      const [remark] = kept(id).remarks;
      await decideRemark(workspace, remark, 'ask');
      for (const one of all) expect(held(one)).toEqual(computed(one));
      await workspace.undoLast(id);
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

  it('know that a file came which another assignment waited for too', () => {
    const returned = exampleFile({ hash: 'c'.repeat(64) });
    const maps = (files: readonly StoredFile[]) => ({
      ...records(),
      assignments: new Map(['a', 'b'].map((id) => [id, exampleAssignment({ id })])),
      attempts: new Map(
        ['a', 'b'].map((id) => [`${id}-1`, exampleAttempt({ id: `${id}-1`, assignmentId: id })]),
      ),
      markings: new Map(
        ['a', 'b'].map((id) => [
          `m-${id}`,
          exampleMarking({ id: `m-${id}`, assignmentId: id, attemptId: `${id}-1`, files: [returned] }),
        ]),
      ),
      files: new Map(files.map((file) => [file.hash as string, file])),
    });
    const own = new KeptViews();
    expect(own.viewOf(maps([]), 'b', NOW)?.awaited).toHaveLength(1);
    // The same bytes came back for both; they are kept once, with the first.
    const stored = {
      ...returned,
      cameAt: '2026-11-02T09:00:00.000Z',
      origin: 'desk',
      assignmentId: 'a',
      role: 'marked',
    };
    const after = maps([v.parse(StoredFile, stored)]);
    expect(own.viewOf(after, 'b', NOW)).toEqual(viewOf(recordsIn(after), 'b', NOW));
    expect(own.viewOf(after, 'b', NOW)?.awaited).toEqual([]);
  });
});

describe('the next moment', () => {
  it('is when the next thing opens, is due or closes, and never one that has passed', () => {
    let at = NOW;
    const moments: number[] = [];
    for (let next = nextMoment(records(), at); Number.isFinite(next); next = nextMoment(records(), at)) {
      expect(next).toBeGreaterThan(at);
      moments.push(next);
      at = next;
    }
    expect(moments.length).toBeGreaterThan(5);
    // Between two moments nothing changes by itself, on any assignment.
    for (const [i, from] of moments.slice(0, -1).entries())
      for (const id of records().assignments.keys())
        expect(viewOf(recordsIn(records()), id, moments[i + 1] - 1)).toEqual(
          viewOf(recordsIn(records()), id, from),
        );
  });
});

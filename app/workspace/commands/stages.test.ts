import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import {
  exampleAssignment,
  exampleAttempt,
  exampleMarking,
  exampleRemark,
  exampleRubric,
} from '#core/model/example.ts';
import { lineOfView, worked } from '#core/assignment/line.ts';
import { recordsIn } from '#core/assignment/records.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import { takeInFacts } from '../desk/facts.ts';
import { workOutHere } from '../state/example-sayings.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';
import { putOwnAssignment, removeOwnAssignment } from './by-hand.ts';
import { decideRemark } from './decide.ts';

const NOW = Date.parse('2026-11-03T10:00:00.000Z');
let workspace: Workspace;
let run = 0;
beforeEach(async () => {
  workspace = await openWorkspace({
    kind: 'student',
    deskId: 'stages',
    studentId: String(run++),
    studentName: 'I',
  });
});
afterEach(() => workspace.close());

const view = (id: string): AssignmentView => {
  const found = viewOf(recordsIn(workspace.records), id, NOW);
  if (found === null) throw new Error(`no ${id}`);
  return found;
};
const owners = () => [...workspace.records.tasks.values()].map(({ assignmentId }) => assignmentId);

const stage = exampleAssignment({
  id: 'stage',
  title: 'Draft of the brief',
  draftOf: 'final',
  rubricId: 'r',
});
const final = exampleAssignment({
  id: 'final',
  title: 'The brief',
  dueAt: '2026-11-20T10:00:00.000Z',
  rubricId: 'r',
});
const remark = exampleRemark({
  id: 'x',
  assignmentId: 'stage',
  attemptId: 's-1',
  text: 'You must say who pays for it.',
  criterionId: 'c-1',
});

async function begin(assignments = [stage, final]): Promise<void> {
  await workspace.save(async (writing) => {
    for (const one of assignments) await writing.put('assignments', one);
    await writing.put(
      'rubrics',
      exampleRubric([
        { possible: '12', levels: [] },
        { possible: '28', levels: [] },
      ]),
    );
    await writing.put('attempts', exampleAttempt({ id: 's-1', assignmentId: 'stage' }));
    await writing.put('markings', exampleMarking({ attemptId: 's-1', assignmentId: 'stage' }));
    await writing.put('remarks', remark);
  });
  workOutHere(workspace, new Uint8Array(readFileSync('core/saying/saying.model')));
}

describe('a draft stage and its final', () => {
  it('is decided about at the stage, and planned in the final by what is at stake there', async () => {
    await begin();
    await decideRemark(workspace, remark, 'act');
    expect(owners()).toEqual(['final']);
    expect(view('stage').tasks).toEqual([]);
    const [task] = view('final').tasks;
    expect([task.behind, view('final').about.losses.map(({ lost, atStake }) => [lost, atStake])]).toEqual([
      1200,
      [
        [1200, true],
        [2800, true],
      ],
    ]);
    // Taken back from either of them.
    expect(await workspace.undoLast('final')).toMatchObject({ kind: 'done' });
    expect(owners()).toEqual([]);
    expect(await workspace.redoNext('stage')).toMatchObject({ kind: 'done' });
    expect(owners()).toEqual(['final']);
    // Withdrawn at the stage, it goes from the final.
    await decideRemark(workspace, remark, 'act');
    expect(owners()).toEqual([]);
  });

  it('shows its numbers on the line of the final, and the final’s on its own from Plan on', async () => {
    await begin();
    await decideRemark(workspace, remark, 'act');
    const line = (id: string, other: string | null) =>
      lineOfView(view(id), other === null ? null : view(other), 1).map(({ station, opens, shows, fact }) => [
        station,
        opens.assignmentId,
        shows.assignment.id,
        fact.is,
      ]);
    expect(line('final', null)).toEqual([
      ['read', 'stage', 'final', 'elsewhere'],
      ['decide', 'stage', 'final', 'elsewhere'],
      ['plan', 'final', 'final', 'do'],
      ['revise', 'final', 'final', 'do'],
      ['check', 'final', 'final', 'look'],
      ['send', 'final', 'final', 'nothing'],
    ]);
    expect(line('stage', 'final')).toEqual([
      ['read', 'stage', 'stage', 'do'],
      ['decide', 'stage', 'stage', 'do'],
      ['plan', 'final', 'final', 'elsewhere'],
      ['revise', 'final', 'final', 'elsewhere'],
      ['check', 'final', 'final', 'elsewhere'],
      ['send', 'final', 'final', 'elsewhere'],
    ]);
    const { about } = view('final');
    expect([about.tally.received, about.tally.decided, about.countByDecision.act]).toEqual([1, 1, 1]);
    expect(worked(view('final')).remarks.map(({ id }) => id)).toEqual(['x']);
  });

  it('has its tasks moved when it is joined by hand, and back when it is parted, undone as one', async () => {
    const own = exampleAssignment({ id: 'stage', byHand: true });
    await begin([own, final]);
    await decideRemark(workspace, remark, 'act');
    expect(owners()).toEqual(['stage']);
    await putOwnAssignment(workspace, { ...own, draftOf: final.id });
    expect([owners(), view('stage').stage, view('final').stage]).toEqual([['final'], 'draft stage', 'final']);
    await putOwnAssignment(workspace, own);
    expect([owners(), view('stage').stage, view('final').stage]).toEqual([['stage'], 'none', 'none']);
    await workspace.undoLast('course/c');
    expect([owners(), view('stage').stage]).toEqual([['final'], 'draft stage']);
  });

  it('follows the school: a final that comes later takes the tasks, one that is no final gives them back', async () => {
    await begin([stage]);
    expect(view('stage').stage).toBe('draft stage without its final');
    await decideRemark(workspace, remark, 'act');
    expect(owners()).toEqual(['stage']);
    await takeInFacts(workspace, [{ seq: 1, kind: 'assignment', value: final }], [], 1);
    expect(owners()).toEqual(['final']);
    await takeInFacts(workspace, [{ seq: 2, kind: 'assignment', value: { ...stage, draftOf: null } }], [], 2);
    expect([owners(), view('stage').tasks.length]).toEqual([['stage'], 1]);
  });

  it('is written and handed in by itself as long as nothing was', async () => {
    await workspace.save(async (writing) => {
      for (const one of [{ ...stage, dueAt: final.dueAt }, final]) await writing.put('assignments', one);
    });
    const line = lineOfView(view('stage'), view('final'), 0);
    expect(line.map(({ station, opens }) => [station, opens.assignmentId])).toEqual(
      ['read', 'decide', 'plan', 'revise', 'check', 'send'].map((station) => [station, 'stage']),
    );
    expect(line[3].fact).toMatchObject({ is: 'do', why: null });
  });

  it('of each other by mistake is work of its own, each with its tasks', async () => {
    await begin([stage, { ...final, draftOf: stage.id }]);
    await decideRemark(workspace, remark, 'act');
    expect(owners()).toEqual(['stage']);
    expect(['stage', 'final'].map((id) => view(id).stage)).toEqual([
      'draft stage without its final',
      'draft stage without its final',
    ]);
  });

  it('is work of its own again when its final is taken out, with its tasks', async () => {
    const own = exampleAssignment({ id: 'final', byHand: true });
    await begin([stage, own]);
    await decideRemark(workspace, remark, 'act');
    await removeOwnAssignment(workspace, own);
    expect([owners(), view('stage').stage, view('stage').tasks.length]).toEqual([['stage'], 'none', 1]);
    await workspace.undoLast('course/c');
    expect([owners(), view('stage').stage, view('final').tasks.length]).toEqual([
      ['final'],
      'draft stage',
      1,
    ]);
  });
});

import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { exampleAssignment, exampleRemark } from '#core/model/example.ts';
import type { Task } from '#core/model/work.ts';
import type { PlacedBlock } from '#core/plan/place.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';
import { decideRemark, decideSame } from './decide.ts';
import {
  addTask,
  dropTask,
  joinGroups,
  joinTasks,
  pinTask,
  planMinutes,
  setTaskMinutes,
  setTaskNeeds,
  setTaskSteps,
  splitTask,
} from './plan.ts';
import { endSpell, freeBlock, seeSpell, setBlock, startSpell, WEEK_SCOPE } from './week.ts';

let workspace: Workspace;
let run = 0;
const remarks = ['r1', 'r2', 'r3'].map((id) => exampleRemark({ id, text: `Say why, ${id}.` }));
const [first, second, third] = remarks;

const tasks = () => [...workspace.records.tasks.values()];
const taskAbout = (id: string): Task => {
  const found = tasks().find(({ about }) => about.some(({ remarkId }) => remarkId === (id as never)));
  if (found === undefined) throw new Error(`no task about ${id}`);
  return found;
};
const titles = () => tasks().map(({ title }) => title);
const blockOf = (...of: readonly Task[]): PlacedBlock => ({
  id: `${of[0].id}/0`,
  assignmentId: 'a',
  taskIds: of.map(({ id }) => id),
  from: 0,
  to: 1,
  pinned: false,
});
const undo = (scope = 'a') => workspace.undoLast(scope);

beforeEach(async () => {
  run++;
  workspace = await openWorkspace({
    kind: 'student',
    deskId: 'plan',
    studentId: `${run}`,
    studentName: 'Ines Tarrow',
  });
  await workspace.save(async (writing) => {
    await writing.put('assignments', exampleAssignment({ id: 'a' }));
    for (const remark of remarks) await writing.put('remarks', remark);
  });
  for (const remark of remarks) await decideRemark(workspace, remark, 'act');
});
afterEach(() => workspace.close());

describe('tasks', () => {
  it('are joined with all that hangs on them, and parted again in one step', async () => {
    const [one, two, three] = ['r1', 'r2', 'r3'].map(taskAbout);
    await setTaskMinutes(workspace, one, 10);
    await setTaskMinutes(workspace, two, 25);
    await setTaskSteps(workspace, two, [{ title: 'Look it up', done: false }]);
    await setTaskNeeds(workspace, three, [two.id]);
    await setBlock(workspace, blockOf(two, three), { from: 1_000_000, to: 4_000_000 });
    await startSpell(workspace, two.id);
    const before = workspace.records.tasks;
    await joinTasks(workspace, [one, taskAbout('r2')]);
    const joined = taskAbout('r1');
    expect(joined.about.map(({ remarkId }) => remarkId)).toEqual(['r1', 'r2']);
    expect([joined.minutes, joined.steps.length]).toEqual([35, 1]);
    expect(taskAbout('r3').needs).toEqual([joined.id]);
    expect([...workspace.records.blocks.values()].map(({ taskIds }) => taskIds)).toEqual([
      [joined.id, three.id],
    ]);
    expect([...workspace.records.spells.values()].map(({ taskId }) => taskId)).toEqual([joined.id]);
    await undo();
    expect(workspace.records.tasks).toEqual(before);
    expect([...workspace.records.spells.values()].map(({ taskId }) => taskId)).toEqual([two.id]);
  });

  it('that ask for the same are done once; several groups are one step', async () => {
    const own = await addTask(workspace, first.assignmentId, 'Ask at the library');
    const library = workspace.records.tasks.get(own);
    if (library === undefined) throw new Error('no task');
    const [one, two, three] = ['r1', 'r2', 'r3'].map(taskAbout);
    await joinGroups(workspace, first.assignmentId, [
      { tasks: [one, two], once: true },
      { tasks: [three, library], once: false },
    ]);
    expect(tasks()).toHaveLength(2);
    expect(taskAbout('r2').minutes).toBe(Math.max(one.minutes, two.minutes) + 5);
    await undo();
    expect(tasks()).toHaveLength(4);
  });

  it('never need each other in a circle because they were joined', async () => {
    const [one, two, three] = ['r1', 'r2', 'r3'].map(taskAbout);
    await setTaskNeeds(workspace, two, [one.id]);
    await setTaskNeeds(workspace, three, [two.id]);
    await joinTasks(workspace, [taskAbout('r1'), taskAbout('r3')]);
    expect(taskAbout('r1').needs).toEqual([]);
    expect(taskAbout('r2').needs).toEqual([taskAbout('r1').id]);
  });

  it('are split by what they are about, or in two, and taken away with what others need of them', async () => {
    await joinTasks(workspace, [taskAbout('r1'), taskAbout('r2')]);
    const joined = taskAbout('r1');
    await splitTask(workspace, joined, ({ remarkId }) => `About ${remarkId}`);
    expect(titles()).toEqual(expect.arrayContaining(['About r1', 'About r2']));
    expect(taskAbout('r2').minutes).toBe(Math.ceil(joined.minutes / 2));
    await splitTask(workspace, taskAbout('r3'), () => '');
    expect(tasks().filter(({ about }) => about.some(({ remarkId }) => remarkId === third.id))).toHaveLength(
      2,
    );
    const own = await addTask(workspace, first.assignmentId, 'Ask at the library');
    await setTaskNeeds(workspace, taskAbout('r1'), [own]);
    const library = workspace.records.tasks.get(own);
    if (library === undefined) throw new Error('no task');
    await dropTask(workspace, library);
    expect(taskAbout('r1').needs).toEqual([]);
    await undo();
    expect(taskAbout('r1').needs).toEqual([own]);
  });

  it('are made one where remarks are decided alike', async () => {
    for (const remark of remarks) await decideRemark(workspace, remark, 'act');
    expect(tasks()).toHaveLength(0);
    await decideSame(workspace, [first, second, third], 'act');
    expect(tasks().map(({ about }) => about.length)).toEqual([3]);
    // What is decided otherwise later leaves the others together.
    await decideRemark(workspace, second, 'decline');
    expect(tasks().map(({ about }) => about.length)).toEqual([2]);
    await undo();
    await undo();
    expect(tasks()).toHaveLength(0);
  });

  it('keep what was said of them by hand, and the minutes there are beside them', async () => {
    await pinTask(workspace, taskAbout('r1'), 'out');
    await planMinutes(workspace, first.assignmentId, 45);
    expect([taskAbout('r1').pin, workspace.records.planTimes.get('a')?.minutes]).toEqual(['out', 45]);
    await planMinutes(workspace, first.assignmentId, null);
    expect(workspace.records.planTimes.size).toBe(0);
    await undo();
    expect(taskAbout('r1').pin).toBeNull();
  });
});

describe('blocks and time', () => {
  it('are set and let go, undone on the week and in the assignment alike', async () => {
    const task = taskAbout('r1');
    await setBlock(workspace, blockOf(task), { from: 1_000_000, to: 2_800_000 });
    const [set] = workspace.records.blocks.values();
    // A block that was set keeps its name when it is moved again.
    await setBlock(
      workspace,
      { ...blockOf(task), id: set.id, pinned: true },
      { from: 5_000_000, to: 6_800_000 },
    );
    expect([...workspace.records.blocks.keys()]).toEqual([set.id]);
    await freeBlock(workspace, set);
    expect(workspace.records.blocks.size).toBe(0);
    await undo(WEEK_SCOPE);
    expect([...workspace.records.blocks.values()].map(({ from }) => Date.parse(from))).toEqual([5_000_000]);
    await undo('a');
    await undo('a');
    expect(workspace.records.blocks.size).toBe(0);
  });

  it('is counted for one task at a time, and goes where none was spent', async () => {
    const spells = () => [...workspace.records.spells.values()];
    await startSpell(workspace, taskAbout('r1').id);
    await startSpell(workspace, taskAbout('r2').id);
    expect(
      spells()
        .filter(({ to }) => to === null)
        .map(({ taskId }) => taskId),
    ).toEqual([taskAbout('r2').id]);
    const running = spells().find(({ to }) => to === null);
    if (running === undefined) throw new Error('nothing is counted');
    await seeSpell(workspace, running);
    await endSpell(workspace, running, Date.parse(running.from) + 600_000);
    expect(spells().every(({ to }) => to !== null)).toBe(true);
    // Seen once it has ended, it stays ended.
    await seeSpell(workspace, running);
    expect(spells().every(({ to }) => to !== null)).toBe(true);
    await startSpell(workspace, taskAbout('r3').id);
    const again = spells().find(({ to }) => to === null);
    if (again === undefined) throw new Error('nothing is counted');
    await endSpell(workspace, again, Date.parse(again.from));
    expect(spells()).toHaveLength(2);
  });
});

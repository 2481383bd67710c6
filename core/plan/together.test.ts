import { expect, it } from 'vitest';
import { exampleRemark } from '../model/example.ts';
import type { Remark } from '../model/remark.ts';
import { newTask } from './tasks.ts';
import { together, togetherKey } from './together.ts';

const id = (text: string) => text as never;
const quoted = (exact: string): Remark['targets'] => [
  { kind: 'words', page: 1, quads: [], rect: null, quote: { exact, prefix: '', suffix: '' } },
];
const remarks: Partial<Remark>[] = [
  { id: id('r1'), text: 'Which gauge was that?', targets: quoted('the gauge we read'), textAt: 100 },
  { id: id('r2'), text: 'And who read it?', targets: quoted('the gauge we read'), textAt: 100 },
  { id: id('r3'), text: 'Comma.', rule: 'comma splice', targets: quoted('wet'), textAt: 300 },
  { id: id('r4'), text: 'Again.', rule: 'comma splice', targets: quoted('dry'), textAt: 400 },
  { id: id('r5'), text: 'See handout 4 on error bars.', targets: quoted('mean'), textAt: 500 },
  { id: id('r6'), text: 'Handout 4 says how.', targets: quoted('range'), textAt: 620 },
  { id: id('r7'), text: 'Too long.', targets: quoted('first clause'), textAt: 701 },
  { id: id('r8'), text: 'Whose view?', targets: quoted('second clause'), textAt: 720 },
  { id: id('r9'), text: 'Give the units of the water table depth.', targets: quoted('deep'), textAt: 810 },
  { id: id('r10'), text: 'The water table depth needs its units.', targets: quoted('shallow'), textAt: 990 },
  {
    id: id('r12'),
    text: 'Stands in a source.',
    channel: 'overlap',
    targets: quoted('whose view was it in the second clause'),
    textAt: 1310,
  },
  { id: id('r13'), text: 'Say whose view it is.', targets: quoted('view was it'), textAt: 1316 },
  { id: id('r11'), text: 'A map of the site is missing.', targets: quoted('site'), textAt: 1200 },
];
const all = remarks.map((one) => exampleRemark({ ...one, paperHash: id('a'.repeat(64)) }));
const tasks = all.map(({ id: remarkId, text }) =>
  newTask({
    id: id(`t ${remarkId}`),
    assignmentId: id('a'),
    title: text,
    kind: 'sentence',
    about: [{ remarkId, partId: null }],
  }),
);
const found = (of = tasks) =>
  together(of, new Map(all.map((one) => [one.id as string, one])), ({ textAt }) =>
    textAt === null ? null : Math.floor(textAt / 100),
  ).map(({ reason, tasks: members }) => [reason, ...members.map(({ about: [{ remarkId }] }) => remarkId)]);

it('finds tasks about one passage, a match and a remark on its words, rule, source, paragraph or theme, each in one group', () => {
  expect(found()).toEqual([
    ['passage', 'r1', 'r2'],
    ['rule', 'r3', 'r4'],
    ['resource', 'r5', 'r6'],
    ['paragraph', 'r7', 'r8'],
    ['theme', 'r9', 'r10'],
    ['passage', 'r12', 'r13'],
  ]);
});

it('joins no kinds of change in one paragraph, and nothing that is done', () => {
  const other = tasks.map((task) => (task.id === 't r8' ? { ...task, kind: 'structure' as const } : task));
  expect(found(other).map(([reason]) => reason)).not.toContain('paragraph');
  const done = tasks.map((task) => ({ ...task, done: task.id === 't r2' || task.id === 't r13' }));
  expect(found(done).map(([reason]) => reason)).not.toContain('passage');
});

it('names a group by its tasks, in whatever order', () => {
  expect(togetherKey({ tasks: [tasks[1], tasks[0]] })).toBe(togetherKey({ tasks: tasks.slice(0, 2) }));
});

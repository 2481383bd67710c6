import { describe, expect, it } from 'vitest';
import { askList } from '../asks/ask-list.ts';
import { lineOf, type LineInput } from '../line/stations.ts';
import { instantOf } from '../model/ids.ts';
import { exampleJudgement, exampleRemark, exampleTask } from '../model/example.ts';
import { inReadingOrder, type Remark } from '../model/remark.ts';
import { answerKey } from '../model/own-ids.ts';
import type { Decision, GivenAnswer, JudgedPart, Query, Reading, RemarkRef, Task } from '../model/work.ts';
import { changeKindOf, planOrder, planTotals, firstTitleOf } from '../plan/tasks.ts';
import { readingNeedMs, wordingMark } from '../reading/need.ts';
import { tallyOf } from '../tally/tally.ts';
import { answerOf, type Done } from './answered.ts';

/** An id of any kind. */
const id = (text: string) => text as never;
const remark = (key: string, more: Partial<Remark> = {}) =>
  exampleRemark({ id: key, text: 'Say why. And when.', ...more });
const judgement = (decision: Decision | null, carry = false) => exampleJudgement('r', { decision, carry });
const task = (key: string, more: Partial<Task> = {}) =>
  exampleTask(key, { about: [{ remarkId: 'r', partId: null }], ...more });
const query = (key: string, person: string, put: boolean): Query => ({
  id: id(key),
  assignmentId: id('a'),
  about: { remarkId: id('r'), partId: null },
  person,
  text: 'Why?',
  putAt: put ? instantOf(0) : null,
  touched: false,
  answer: '',
});
const given = (more: Partial<GivenAnswer>): GivenAnswer => ({
  remarkId: id('r'),
  partId: null,
  assignmentId: id('a'),
  words: '',
  regions: [],
  places: [],
  files: [],
  ...more,
});
const doneBy = (
  tasks: readonly Task[],
  queries: readonly Query[],
  more: { likely?: boolean; given?: readonly GivenAnswer[] } = {},
): Done => ({
  tasks,
  queries,
  given: new Map((more.given ?? []).map((one) => [answerKey(one), one])),
  isLikely: () => more.likely ?? false,
});

describe('answerOf', () => {
  const r = remark('r');

  it('wants a decision', () => {
    expect(answerOf(r, undefined, doneBy([], []))).toEqual({ answered: false, because: 'undecided' });
    expect(answerOf(r, judgement(null), doneBy([], []))).toEqual({ answered: false, because: 'undecided' });
    expect(answerOf(r, judgement(null, true), doneBy([], []))).toEqual({ answered: true, by: 'carried' });
  });

  it('takes a ticked task for an answer where something that changed is likely to be one, whatever stands', () => {
    const ticked = [task('t', { done: true })];
    expect(answerOf(r, judgement('act'), doneBy(ticked, [], { likely: true }))).toEqual({
      answered: true,
      by: 'changed',
    });
    expect(answerOf(r, judgement('act'), doneBy(ticked, []))).toEqual({
      answered: false,
      because: 'ticked without an answer',
    });
    const open = { answered: false, because: 'no answer yet' };
    expect(answerOf(r, judgement('act'), doneBy([task('t')], [], { likely: true }))).toEqual(open);
    expect(answerOf(r, judgement('act'), doneBy([task('s'), ...ticked], [], { likely: true }))).toEqual(open);
    expect(answerOf(r, judgement('act'), doneBy([], []))).toEqual(open);
  });

  it('takes what the student says, shows, brings or replies for an answer, task or none', () => {
    const pick = { versionId: id('v'), from: 0, to: 0, exact: '' };
    const region = { fileHash: id('f'), x: 0, y: 0, width: 1, height: 1 };
    for (const more of [
      { words: 'It is not public.' },
      { places: [pick] },
      { regions: [region] },
      { files: [id('f')] },
    ])
      expect(answerOf(r, judgement('act'), doneBy([], [], { given: [given(more)] }))).toEqual({
        answered: true,
        by: 'given',
      });
    expect(answerOf(r, judgement('act'), doneBy([], [], { given: [given({ words: ' ' })] })).answered).toBe(
      false,
    );
    expect(
      answerOf(r, exampleJudgement('r', { decision: 'act', reply: 'I could not.' }), doneBy([], [])),
    ).toEqual({ answered: true, by: 'replied' });
  });

  it('wants an answer to every part that is to be acted on', () => {
    const part = (key: string, more: Partial<JudgedPart>): JudgedPart => ({
      id: id(key),
      from: 0,
      to: 8,
      quote: 'Say why.',
      said: 'fix',
      stance: null,
      decision: 'act',
      carry: false,
      note: '',
      reply: '',
      ...more,
    });
    const parted = (second: Partial<JudgedPart>) =>
      exampleJudgement('r', { decision: null, parts: [part('p', {}), part('q', second)] });
    const first = given({ partId: id('p'), words: 'Done.' });
    expect(answerOf(r, parted({}), doneBy([], [], { given: [first] }))).toMatchObject({ answered: false });
    const both = [first, given({ partId: id('q'), words: 'Done.' })];
    expect(answerOf(r, parted({}), doneBy([], [], { given: both })).answered).toBe(true);
    expect(answerOf(r, parted({ reply: 'No.' }), doneBy([], [], { given: [first] })).answered).toBe(true);
    expect(answerOf(r, parted({ decision: 'decline' }), doneBy([], [], { given: [first] })).answered).toBe(
      true,
    );
    // Answered before it was parted.
    expect(answerOf(r, parted({}), doneBy([], [], { given: [given({ words: 'Done.' })] })).answered).toBe(
      true,
    );
  });

  it('takes a query for an answer once it was put', () => {
    expect(answerOf(r, judgement('ask'), doneBy([], [query('q', 'K', false)])).answered).toBe(false);
    expect(answerOf(r, judgement('ask'), doneBy([], [query('q', 'K', true)]))).toEqual({
      answered: true,
      by: 'asked',
    });
    expect(answerOf(r, judgement('keep'), doneBy([], []))).toEqual({ answered: true, by: 'kept' });
    expect(answerOf(r, judgement('decline'), doneBy([], []))).toEqual({ answered: true, by: 'declined' });
  });
});

describe('reading and the tally', () => {
  it('needs 0.6 s and a second for every four words', () => {
    expect(readingNeedMs('')).toBe(600);
    expect(readingNeedMs('Name it. Two studies.')).toBe(1600);
  });

  it('counts by channel, and as unread again what was reworded by its author', () => {
    const remarks = [remark('r'), remark('s'), remark('o', { channel: 'overall' })];
    const reading = (key: string, of: Remark): [string, Reading] => [
      key,
      { remarkId: id(key), assignmentId: id('a'), of: wordingMark(of), seenMs: 5000, read: true },
    ];
    const readings = new Map([
      reading('r', remarks[0]),
      reading('s', remark('s', { text: 'It said something else.' })),
    ]);
    const tally = tallyOf(remarks, readings, new Map([['o', judgement(null, true)]]), { passage: 2 });
    expect(tally.byChannel).toEqual([
      { channel: 'overall', received: 1, read: 0, decided: 1, announced: 0 },
      { channel: 'passage', received: 2, read: 1, decided: 0, announced: 2 },
    ]);
    expect(tally).toMatchObject({ received: 3, read: 1, decided: 1 });
  });

  it('orders remarks down the pages, then criteria, then the whole', () => {
    const at = (page: number, top: number) => ({
      kind: 'point' as const,
      page,
      rect: [0, top - 10, 10, top],
      shape: [],
      drawn: true,
    });
    const order = inReadingOrder([
      remark('whole'),
      remark('criterion', { targets: [{ kind: 'criterion', criterionId: id('c') }] }),
      remark('low', { targets: [at(1, 100)] }),
      remark('next', { targets: [at(2, 700)] }),
      remark('high', { targets: [at(1, 600)] }),
    ]);
    expect(order.map((r) => r.id)).toEqual(['high', 'low', 'next', 'criterion', 'whole']);
  });
});

describe('plan', () => {
  it('names a task by words or change where nothing better is known, and guesses its kind', () => {
    const change = { kind: 'insertion' as const, before: '', after: 'the mean' };
    expect(firstTitleOf({ text: '', change })).toBe('the mean');
    const long = { ...change, after: `${'very '.repeat(40)}long` };
    expect(firstTitleOf({ text: '', change: long }).length).toBeLessThanOrEqual(92);
    expect(firstTitleOf({ text: 'Say why.', change: null })).toBe('Say why.');
    const words = (exact: string) => ({
      kind: 'words' as const,
      page: 1,
      quads: [],
      rect: [0, 0, 1, 1],
      quote: { exact, prefix: '', suffix: '' },
    });
    expect(changeKindOf(remark('r', { kind: 'strikeout', targets: [words('of course')] }))).toBe(
      'mechanical',
    );
    expect(changeKindOf(remark('r', { targets: [words('of course')] }))).toBe('sentence');
    expect(changeKindOf(remark('r', { targets: [words('wet '.repeat(60))] }))).toBe('paragraph');
    expect(changeKindOf(remark('r'))).toBe('paragraph');
  });

  it('proposes the best gain per minute, and keeps what was dragged', () => {
    const points = new Map([
      ['r', 100],
      ['s', 300],
      ['other', 100],
    ]);
    const behind = ({ remarkId }: RemarkRef) => ({ points: points.get(remarkId) ?? null, importance: 0 });
    const tasks = [
      task('cheap', { minutes: 5 }),
      task('rich', { about: [{ remarkId: id('s'), partId: null }], minutes: 10 }),
      task('none', { about: [{ remarkId: id('q'), partId: null }] }),
    ];
    const planned = planOrder(tasks, behind);
    expect(planned.map((p) => p.task.id)).toEqual(['rich', 'cheap', 'none']);
    expect(planned.map((p) => p.gain)).toEqual([210, 70, null]);
    const dragged = planOrder([...tasks, task('mine', { rank: 0 })], behind);
    expect(dragged[0].task.id).toBe('mine');
    expect(
      planTotals(
        planOrder(
          [...tasks, task('ticked', { about: [{ remarkId: id('other'), partId: null }], done: true })],
          behind,
        ),
      ),
    ).toEqual({
      done: 1,
      minutesLeft: 25,
      minutes: 35,
      gain: 350,
    });
  });

  it('lists what is to be asked by person, open ones first', () => {
    const people = askList([
      query('1', 'Asked', true),
      query('2', 'Waiting', false),
      query('3', 'Asked', true),
    ]);
    expect(people.map((p) => [p.person, p.queries.length])).toEqual([
      ['Waiting', 1],
      ['Asked', 2],
    ]);
  });
});

describe('the line', () => {
  const base: LineInput = {
    received: 4,
    read: 4,
    decided: 2,
    countByDecision: { act: 1, ask: 1, keep: 0, decline: 0, carry: 0 },
    tasks: 1,
    tasksDone: 0,
    draftBegun: false,
    unanswered: 2,
    sent: false,
    resubmittable: true,
  };
  const progress = (more: Partial<LineInput>) => lineOf({ ...base, ...more }).map((s) => s.progress);

  it('tells how far each station is', () => {
    expect(progress({})).toEqual(['done', 'begun', 'not begun', 'not begun', 'not begun', 'not begun']);
    expect(progress({ sent: true, tasksDone: 1, draftBegun: true })).toEqual([
      'done',
      'begun',
      'done',
      'done',
      'done',
      'done',
    ]);
  });

  it('asks nothing more of finished work', () => {
    expect(progress({ resubmittable: false, tasks: 0 }).slice(2)).toEqual(Array(4).fill('not needed'));
  });
});

import type { DecimalString } from '#core/model/ids.ts';
import { fromDecimal } from '#core/scores/fraction.ts';
import { describe, expect, it } from 'vitest';
import { recordsIn } from '#core/assignment/records.ts';
import { answerFinderOf } from '#core/answers/find.ts';
import {
  exampleAssignment,
  exampleAttempt,
  exampleFile,
  exampleJudgement,
  exampleMarking,
  exampleRemark,
  exampleRubric,
  wordsTarget,
  exampleTask,
} from '#core/model/example.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Decision, Judgement, Query, Reading, Task } from '#core/model/work.ts';
import { paperOf } from '#core/paper/paper.ts';
import { wordingMark } from '#core/reading/need.ts';
import { exampleSaying } from '#core/saying/example.ts';
import { sayingKey } from '#core/saying/saying-of.ts';
import { entriesOf } from '../../shared/files/response-sheet.ts';
import { behindOf, hundredths, viewOf, type AssignmentView } from '#core/assignment/view.ts';
import { answersOf } from './outcomes.ts';
import {
  emptyRecords,
  recordStores,
  storeNames,
  type RecordByStore,
  type RecordMaps,
  type StoreName,
} from '../storage/records.ts';

const id = (text: string) => text as never;
const NOW = Date.parse('2026-11-02T10:00:00Z');

const assignment = exampleAssignment({
  title: 'Report: a water table',
  dueAt: '2026-10-17T17:00:00.000Z',
  closesAt: '2026-11-11T18:00:00.000Z',
  attemptsAllowed: 2,
  policy: { kind: 'capped', cap: '0.85' },
  rubricId: 'r',
});
const FILE = 'f'.repeat(64);
const marking = (number: number, score: string, points: string, more: object = {}) =>
  exampleMarking({
    id: `m${number}`,
    attemptId: `t${number}`,
    at: `2026-11-0${number}T09:00:00.000Z`,
    score,
    criteria: [{ criterionId: 'method', points, level: null, comment: '' }],
    files: number === 1 ? [exampleFile({ hash: FILE, announced: { passage: 4 } })] : [],
    ...more,
  });
const remark = (key: string, more: Partial<Remark> = {}) =>
  exampleRemark({
    id: key,
    attemptId: 't1',
    markingId: 'm1',
    text: `Say why, ${key}.`,
    criterionId: 'method',
    targets: [{ ...wordsTarget('proves', 1), rect: [0, 0, 1, 700 - key.charCodeAt(0)] }],
    fileHash: FILE,
    ...more,
  });
const judged = (key: string, decision: Decision | null, more: Partial<Judgement> = {}) =>
  exampleJudgement(key, { decision, ...more });
const task = (key: string, done: boolean): Task =>
  exampleTask(`task/${key}`, { title: key, about: [{ remarkId: key, partId: null }], done });

function records(rows: { [Store in StoreName]?: RecordByStore[Store][] }): RecordMaps {
  const maps = { ...emptyRecords() } as Record<StoreName, ReadonlyMap<string, unknown>>;
  for (const store of storeNames)
    maps[store] = new Map((rows[store] ?? []).map((row) => [recordStores[store].keyOf(row as never), row]));
  const sayings = new Map((rows.remarks ?? []).map((one) => [sayingKey(one), exampleSaying('fix')]));
  return { ...maps, sayings } as unknown as RecordMaps;
}
const points = (value: string) => fromDecimal(value as DecimalString);
const attempt = (number: number) =>
  exampleAttempt({ id: `t${number}`, number, at: '2026-10-17T15:00:00.000Z' });
const submission = {
  id: id('s'),
  assignmentId: id('a'),
  versionId: id('v'),
  note: '',
  kind: 'paper' as const,
  files: [],
  post: null,
  items: {},
  at: id('2026-11-02T09:00:00.000Z'),
  state: { kind: 'received' as const, attemptId: id('t2'), receipt: null as never },
};
const base = {
  assignments: [assignment],
  rubrics: [exampleRubric([{ id: 'method', title: 'Method', possible: '8' }], { unscaled: true })],
  attempts: [attempt(1)],
  markings: [marking(1, '28.5', '5')],
  remarks: ['x', 'y', 'z'].map((key) => remark(key)),
};
function view(more: { [Store in StoreName]?: RecordByStore[Store][] } = {}, at = NOW): AssignmentView {
  const found = viewOf(recordsIn(records({ ...base, ...more })), 'a', at);
  if (found === null) throw new Error('no view');
  return found;
}

describe('the view of an assignment', () => {
  it('is none for an assignment that isn’t here', () => {
    expect(viewOf(recordsIn(records({})), 'a', NOW)).toBeNull();
  });

  it('tells score, reach and state by the rules', () => {
    expect(view()).toMatchObject({
      score: points('28.5'),
      reachable: points('34'),
      state: { kind: 'open for another attempt' },
    });
    expect(view({}, Date.parse('2026-11-12T00:00:00Z')).state.kind).toBe('finished');
    const again = { attempts: [attempt(1), attempt(2)] };
    expect(view(again)).toMatchObject({ score: points('28.5'), state: { kind: 'waiting again' } });
    const better = view({ ...again, markings: [marking(1, '28.5', '5'), marking(2, '37', '8')] });
    expect(better).toMatchObject({ score: points('34'), state: { kind: 'finished' } });
    const worse = view({ ...again, markings: [marking(1, '28.5', '5'), marking(2, '20', '8')] });
    expect(worse.score).toEqual(points('28.5'));
  });

  it('counts what came, and what is announced but not read from its file yet', () => {
    const reading = (of: Remark): Reading => ({
      remarkId: of.id,
      assignmentId: id('a'),
      of: wordingMark(of),
      seenMs: 1,
      read: true,
    });
    const { tally } = view({ readings: [reading(base.remarks[0])], judgements: [judged('y', 'keep')] });
    expect(tally.byChannel).toEqual([{ channel: 'passage', received: 3, read: 1, decided: 1, announced: 4 }]);
  });

  it('shares the points of the first result, also after the second came', () => {
    const second = {
      attempts: [attempt(1), attempt(2)],
      markings: [marking(1, '28.5', '5'), marking(2, '37', '8')],
    };
    for (const each of [view(), view(second)]) {
      expect(['x', 'y', 'z'].map((key) => behindOf(each, key)?.share)).toEqual([100, 100, 100]);
      expect(behindOf(each, 'x')?.loss.lost).toBe(300);
    }
    expect(behindOf(view(), 'elsewhere')).toBeNull();
    const judgements = [judged('x', 'keep'), judged('y', null, { stance: 'must-fix' })];
    // What is kept moves nothing; what is put right does.
    expect(['x', 'y', 'z'].map((key) => behindOf(view({ judgements }), key)?.share)).toEqual([86, 128, 86]);
    expect(hundredths(5)).toBe('0.05');
  });

  it('lets a draft be sent again once its attempt was taken back', () => {
    const sent = { attempts: [attempt(1), attempt(2)], submissions: [submission] };
    expect(view(sent)).toMatchObject({ state: { kind: 'waiting again' }, submission: { id: 's' } });
    const at = id('2026-11-02T09:30:00.000Z');
    const withdrawals = [{ attemptId: id('t2'), assignmentId: id('a'), at }];
    expect(view({ ...sent, withdrawals })).toMatchObject({
      state: { kind: 'open for another attempt' },
      submission: null,
    });
  });

  it('is done with what was sent where yet another attempt is open', () => {
    const draft = (attemptNumber: number) => ({
      id: id(`draft-${attemptNumber}`),
      assignmentId: id('a'),
      attemptNumber,
      startedFrom: null,
      bodyHash: id(FILE),
      files: [],
      post: null,
      items: {},
      paperFile: null,
      note: '',
      headVersionId: null,
      savedAt: id('2026-11-01T09:00:00.000Z'),
    });
    const sent = {
      assignments: [{ ...assignment, attemptsAllowed: 3 }],
      attempts: [attempt(1), attempt(2)],
      submissions: [submission],
      drafts: [draft(2)],
    };
    const marked = { ...sent, markings: [marking(1, '28.5', '5'), marking(2, '30', '6')] };
    expect(view(sent)).toMatchObject({ submission: { id: 's' }, draft: { id: 'draft-2' } });
    expect(view(marked)).toMatchObject({ submission: null, draft: null });
    // What is written since is towards the third.
    expect(view({ ...marked, drafts: [draft(2), draft(3)] })).toMatchObject({
      submission: null,
      draft: { id: 'draft-3' },
    });
  });

  it('numbers remarks in reading order', () => {
    const numbers = view({
      remarks: [
        remark('low', { targets: [{ kind: 'point', page: 2, rect: [0, 0, 1, 1], shape: [], drawn: true }] }),
        remark('x'),
        remark('all', { channel: 'overall', targets: [{ kind: 'whole' }] }),
      ],
    }).numberByRemark;
    expect([...numbers]).toEqual([
      ['x', 1],
      ['low', 2],
      ['all', 3],
    ]);
  });
});

describe('the response sheet', () => {
  const older = paperOf([
    { kind: 'paragraph', level: 0, text: 'This proves that blocking works. It rained a lot in May.' },
  ]);
  const newer = paperOf([
    { kind: 'paragraph', level: 0, text: 'This may show that blocking works. It rained a lot in May.' },
  ]);
  const query: Query = {
    id: id('q'),
    assignmentId: id('a'),
    about: { remarkId: id('z'), partId: null },
    person: 'K',
    text: 'Why?',
    putAt: null,
    answer: '',
    touched: false,
  };

  it('tells of each remark what was decided and what the text shows', () => {
    const full = view({
      remarks: ['u', 'v', 'w', 'x', 'y', 'z'].map((key) => remark(key)),
      judgements: [
        judged('u', 'act'),
        judged('v', 'act'),
        judged('w', 'decline', { note: 'It is outside the brief.' }),
        judged('x', null, { carry: true }),
        judged('z', 'ask'),
      ],
      tasks: [task('u', true), task('v', true)],
      queries: [query],
    });
    const found = answerFinderOf(older).find(
      newer,
      ['u', 'v'].map((key, index) => ({
        id: key,
        text: `Say why, ${key}.`,
        calls: true,
        passages: [[{ from: 5, to: 11 }], [{ from: 33, to: 50 }]][index],
      })),
    );
    const live = {
      draftId: 'd',
      paper: newer,
      textHash: id('t'),
      byRemark: new Map([...found].map(([key, { outcomes }]) => [key, outcomes[0]])),
      proposals: new Map([...found].map(([key, { proposals }]) => [key, proposals])),
      picks: new Map(),
    };
    const answers = answersOf(full, live);
    const marked = { paper: older, anchors: { u: { from: 5, to: 11 }, v: { from: 33, to: 50 } } };
    const sheet = entriesOf({ view: full, live, answers, marked, pageStarts: [0, 400] });
    expect(sheet.map(({ group, lines }) => [group, lines])).toEqual([
      ['done', ['Rewritten: paragraph 1, page 1.']],
      ['open', ['Done.']],
      ['not done', ['Not taken up.', 'Why: It is outside the brief.']],
      ['carried', ['Taken along to the next assignment.']],
      ['open', ['No decision was made.']],
      ['asked', ['To be asked.', 'My question: Why?']],
    ]);
    expect(sheet[0]).toMatchObject({ number: 1, said: 'Say why, u.', about: 'page 1, “proves”' });
    expect(sheet[0].shown?.before).toBe('This proves that blocking works.');
    expect(sheet[0].shown?.after.map(({ kind, text }) => [kind, text])).toEqual([
      ['kept', 'This '],
      ['added', 'may show'],
      ['kept', ' that blocking works.'],
    ]);
  });

  it('says of acts without a passage whether they were done', () => {
    const whole = remark('o', { channel: 'overall', targets: [{ kind: 'whole' }], criterionId: null });
    const sheet = (done: boolean) => {
      const full = view({ remarks: [whole], judgements: [judged('o', 'act')], tasks: [task('o', done)] });
      const answers = answersOf(full, null);
      const [entry] = entriesOf({ view: full, live: null, answers, marked: null, pageStarts: [] });
      return [entry.about, entry.lines];
    };
    expect(sheet(true)).toEqual(['the work as a whole', ['Done.']]);
    expect(sheet(false)).toEqual(['the work as a whole', ['No answer yet.']]);
  });
});

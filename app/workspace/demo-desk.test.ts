import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { recordsIn } from '#core/assignment/records.ts';
import type { DecimalString } from '#core/model/ids.ts';
import { fromDecimal, HUNDRED, multiply, toShown, ZERO, type Fraction } from '#core/scores/fraction.ts';
import type { FileFact, Marking } from '#core/model/facts.ts';
import type { AssignmentState } from '#core/line/assignment-state.ts';
import { readPaper } from '#formats/read-paper.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import { readVtt } from '#formats/sound/read-vtt.ts';
import { factOfWire } from '#formats/desk/wire.ts';
import { factsAfter } from '#server/desk/desk-state.ts';
import { buildDesk } from '#demo/build-desk.ts';
import {
  changedUnread,
  isGoneThrough,
  unreadIn,
  viewOf,
  type AssignmentView,
} from '#core/assignment/view.ts';
import { worthOf } from '#core/assignment/worth.ts';
import { decideMany, partRemark } from './commands/decide.ts';
import { markAllRead, markScoreSeen } from './commands/reading.ts';
import { takeInFacts } from './desk/facts.ts';
import { noteOutsideAttempt, removeOutsideAttempt } from './commands/own-attempts.ts';
import { dismissPromise, notePromise, proposedQueries, takeUpQuery } from './commands/queries.ts';
import { filesToFetch } from './desk/fetching.ts';
import { takeInReturnedFile, type ReturnedContent } from './desk/returned.ts';
import { workOutHere } from './state/example-sayings.ts';
import { openWorkspace, type Workspace } from './workspace.ts';

let workspace: Workspace;

/** The whole demo, taken in over the wire with every file, as a page would: what is told of each assignment. */

const NOW = Date.parse('2026-11-02T10:00:00Z');
const desk = await buildDesk('2026-11-02');
const points = (value: string) => fromDecimal(value as DecimalString);
const shown = (share: Fraction | undefined) => toShown(multiply(share ?? ZERO, HUNDRED), 1);
const records = () => workspace.records;

function view(id: string, at = NOW): AssignmentView {
  const found = viewOf(recordsIn(records()), id, at);
  if (found === null) throw new Error(`no assignment ${id}`);
  return found;
}

function bytesOf(hash: string): Uint8Array<ArrayBuffer> {
  const bytes = desk.files.get(hash);
  if (bytes === undefined) throw new Error(`no file ${hash}`);
  return new Uint8Array(bytes);
}

async function contentOf(fact: FileFact): Promise<ReturnedContent> {
  const bytes = bytesOf(fact.hash);
  switch (fact.role) {
    case 'remarks':
    case 'report': {
      if (Object.keys(fact.announced).length === 0) return { kind: 'remarks', marks: [] };
      const about = bytesOf(fact.aboutHash ?? '');
      const paper = await readPaper(about, null);
      return { kind: 'remarks', marks: await readRemarksOnto(bytes, { bytes: about, paper }, null) };
    }
    case 'recording':
      return { kind: 'recording' };
    case 'transcript':
      return { kind: 'transcript', cues: readVtt(bytes) };
    case 'marked':
    case 'quiz':
    case 'posts':
    case 'paper':
    case 'brief':
    case 'response':
      return { kind: 'paper', read: await readPaper(bytes, null) };
  }
}

async function takeInFile(marking: Marking, fact: FileFact): Promise<void> {
  await takeInReturnedFile(workspace, fact, bytesOf(fact.hash), await contentOf(fact), marking);
}

beforeAll(async () => {
  workspace = await openWorkspace({
    kind: 'student',
    deskId: 'demo',
    studentId: 'all',
    studentName: 'Ines Tarrow',
  });
  const state = { ...desk, version: 1, code: {}, sessions: [], attemptByKey: {} };
  const page = factsAfter(state as never, 0, '2026-11-02T10:00:00.000Z' as never);
  const facts = page.facts.map((raw) => factOfWire(JSON.parse(JSON.stringify(raw))));
  expect(facts.filter((one) => 'unread' in one)).toEqual([]);
  await takeInFacts(
    workspace,
    facts.flatMap((one) => ('fact' in one ? [one.fact] : [])),
    desk.rubrics,
    page.cursor,
  );
  for (let left = filesToFetch(records()); left.length > 0; left = filesToFetch(records()))
    await takeInFile(left[0].marking, left[0].fact);
  workOutHere(workspace, new Uint8Array(readFileSync('core/saying/saying.model')));
});
afterAll(() => workspace.close());

describe('the demo as the student sees it', () => {
  it('has an assignment in every state but the one that a draft makes', () => {
    const states = new Set([...records().assignments.keys()].map((id) => view(id).state.kind));
    const wanted: AssignmentState['kind'][] = [
      'not open yet',
      'open, nothing sent',
      'waiting to be marked',
      'part marked',
      'open for another attempt',
      'finished',
      'waiting again',
      'closed',
      'excused',
    ];
    expect([...states].sort()).toEqual(wanted.sort());
    expect(view('field-day').contradictions).toEqual(['score without attempt']);
  });

  it('counts every channel of the report, which is the busiest', () => {
    const counts = view('skarn-moss-report').tally.byChannel.map((c) => [c.channel, c.received, c.announced]);
    expect(counts).toEqual([
      ['overall', 1, 0],
      ['criterion', 4, 0],
      ['passage', 38, 0],
      ['recording', 1, 0],
      ['overlap', 8, 0],
    ]);
    const recording = view('skarn-moss-report').remarks.find(({ channel }) => channel === 'recording');
    expect(recording?.text).toContain('Your leaking dam');
  });

  it('knows promises that were kept and promises that were not', () => {
    const promised = (id: string) => view(id).promised.map(({ place, state }) => [place, state]);
    expect(promised('skarn-moss-report')).toEqual([['paper', 'kept']]);
    expect(promised('policy-brief-draft')).toEqual([['paper', 'kept']]);
    expect(promised('landscape-essay')).toEqual([['paper', 'kept']]);
    expect(promised('herbarium')).toEqual([['paper', 'missing']]);
    expect(promised('rain-diary')).toEqual([['recording', 'missing']]);
  });

  it('takes words in a text box, a Word copy and the overall comment for one remark', () => {
    const { remarks, doubles } = view('falling-head-lab');
    expect(remarks.map(({ channel }) => channel)).toEqual(['passage', 'passage', 'passage', 'overall']);
    expect([...doubles.values()].map((list) => list.length)).toEqual([1, 1, 1]);
  });

  it('shows what was changed after return, with what stood before', () => {
    const { scoreChange, remarks, score, lateness } = view('falling-head-lab');
    expect(scoreChange).toMatchObject({ before: { score: '15' }, after: { score: '17' }, seen: false });
    const overall = remarks.find(({ channel }) => channel === 'overall');
    expect(overall?.before).toMatchObject({ points: '15' });
    expect(overall?.text).toContain('Two points back');
    // 3 h 10 min after the due time, beyond the grace of 2 h: one started day.
    expect(lateness).toMatchObject({ hours: 3, days: 1, deduction: points('2') });
    expect(score).toEqual(points('15'));
  });

  it('reckons what an open attempt could still move in the course, by its policy', () => {
    const gains = ['skarn-moss-report', 'quiz-flow', 'core-log'].map((id) =>
      worthOf(recordsIn(records()), id),
    );
    // Reports weigh 50 of 100: 28.5 of 40 can become 34, that is 5.5 / 40 · 50 %.
    expect(shown(gains[0]?.gain)).toBe('6.9');
    // The quiz weighs 20: 10 of 12 can become 12.
    expect(shown(gains[1]?.gain)).toBe('3.3');
    expect(view('core-log')).toMatchObject({
      score: points('13.5'),
      reachable: points('16.75'),
    });
    expect(worthOf(recordsIn(records()), 'reading-journal')).toBeNull();
  });

  it('gives a peer’s remarks to the peer, and a machine’s to the machine', () => {
    const roles = (id: string) => new Set(view(id).remarks.map(({ author }) => author.role));
    expect([...roles('rain-diary')].sort()).toEqual(['instructor', 'peer']);
    expect([...roles('skarn-moss-report')].sort()).toEqual(['instructor', 'machine']);
  });

  it('links a draft stage and its final', () => {
    expect(view('policy-brief').stages.draft?.id).toBe('policy-brief-draft');
    expect(view('policy-brief-draft').stages.final?.id).toBe('policy-brief');
  });

  it('proposes to ask about broken promises', async () => {
    const herbarium = view('herbarium');
    const [proposed] = proposedQueries(herbarium);
    expect(proposed).toMatchObject({ person: 'Pascoe Wray' });
    expect(proposed.text).toContain('See my notes in the file');
    await takeUpQuery(workspace, herbarium.assignment.id, proposed);
    expect(records().queries.get(proposed.id)?.text).toBe(proposed.text);
    expect(await workspace.undoLast('herbarium')).toMatchObject({ kind: 'done' });
    expect(records().queries.has(proposed.id)).toBe(false);
  });

  it('sets a promise aside and takes it up again, and notes one that was made elsewhere', async () => {
    const [missing] = view('herbarium').promised;
    await dismissPromise(workspace, view('herbarium').assignment.id, missing, true);
    expect(view('herbarium').promised[0].state).toBe('dismissed');
    expect(proposedQueries(view('herbarium'))).toEqual([]);
    await workspace.undoLast('herbarium');
    await notePromise(workspace, view('core-log').assignment.id, 'He will send a drawing', 'recording');
    expect(view('core-log').promised.map(({ said, state }) => [said, state])).toEqual([
      ['He will send a drawing', 'missing'],
    ]);
    await workspace.undoLast('core-log');
    expect(view('core-log').promised).toEqual([]);
  });

  it('marks a whole assignment as read, a changed score with it, and takes that back', async () => {
    const before = unreadIn(view('falling-head-lab'));
    expect(before).toBe(4);
    expect(isGoneThrough(view('falling-head-lab'))).toBe(false);
    expect(changedUnread(view('falling-head-lab'))).toHaveLength(1);
    await markAllRead(workspace, view('falling-head-lab'));
    expect(unreadIn(view('falling-head-lab'))).toBe(0);
    expect(isGoneThrough(view('falling-head-lab'))).toBe(true);
    await workspace.undoLast('falling-head-lab');
    expect(unreadIn(view('falling-head-lab'))).toBe(before);
    const { scoreChange } = view('falling-head-lab');
    if (scoreChange !== null) await markScoreSeen(workspace, 'falling-head-lab', scoreChange);
    expect(view('falling-head-lab').scoreChange?.seen).toBe(true);
    expect(unreadIn(view('falling-head-lab'))).toBe(before);
  });

  it('parts two remarks that only look alike, and joins them again', async () => {
    const [double] = [...view('falling-head-lab').doubles.values()][0];
    await partRemark(workspace, double, true);
    expect(view('falling-head-lab').remarks).toHaveLength(5);
    await partRemark(workspace, double, false);
    expect(view('falling-head-lab').remarks).toHaveLength(4);
  });

  it('decides about many at once, undone as one', async () => {
    const { remarks } = view('landscape-essay');
    await decideMany(workspace, 'landscape-essay', remarks.slice(0, 5), 'act');
    expect(view('landscape-essay').countByDecision.act).toBe(5);
    expect(view('landscape-essay').tasks).toHaveLength(5);
    await decideMany(workspace, 'landscape-essay', remarks.slice(3, 7), 'carry');
    expect(view('landscape-essay').tally.decided).toBe(7);
    await workspace.undoLast('landscape-essay');
    await workspace.undoLast('landscape-essay');
    expect(view('landscape-essay').tally.decided).toBe(0);
    expect(view('landscape-essay').tasks).toEqual([]);
  });

  it('keeps an attempt that was handed in elsewhere, with its file', async () => {
    const bytes = new Uint8Array([1, 2, 3]);
    const file = { name: 'key.jpg', mediaType: 'image/jpeg', bytes };
    await noteOutsideAttempt(
      workspace,
      view('photo-key').assignment.id,
      '2026-10-20T10:00:00.000Z' as never,
      'on paper, to Pascoe Wray',
      file,
    );
    const { attempts, state } = view('photo-key');
    expect(state.kind).toBe('waiting to be marked');
    expect(attempts[0].attempt).toMatchObject({ outside: true, note: 'on paper, to Pascoe Wray' });
    expect(attempts[0].attempt.files[0]).toMatchObject({ name: 'key.jpg', size: 3 });
    await removeOutsideAttempt(workspace, attempts[0].attempt);
    expect(view('photo-key').state.kind).toBe('closed');
  });

  it('is as it was when the same facts come twice', async () => {
    const before = [...records().remarks.values()];
    await takeInFacts(workspace, desk.facts, desk.rubrics, desk.facts.length);
    expect([...records().remarks.values()]).toHaveLength(before.length);
    expect(view('falling-head-lab').scoreChange?.seen).toBe(true);
  });
});

import { fromDecimal } from '#core/scores/fraction.ts';
import type { DecimalString } from '#core/model/ids.ts';
import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { recordsIn } from '#core/assignment/records.ts';
import { buildDesk } from '#demo/build-desk.ts';
import type { Attempt, Fact, Marking, Receipt } from '#core/model/facts.ts';
import type { Submission } from '#core/model/work.ts';
import type { FileHash } from '#core/model/ids.ts';
import { exampleFile } from '#core/model/example.ts';
import { hashOf } from '#formats/hash.ts';
import type { MarkedPaper } from '#formats/marked-paper.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { viewOf } from '#core/assignment/view.ts';
import { markRead } from './reading.ts';
import { putAttempt, takeInFacts } from '../desk/facts.ts';
import { takeInReturnedFile } from '../desk/returned.ts';
import { takeInFiles, type FileToTake } from './take-in.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';

let workspace: Workspace;

const desk = await buildDesk('2026-11-02');
const NOW = Date.parse('2026-11-02T10:00:00Z');
const marking = desk.facts.flatMap((f) =>
  f.kind === 'marking' && f.value.files.length > 0 ? [f.value] : [],
)[0];
const fact = marking.files[0];
const bytes = new Uint8Array(desk.files.get(fact.hash) ?? []);
const pdf = await readMarkedPdf(bytes, null);
const records = () => workspace.records;
const theView = (assignmentId: string) => {
  const view = viewOf(recordsIn(records()), assignmentId, NOW);
  if (view === null) throw new Error(`no view of ${assignmentId}`);
  return view;
};
const id = (text: string) => text as never;

let run = 0;
beforeEach(async () => {
  workspace = await openWorkspace({
    kind: 'student',
    deskId: 'facts',
    studentId: String(run++),
    studentName: 'Ines',
  });
});
afterEach(() => workspace.close());

const takeAll = (facts: readonly Fact[] = desk.facts) =>
  takeInFacts(workspace, facts, desk.rubrics, facts.length);
const returned = () => takeInReturnedFile(workspace, fact, bytes, { kind: 'paper', read: pdf }, marking);

describe('facts of the desk', () => {
  it('are copied in, with a remark for overall words and for each criterion comment', async () => {
    await takeAll();
    expect(records().assignments.size).toBe(22);
    expect(await workspace.metaValue('cursor')).toBe(desk.facts.length);
    const own = [...records().remarks.values()].filter((r) => r.assignmentId === marking.assignmentId);
    expect(own.map((r) => r.channel).sort()).toEqual([
      'criterion',
      'criterion',
      'criterion',
      'criterion',
      'overall',
    ]);
    const { tally, awaited } = theView('skarn-moss-report');
    expect(tally.byChannel.find(({ channel }) => channel === 'passage')).toMatchObject({
      received: 0,
      announced: 38,
    });
    expect(awaited.map(({ fact: { role } }) => role)).toEqual([
      'marked',
      'recording',
      'transcript',
      'report',
    ]);
  });

  it('count the same when they come twice', async () => {
    await takeAll();
    const before = records().remarks.size;
    await takeAll();
    expect(records().remarks.size).toBe(before);
  });

  it('a correction stands beside what it corrects, and its words are unread again', async () => {
    await takeAll();
    const first = [...records().remarks.values()].find(
      (r) => r.channel === 'overall' && r.assignmentId === id('dip-well-lab'),
    );
    if (first === undefined) throw new Error('no overall words');
    await markRead(workspace, first, true);
    const old = desk.facts.find((f) => f.kind === 'marking' && f.value.assignmentId === id('dip-well-lab'));
    const corrected: Marking = {
      ...(old?.value as Marking),
      id: id('corrected'),
      score: id('19'),
      overall: 'One reading was off.',
    };
    await takeInFacts(
      workspace,
      [{ seq: 99, kind: 'marking', value: { ...corrected, at: id('2026-11-02T09:00:00.000Z') } }],
      [],
      99,
    );
    const view = viewOf(recordsIn(records()), 'dip-well-lab', NOW);
    expect(view?.score).toEqual(fromDecimal('19' as DecimalString));
    expect(view?.tally).toMatchObject({ received: 4, read: 0 });
    expect([...records().markings.keys()]).toContain('dip-well-lab-marking-1');
    expect(view?.remarks.find(({ channel }) => channel === 'overall')?.before).toMatchObject({
      text: first.text,
      points: '20',
    });
    expect(view?.scoreChange).toMatchObject({ before: { score: '20' }, after: { score: '19' }, seen: false });
  });

  it('bring the marked file’s remarks, its bytes and its text at once', async () => {
    await takeAll();
    await returned();
    const view = theView('skarn-moss-report');
    expect(view.tally).toMatchObject({ received: 43, read: 0 });
    expect(view.tally.byChannel.find(({ channel }) => channel === 'passage')).toMatchObject({
      received: 38,
      announced: 0,
    });
    expect(view.losses.map((loss) => loss.lost)).toEqual([100, 250, 200, 400, 200]);
    expect(await workspace.fileBytes(marking.files[0].hash)).toEqual(bytes);
    const paper = await workspace.readPaper(marking.files[0].hash);
    expect(Object.keys(paper?.anchors ?? {})).toHaveLength(38);
  });
});

describe('an attempt that arrived', () => {
  const receipt: Receipt = {
    id: 'HC-1',
    at: id('2026-11-02T10:00:00.000Z'),
    attempt: 2,
    attemptsAllowed: 2,
    rule: '',
    files: [],
  };
  const attempt: Attempt = {
    id: id('skarn-moss-report-attempt-2'),
    assignmentId: id('skarn-moss-report'),
    number: 2,
    at: receipt.at,
    files: [exampleFile({ role: 'paper' })],
    note: '',
    receipt,
    dueAt: null,
    outside: false,
    atKnown: true,
    post: null,
    items: {},
  };
  const submission = (key: string, hash: string): Submission => ({
    id: id(key),
    assignmentId: id('skarn-moss-report'),
    versionId: id('v'),
    note: '',
    kind: 'paper',
    files: [
      { role: 'paper', name: 'd.docx', mediaType: '', size: 1, hash: id(hash.repeat(64)) },
      { role: 'response', name: 'r.docx', mediaType: '', size: 1, hash: id('c'.repeat(64)) },
    ],
    post: null,
    items: {},
    at: receipt.at,
    state: { kind: 'waiting to go' },
  });

  it('settles the handing-in that it came from, and no other', async () => {
    await takeAll();
    await workspace.save(async (writing) => {
      await writing.put('submissions', submission('ours', 'a'));
      await writing.put('submissions', submission('other', 'b'));
    });
    await workspace.save((writing) => putAttempt(writing, attempt));
    expect(records().submissions.get('ours')?.state).toEqual({
      kind: 'received',
      attemptId: attempt.id,
      receipt,
    });
    expect(records().submissions.get('other')?.state).toEqual({ kind: 'waiting to go' });
    expect(viewOf(recordsIn(records()), 'skarn-moss-report', NOW)?.state.kind).toBe('waiting again');
  });
});

async function takeAlone(title: string, content: Uint8Array<ArrayBuffer>, read: MarkedPaper) {
  const file = fileToTake(await hashOf(content), content, { read });
  const [taken] = await takeInFiles(workspace, [{ assignmentId: null, title, files: [file] }]);
  return taken;
}

const fileToTake = (
  hash: FileHash,
  content: Uint8Array<ArrayBuffer>,
  more: Partial<FileToTake>,
): FileToTake => ({
  hash,
  name: 'paper',
  mediaType: 'application/pdf',
  bytes: content,
  role: 'marked',
  read: null,
  marks: [],
  aboutHash: null,
  transcript: null,
  ...more,
});

describe('a paper that was dropped in', () => {
  it('becomes an assignment of its own, and goes again with undo', async () => {
    const assignmentId = await takeAlone('My report', bytes, pdf);
    const view = viewOf(recordsIn(records()), assignmentId, NOW);
    expect(view?.assignment).toMatchObject({ title: 'My report', courseId: null, possible: null });
    expect(view).toMatchObject({ score: null, reachable: null, losses: [] });
    expect(view?.tally.received).toBe(38);
    expect(view?.latestMarking?.marker.name).toBe('Dr Aune Keld');
    expect(await workspace.undoLast(assignmentId)).toMatchObject({ kind: 'done' });
    expect([records().assignments.size, records().remarks.size, records().files.size]).toEqual([0, 0, 0]);
  });

  it('may be one that nobody marked', async () => {
    const plain = new Uint8Array(readFileSync('formats/pdf/samples/unmarked.pdf'));
    const assignmentId = await takeAlone('plain', plain, await readMarkedPdf(plain, null));
    const view = viewOf(recordsIn(records()), assignmentId, NOW);
    expect(view?.tally.received).toBe(0);
    expect(view?.latestMarking?.marker.name).toBe('The marker');
  });
});

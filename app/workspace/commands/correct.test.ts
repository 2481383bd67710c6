import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { recordsIn } from '#core/assignment/records.ts';
import { hashOf } from '#formats/hash.ts';
import { readPaper as readFile } from '#formats/read-paper.ts';
import { sample } from '#formats/samples/sample.ts';
import { viewOf } from '#core/assignment/view.ts';
import { joinPeople, moveFile, PEOPLE_HISTORY, placeRemark, setFileRole, setPersonRole } from './correct.ts';
import { decideRemark, noteOnRemark } from './decide.ts';
import { takeInFiles } from './take-in.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';

let workspace: Workspace;

const NOW = Date.parse('2026-11-02T10:00:00Z');
const records = () => workspace.records;
const view = (id: string) => viewOf(recordsIn(records()), id, NOW);

let run = 0;
beforeEach(async () => {
  workspace = await openWorkspace({
    kind: 'student',
    deskId: 'correct',
    studentId: String(run++),
    studentName: 'Ines Tarrow',
  });
});
afterEach(() => workspace.close());

async function take(name: string) {
  const bytes = sample(name);
  const hash = await hashOf(bytes);
  const read = await readFile(bytes, null);
  const file = {
    hash,
    name,
    mediaType: 'x',
    bytes,
    role: 'marked' as const,
    read,
    marks: [],
    aboutHash: null,
    transcript: null,
  };
  const [id] = await takeInFiles(workspace, [{ assignmentId: null, title: name, files: [file] }]);
  return { id, hash };
}
const stored = (hash: string) => {
  const file = records().files.get(hash);
  if (file === undefined) throw new Error('no such file');
  return file;
};

describe('a file that was put in the wrong place', () => {
  it('moves with its remarks and what was decided, and its own assignment goes; undo brings all back', async () => {
    const [dams, side] = [await take('dams.odt'), await take('sideways.pdf')];
    const [remark] = view(side.id)?.remarks ?? [];
    await decideRemark(workspace, remark, 'act');
    await noteOnRemark(workspace, remark, null, 'At well 4.');
    await moveFile(workspace, stored(side.hash), dams.id);
    expect(view(side.id)).toBeNull();
    const moved = view(dams.id);
    expect(moved?.remarks).toHaveLength(8);
    expect(moved?.papers.map(({ name }) => name)).toEqual(['dams.odt', 'sideways.pdf']);
    expect(moved?.tasks.map(({ task }) => task.title)).toEqual(['At which well?']);
    expect(moved?.judgements.get(remark.id)).toMatchObject({ assignmentId: dams.id, note: 'At well 4.' });
    expect(await workspace.undoLast(dams.id)).toMatchObject({ kind: 'done' });
    expect([view(dams.id)?.remarks.length, view(side.id)?.remarks.length]).toEqual([7, 1]);
    expect(view(side.id)?.tasks).toHaveLength(1);
  });

  it('is no longer a paper to read once it is said to be something else', async () => {
    const { id, hash } = await take('dams.odt');
    await setFileRole(workspace, stored(hash), 'attachment');
    expect([view(id)?.papers, view(id)?.remarks.length]).toEqual([[], 7]);
    await workspace.undoLast(id);
    expect(view(id)?.papers).toHaveLength(1);
  });
});

describe('people', () => {
  it('who are one go by one name, in the role that the student gave, until it is undone', async () => {
    const { id } = await take('dams.odt');
    const authors = () =>
      [...new Set(view(id)?.remarks.map(({ author }) => `${author.name}, ${author.role}`))].sort();
    await joinPeople(workspace, 'Lindiwe Strand', 'Pascoe Wray');
    await setPersonRole(workspace, 'Pascoe Wray', 'peer');
    expect(authors()).toEqual(['Dr Aune Keld, instructor', 'Pascoe Wray, peer']);
    await workspace.undoLast(PEOPLE_HISTORY);
    await workspace.undoLast(PEOPLE_HISTORY);
    expect(authors()).toEqual([
      'Dr Aune Keld, instructor',
      'Lindiwe Strand, instructor',
      'Pascoe Wray, instructor',
    ]);
  });
});

it('placing by hand keeps the anchor, and leaves a remark that has its place where it is', async () => {
  const { id, hash } = await take('dams.odt');
  const paper = await workspace.readPaper(hash);
  const [remark] = view(id)?.remarks ?? [];
  if (paper === null) throw new Error('the paper is not kept');
  const lost = { ...remark, targets: [{ kind: 'unplaced' as const, said: 'somewhere' }] };
  const target = { kind: 'whole' as const };
  await placeRemark(workspace, lost, target, { from: 0, to: 3, exactly: true }, paper);
  expect((await workspace.readPaper(hash))?.anchors[remark.id]).toEqual({ from: 0, to: 3, exactly: true });
  // What has a place already keeps it.
  expect(records().remarks.get(remark.id)?.targets).toEqual(remark.targets);
});

import { describe, expect, it } from 'vitest';
import {
  exampleAssignment,
  exampleAttempt,
  exampleFile,
  exampleMarking,
  exampleRemark,
  wordsTarget,
} from '#core/model/example.ts';
import type { Remark } from '#core/model/remark.ts';
import type { FileRole } from '#core/model/work.ts';
import { recordsIn } from '#core/assignment/records.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import { emptyRecords, type ReadPaper } from '../../workspace/storage/records.ts';
import {
  countIn,
  firstMaterial,
  labelOf,
  materialOf,
  materialsOf,
  paperShowing,
  papersIn,
  remarksIn,
} from './materials.ts';

const hash = (letter: string) => letter.repeat(64) as never;
const NOW = Date.parse('2026-11-02T10:00:00Z');

/** A view of one assignment with these remarks and files, given by letter and role. */
function view(remarks: Remark[], files: Partial<Record<string, FileRole>>): AssignmentView {
  const stored = Object.entries(files).map(([letter, role]) => ({
    hash: hash(letter),
    name: `${letter}.pdf`,
    mediaType: 'application/pdf',
    size: 1,
    cameAt: `2026-11-02T09:00:00.000Z` as never,
    origin: 'dropped' as const,
    assignmentId: 'a' as never,
    role: role ?? ('marked' as const),
    aboutHash: null,
  }));
  const found = viewOf(
    recordsIn({
      ...emptyRecords(),
      assignments: new Map([['a', exampleAssignment()]]),
      attempts: new Map([['a-1', exampleAttempt()]]),
      markings: new Map([['m', exampleMarking({ files: [exampleFile({ hash: hash('a') })] })]]),
      files: new Map(stored.map((file) => [file.hash as string, file])),
      remarks: new Map(remarks.map((remark) => [remark.id as string, remark])),
    }),
    'a',
    NOW,
  );
  if (found === null) throw new Error('no view');
  return found;
}

const on = (id: string, letter: string, more: object = {}) =>
  exampleRemark({
    id,
    text: `Say why the water rose at ${id}.`,
    fileHash: hash(letter),
    paperHash: hash(letter),
    targets: [wordsTarget(`words of ${id}`)],
    ...more,
  });
const ids = (shown: readonly { readonly remark: Remark }[]) => shown.map(({ remark }) => remark.id as string);

describe('materials of the reading place', () => {
  it('are those that something came in; the paper first', () => {
    const bare = view([], { a: 'marked' });
    expect(materialsOf(bare)).toEqual(['brief', 'paper', 'overall']);
    const quiz = view([on('q', 'b', { channel: 'question' })], { b: 'quiz' });
    expect(materialsOf(quiz)).toContain('quiz');
    const all = view(
      [on('p', 'a'), on('q', 'b', { channel: 'question' }), on('r', 'c', { channel: 'recording' })],
      {
        a: 'marked',
        b: 'quiz',
        c: 'recording',
      },
    );
    expect(materialsOf(all)).toEqual(['brief', 'paper', 'quiz', 'overall', 'recordings']);
    expect(firstMaterial(all)).toBe('paper');
    expect(countIn(all, 'quiz')).toEqual({ read: 0, received: 1 });
    expect(countIn(all, 'posts')).toBeNull();
  });

  it('hold each remark where its channel is read', () => {
    expect(materialOf(on('x', 'a', { channel: 'region' }))).toBe('paper');
    expect(materialOf(on('x', 'a', { channel: 'overlap' }))).toBe('overlap');
    const two = view([on('1', 'a'), on('2', 'b')], { a: 'marked', b: 'marked' });
    const [first, other] = papersIn(two, 'paper');
    expect(ids(remarksIn(two, 'paper', first))).toEqual(['1']);
    expect(ids(remarksIn(two, 'paper', other))).toEqual(['2']);
  });

  it('show overlap on what was sent, and only its matches', () => {
    const matched = view([on('1', 'a'), on('m', 'b', { channel: 'overlap' })], { a: 'marked', b: 'sent' });
    const [paper] = papersIn(matched, 'overlap');
    expect(paper.hash).toBe(hash('b'));
    expect(ids(remarksIn(matched, 'overlap', paper))).toEqual(['m']);
    expect(ids(remarksIn(matched, 'paper', paper))).toEqual([]);
  });

  it('show a remark of two copies in both, with the place that it has in each', () => {
    const same = { text: 'Say which ditch you mean.' };
    const copies = view(
      [on('1', 'a', same), on('2', 'b', { ...same, targets: [wordsTarget('other words')] })],
      {
        a: 'marked',
        b: 'marked',
      },
    );
    expect(copies.remarks).toHaveLength(1);
    const [first, other] = papersIn(copies, 'paper');
    expect(remarksIn(copies, 'paper', first)[0]).toMatchObject({ anchorId: '1' });
    const [shown] = remarksIn(copies, 'paper', other);
    expect(shown).toMatchObject({
      anchorId: '2',
      remark: { id: '1', targets: [{ quote: { exact: 'other words' } }] },
    });
    const anchor = { from: 3, to: 9, exactly: true };
    const paper = { anchors: { 2: anchor } } as unknown as ReadPaper;
    expect(paperShowing(paper, [shown])?.anchors[1]).toEqual(anchor);
    expect(paperShowing(paper, [])).toBe(paper);
    expect(paperShowing(null, [shown])).toBeNull();
  });

  it('show words about the whole in the paper once they were given a place there', () => {
    const overall = on('o', 'a', { channel: 'overall', fileHash: null });
    const placed = view([overall], { a: 'marked' });
    const [paper] = papersIn(placed, 'paper');
    expect(ids(remarksIn(placed, 'paper', paper))).toEqual(['o']);
    expect(ids(remarksIn(placed, 'overall', null))).toEqual(['o']);
  });

  it('call a picture a picture', () => {
    const boxes = view([on('b', 'a', { channel: 'region' })], { a: 'marked' });
    expect(labelOf(boxes, 'paper')).toBe('Picture');
    expect(labelOf(view([on('p', 'a')], { a: 'marked' }), 'paper')).toBe('In the paper');
  });
});

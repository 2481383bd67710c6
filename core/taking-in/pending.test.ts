import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as v from 'valibot';
import { FileHash } from '../model/ids.ts';
import { StoredFile } from '../model/work.ts';
import {
  aboutSubject,
  attachedTo,
  groupsOf,
  sentBeside,
  subjectsFor,
  twinsFor,
  withSubject,
  type PendingFile,
} from './pending.ts';

const hash = (digit: string) => v.parse(FileHash, digit.repeat(64));

function file(digit: string, given: Partial<PendingFile> = {}): PendingFile {
  return {
    hash: hash(digit),
    name: `file_${digit}.pdf`,
    holds: 'paper',
    marks: 0,
    title: '',
    text: '',
    aboutNames: [],
    likely: null,
    place: null,
    role: 'marked',
    about: null,
    ...given,
  };
}

function stored(digit: string, given: object): StoredFile {
  return v.parse(StoredFile, {
    hash: hash(digit),
    name: `here_${digit}.pdf`,
    mediaType: 'application/pdf',
    size: 10,
    role: 'marked',
    assignmentId: 'a',
    aboutHash: null,
    origin: 'dropped',
    cameAt: '2026-11-02T10:00:00.000Z',
    ...given,
  });
}

describe('a file inside another', () => {
  it('belongs with it, and is an attachment where it is a paper without remarks', () => {
    const host = file('1');
    expect(attachedTo(host, file('2'))).toMatchObject({ place: { beside: host.hash }, role: 'attachment' });
    expect(attachedTo(host, file('2', { marks: 1 })).role).toBe('marked');
    expect(attachedTo(host, file('2', { holds: 'remarks', role: 'remarks' })).role).toBe('remarks');
  });
});

describe('the unmarked copy of a paper', () => {
  const marked = file('1', { marks: 3, title: 'Peat', text: 'All about peat' });
  it('is looked for among the marked papers that came with it', () => {
    const plain = file('2');
    expect(twinsFor(plain, [marked, plain, file('3'), file('4', { holds: 'remarks' })])).toEqual([
      { id: marked.hash, names: [marked.name, 'Peat'], texts: ['All about peat'] },
    ]);
    expect(twinsFor(file('2', { marks: 1 }), [marked])).toEqual([]);
    expect(twinsFor(file('2', { place: { assignment: 'a' } }), [marked])).toEqual([]);
    expect(twinsFor(file('2', { holds: 'recording' }), [marked])).toEqual([]);
    expect(twinsFor(marked, [marked])).toEqual([]);
  });
  it('is what was sent', () => {
    const likely = { id: marked.hash, likeness: 0.9, because: 'text' as const };
    expect(sentBeside(file('2'), likely)).toMatchObject({
      role: 'sent',
      place: { beside: marked.hash },
      likely,
    });
  });
});

describe('what remarks are about', () => {
  const here = [
    stored('a', { name: 'old.pdf', cameAt: '2026-10-01T10:00:00.000Z' }),
    stored('b', { name: 'new.pdf', cameAt: '2026-11-01T10:00:00.000Z' }),
    stored('c', { name: 'brief.pdf', role: 'brief' }),
    stored('d', { name: 'lost.pdf', assignmentId: null }),
    stored('e', { name: 'talk.ogg', role: 'recording', cameAt: '2026-09-01T10:00:00.000Z' }),
  ];
  const remarks = file('1', { holds: 'remarks', name: 'marks.xfdf', role: 'remarks' });
  const paper = file('2', { name: 'Essay.pdf' });
  const sound = file('3', { holds: 'recording', name: 'Essay.ogg', role: 'recording' });

  it('is what came with them, then what is here, newest first', () => {
    const names = (one: PendingFile, with_: PendingFile[]) =>
      subjectsFor(one, with_, here).map(({ name }) => name);
    expect(names(remarks, [remarks, paper, sound])).toEqual([
      'Essay.pdf',
      'Essay.ogg',
      'new.pdf',
      'old.pdf',
      'talk.ogg',
    ]);
    expect(names(file('4', { holds: 'transcript' }), [paper, sound])).toEqual(['Essay.ogg', 'talk.ogg']);
  });

  it('is named in them, else has their name, else comes first', () => {
    const about = (one: PendingFile, with_: readonly PendingFile[] = [paper, sound]) =>
      withSubject(one, with_, here);
    expect(about({ ...remarks, aboutNames: ['OLD.docx'] })).toMatchObject({
      about: hash('a'),
      place: { assignment: 'a' },
    });
    expect(about({ ...remarks, name: 'essay.xfdf', aboutNames: ['nowhere.pdf'] }).about).toBe(paper.hash);
    expect(about(remarks)).toMatchObject({ about: paper.hash, place: { beside: paper.hash } });
    expect(about(file('4', { holds: 'transcript', name: 'talk.vtt' })).about).toBe(hash('e'));
    expect(withSubject(remarks, [remarks], [])).toEqual(remarks);
  });

  it('is for a recording the paper that came with it, unless it has its place', () => {
    expect(withSubject(sound, [sound, paper], here).place).toEqual({ beside: paper.hash });
    expect(withSubject(sound, [sound], here).place).toBeNull();
    const placed = { ...sound, place: { assignment: 'a' } };
    expect(withSubject(placed, [placed, paper], here)).toEqual(placed);
    expect(withSubject(paper, [paper], here)).toEqual(paper);
  });

  it('brings them to its place', () => {
    const [first] = subjectsFor(remarks, [], here);
    expect(aboutSubject(remarks, first)).toMatchObject({ about: hash('b'), place: { assignment: 'a' } });
  });
});

describe('files by the assignments that they go into', () => {
  it('share the one of the file beside which they are, that one first', () => {
    const host = file('1', { name: 'My_essay.final.pdf' });
    const beside = file('2', { place: { beside: host.hash } });
    const further = file('3', { place: { beside: beside.hash } });
    expect(groupsOf([further, beside, host])).toEqual([
      { assignmentId: null, title: 'My essay.final', files: [host, further, beside] },
    ]);
  });

  it('are those that are there, or new ones', () => {
    const one = file('1', { place: { assignment: 'a' } });
    const two = file('2');
    const three = file('3', { place: { beside: one.hash } });
    const four = file('4', { place: { assignment: 'a' } });
    expect(groupsOf([one, two, three, four])).toMatchObject([
      { assignmentId: 'a', files: [one, three, four] },
      { assignmentId: null, title: 'file 2', files: [two] },
    ]);
  });

  it('leave out none and take none twice, however they are put beside each other', () => {
    const digits = ['1', '2', '3', '4', '5'];
    const place = fc.oneof(
      fc.constant(null),
      fc.constantFrom('a', 'b').map((assignment) => ({ assignment })),
      fc.constantFrom(...digits, '9').map((digit) => ({ beside: hash(digit) })),
    );
    fc.assert(
      fc.property(fc.array(place, { minLength: 5, maxLength: 5 }), (places) => {
        const pending = places.map((one, n) => file(digits[n], { place: one }));
        const groups = groupsOf(pending);
        const all = groups.flatMap(({ files }) => files.map((one) => one.hash));
        expect(all.toSorted()).toEqual(pending.map((one) => one.hash).toSorted());
        const known = groups.flatMap(({ assignmentId }) => assignmentId ?? []);
        expect(new Set(known).size).toBe(known.length);
        for (const one of pending)
          if (one.place !== null && 'assignment' in one.place) {
            const { assignment } = one.place;
            expect(groups.find(({ assignmentId }) => assignmentId === assignment)?.files).toContain(one);
          }
      }),
    );
  });
});

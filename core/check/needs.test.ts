import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleAssignment } from '../model/example.ts';
import { departuresFrom, needsOf } from './needs.ts';

const asking = (requirements: Partial<ReturnType<typeof exampleAssignment>['requirements']>) =>
  exampleAssignment({ requirements: { wordsMin: null, wordsMax: null, fileTypes: [], ...requirements } });

const POST =
  'Lunn (p. 12) says that people talk. Ostrander found councils that had talked for years! I side with her, e.g. on rules.';

describe('what is asked of a text', () => {
  it('is counted', () => {
    const work = asking({ wordsMin: 10, wordsMax: 20, sentencesMin: 3, readings: ['Lunn', 'Odell'] });
    expect(needsOf(work, POST)).toEqual([
      { kind: 'words', count: 22, min: 10, max: 20, met: false },
      { kind: 'sentences', count: 3, min: 3, met: true },
      { kind: 'reading', name: 'Lunn', met: true },
      { kind: 'reading', name: 'Odell', met: false },
    ]);
  });

  it('is nothing where nothing is asked, and nothing is met by an empty text', () => {
    expect(needsOf(asking({}), POST)).toEqual([]);
    const work = asking({ wordsMin: 1, sentencesMin: 1, readings: ['Lunn'] });
    expect(needsOf(work, '').map(({ met }) => met)).toEqual([false, false, false]);
  });

  it('finds a reading of several words only where they stand together in a sentence', () => {
    const work = asking({ readings: ['Hask and Venn'] });
    expect(needsOf(work, 'Hask, Oddie and Venn (2018) write it.')[0].met).toBe(true);
    expect(needsOf(work, 'Hask wrote it. And Venn did not.')[0].met).toBe(false);
  });

  it('grows with the text: what is met stays met by one more sentence, but for too many words', () => {
    const work = asking({ wordsMin: 5, sentencesMin: 2, readings: ['Lunn'] });
    const sentence = fc.constantFrom('Lunn says it.', 'The water rose.', 'Why not?', 'It is so.');
    fc.assert(
      fc.property(fc.array(sentence), sentence, (list, more) => {
        const before = needsOf(work, list.join(' '));
        const after = needsOf(work, [...list, more].join(' '));
        before.forEach(({ met }, index) => expect(after[index].met || !met).toBe(true));
      }),
    );
  });
});

describe('departures', () => {
  const work = {
    ...asking({ wordsMin: 30, fileTypes: ['docx', 'pdf'] }),
    dueAt: '2026-11-01T18:00:00.000Z' as ReturnType<typeof exampleAssignment>['dueAt'],
    extendedTo: null,
  };
  const late = Date.parse('2026-11-02T10:00:00Z');

  it('are what is not met, lateness, and another kind of file than the first named', () => {
    const found = departuresFrom(work, { text: POST, files: ['a.DOCX', 'b.pdf'], atMs: late, isFirst: true });
    expect(found.map(({ kind }) => kind)).toEqual(['words', 'late', 'other file']);
    expect(found[2]).toMatchObject({ name: 'b.pdf', preferred: 'docx' });
  });

  it('are none for another attempt in time, or where an extension reaches', () => {
    const again = { text: null, files: ['a.docx'], atMs: late, isFirst: false };
    expect(departuresFrom(work, again)).toEqual([]);
    const extendedTo = '2026-11-05T18:00:00.000Z' as typeof work.dueAt;
    expect(departuresFrom({ ...work, extendedTo }, { ...again, isFirst: true })).toEqual([]);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { compareByRows, isUnchanged, sideOf, type ComparedRow } from './rows.ts';

const paper = (...lines: string[]) => paperOf(blocksOfLines(lines.join('\n')));
const shape = (rows: readonly ComparedRow[]) =>
  rows.map(
    ({ older, newer, pieces }) =>
      `${older === null ? '-' : 'a'}${newer === null ? '-' : 'b'} ${pieces.map(({ kind }) => kind).join()}`,
  );

const one = 'The water rose behind the first dam in the week after it was built.';
const two = 'Nobody had read the wells before that, and so nobody can say by how much.';
const three = 'A map of the bog hangs in the hut beside the ditch, with all wells on it.';

describe('two papers row by row', () => {
  it('puts paragraphs beside those that they became', () => {
    const { rows, counts } = compareByRows(
      paper(one, two, three),
      paper(one, two.replace('Nobody', 'No one'), three),
    );
    expect(shape(rows)).toEqual(['ab kept', 'ab removed,added,kept', 'ab kept']);
    expect(counts).toMatchObject({ removed: 1, added: 2 });
    expect(rows.map(isUnchanged)).toEqual([true, false, true]);
  });

  it('leaves no stray pieces of a paragraph that was split, or of two that were joined', () => {
    const split = compareByRows(paper(`${one} ${two}`, three), paper(one, two, three));
    expect(split.rows.map(({ older, newer }) => [older !== null, newer !== null])).toEqual([
      [true, true],
      [true, true],
    ]);
    const joined = compareByRows(paper(one, two, three), paper(`${one} ${two}`, three));
    expect(joined.rows).toHaveLength(2);
  });

  it('tells what came in, went and moved', () => {
    expect(shape(compareByRows(paper(one, three), paper(one, two, three)).rows)).toEqual([
      'ab kept',
      '-b added',
      'ab kept',
    ]);
    expect(shape(compareByRows(paper(one, two, three), paper(one, three)).rows)).toEqual([
      'ab kept',
      'a- removed',
      'ab kept',
    ]);
    const moved = compareByRows(paper(one, two, three), paper(two, three, one)).rows.flatMap(({ pieces }) =>
      pieces.map(({ kind }) => kind),
    );
    expect(moved).toContain('moved away');
    expect(moved).toContain('moved here');
  });

  it('puts a paragraph that was written anew beside the one it took the place of', () => {
    expect(
      shape(compareByRows(paper(one, two, three), paper(one, 'All else is open to everybody.', three)).rows),
    ).toEqual(['ab kept', 'ab removed,added,kept', 'ab kept']);
  });

  it('holds every word of both, in order, whatever they are', () => {
    const word = fc.constantFrom('dam', 'well', 'peat', 'rose', 'fell', 'the', 'a');
    const text = fc.array(
      fc.array(word, { minLength: 1, maxLength: 8 }).map((list) => list.join(' ')),
      { maxLength: 6 },
    );
    const bare = (words: string) => words.replaceAll(/\s+/g, ' ').trim();
    fc.assert(
      fc.property(text, text, (x, y) => {
        const [older, newer] = [paper(...x), paper(...y)];
        const { rows } = compareByRows(older, newer);
        const told = (side: 'older' | 'newer') =>
          bare(
            rows
              .map((row) =>
                sideOf(row, side)
                  .map((piece) => piece.text)
                  .join(''),
              )
              .join(' '),
          );
        expect(told('newer')).toBe(bare(newer.text));
        expect(told('older').split(' ').sort()).toEqual(bare(older.text).split(' ').sort());
        for (const side of ['older', 'newer'] as const) {
          const spans = rows.flatMap((row) => row[side] ?? []);
          spans.forEach((span, i) => {
            if (i > 0) expect(span.from).toBe(spans[i - 1].to + 1);
          });
        }
      }),
    );
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldedText, placesOfWords } from './find.ts';

const found = (text: string, wanted: string) =>
  placesOfWords(foldedText(text), wanted).map(({ from, to }) => text.slice(from, to));

describe('words in a text', () => {
  it('are found whatever their capitals, accents, hyphens and line ends', () => {
    const text = 'Groundwater, ground water and ground-\nwater; GROUNDWATER in the Évora fen';
    expect(found(text, 'groundwater')).toEqual([
      'Groundwater',
      'ground water',
      'ground-\nwater',
      'GROUNDWATER',
    ]);
    expect(found(text, 'evora')).toEqual(['Évora']);
    expect(found('ﬂow of the ﬁeld', 'field')).toEqual(['ﬁeld']);
  });

  it('are none where nothing is asked for or there is none', () => {
    expect(found('peat', ' - ')).toEqual([]);
    expect(found('peat', 'moss')).toEqual([]);
  });

  it('never overlap', () => {
    expect(found('aaaa', 'aa')).toEqual(['aa', 'aa']);
  });

  it('are those that a search from every place would find', () => {
    const letters = fc.string({
      unit: fc.constantFrom('a', 'b', 'A', ' ', '-', 'é', '𝒂', '\n'),
      maxLength: 40,
    });
    fc.assert(
      fc.property(
        letters,
        fc.string({ unit: fc.constantFrom('a', 'b', 'e'), minLength: 1, maxLength: 3 }),
        (text, wanted) => {
          const plain = (part: string) => foldedText(part).text;
          // Brute force: from each place on, the shortest stretch that reads as the words.
          const expected: [number, number][] = [];
          for (let from = 0; from < text.length;) {
            let hit = 0;
            for (let to = from + 1; hit === 0 && to <= text.length; to++)
              if (plain(text.slice(from, to)) === wanted && plain(text[from]) !== '') hit = to;
            if (hit === 0) from++;
            else {
              expected.push([from, hit]);
              from = hit;
            }
          }
          const spans = placesOfWords(foldedText(text), wanted);
          expect(spans.map(({ from }) => from)).toEqual(expected.map(([from]) => from));
          for (const { from, to } of spans) expect(plain(text.slice(from, to))).toBe(wanted);
        },
      ),
    );
  });
});

import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hashedWordsOf, wordKeysOf } from '../text/words.ts';
import { copiedDraft, copyings, madeCorpus, recallAndPrecision, type Copying } from './copied-text.ts';
import { findMatches, findMatchesAgain, identityOf, type WordMatch } from './find-matches.ts';
import { bytesOfIndex, indexSources } from './source-index.ts';

const hashes = (text: string) => hashedWordsOf(text).ids;
const matches = (draft: string, sources: readonly string[], least = 8, run = 5) =>
  findMatches(indexSources(sources.map(hashes), run), hashes(draft), least);
const wordsOfMatch = (text: string, from: number, to: number) => wordKeysOf(text).slice(from, to).join(' ');

const SOURCE =
  'Blocking the ditches raised the mean water table by eleven centimetres within two winters, and the sphagnum came back.';

describe('the matches of a draft', () => {
  it('are found word for word, whatever stands around them', () => {
    const draft = `As we saw, blocking the ditches raised the mean water table by eleven centimetres. Others differ.`;
    const [match, ...more] = matches(draft, ['Something else altogether stands here.', SOURCE]);
    expect(more).toEqual([]);
    expect(match).toMatchObject({ source: 1, equal: 11 });
    expect(wordsOfMatch(draft, match.draftFrom, match.draftTo)).toBe(
      'blocking the ditches raised the mean water table by eleven centimetres',
    );
    expect(wordsOfMatch(SOURCE, match.sourceFrom, match.sourceTo)).toBe(
      'blocking the ditches raised the mean water table by eleven centimetres',
    );
  });

  it('go on over a word that was replaced, put in or left out', () => {
    for (const draft of [
      'Blocking the ditches raised the average water table by eleven centimetres within two winters.',
      'Blocking the ditches raised the mean summer water table by eleven centimetres within two winters.',
      'Blocking the ditches raised the mean table by eleven centimetres within two winters.',
    ]) {
      const [match, ...more] = matches(draft, [SOURCE]);
      expect(more).toEqual([]);
      expect(match).toMatchObject({
        draftFrom: 0,
        draftTo: wordKeysOf(draft).length,
        sourceFrom: 0,
        sourceTo: 14,
      });
      expect(identityOf(match)).toBeGreaterThan(0.9);
    }
  });

  it('are none where fewer words than asked are shared, and are where fewer are asked', () => {
    const draft = 'They say that the mean water table by eleven rose.';
    expect(matches(draft, [SOURCE])).toEqual([]);
    expect(matches(draft, [SOURCE], 5)).toHaveLength(1);
    expect(matches('He saw the sphagnum came back.', [SOURCE], 4, 4)).toHaveLength(1);
  });

  it('take numbers, capitals and hyphens for what they are', () => {
    const one = 'The re-wetted plot held 12,000 litres more than the drained one did';
    expect(matches('THE REWETTED PLOT HELD 12000 LITRES MORE THAN THE DRAINED ONE DID', [one])).toHaveLength(
      1,
    );
  });

  it('are found in scripts without spaces and in other letters', () => {
    const thai = 'ปีที่แล้วน้ำขึ้นสูงมากในทุ่งนาและชาวนาต้องรอจนกว่าน้ำจะลดลงก่อนเริ่มปลูกข้าว';
    expect(matches(thai, [thai])[0]).toMatchObject({ draftFrom: 0, draftTo: wordKeysOf(thai).length });
    const greek = 'Η στάθμη του νερού ανέβηκε πολύ μέσα σε δύο χειμώνες μετά το φράξιμο';
    expect(matches(greek.toUpperCase(), [greek])).toHaveLength(1);
  });

  it('are none for a draft or sources without words', () => {
    expect(matches('', [SOURCE])).toEqual([]);
    expect(matches(SOURCE, [])).toEqual([]);
    expect(matches(SOURCE, ['', 'one two'])).toEqual([]);
  });

  it('end where their source ends', () => {
    const [first, second] = ['a b c d e f g h i j', 'k l m n o p q r s t'];
    expect(matches(`${first} ${second}`, [first, second])).toMatchObject([
      { source: 0, draftFrom: 0, draftTo: 10 },
      { source: 1, draftFrom: 10, draftTo: 20 },
    ]);
  });

  it('come to an end in a source that says one thing over and over', () => {
    const over = 'again and '.repeat(30_000);
    const found = matches('again and '.repeat(300), [over]);
    expect(found.some(({ draftFrom, draftTo }) => draftFrom === 0 && draftTo === 600)).toBe(true);
  });
});

const letters = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 90 });
/** A draft and sources that share pieces. */
const shared = fc
  .tuple(fc.array(letters, { minLength: 1, maxLength: 4 }), letters, fc.array(fc.nat(), { maxLength: 12 }))
  .map(([sources, filler, cuts]) => {
    const draft = cuts.flatMap((cut, i) => {
      const source = sources[cut % sources.length];
      const from = cut % (source.length + 1);
      return [...source.slice(from, from + 14), filler[i % Math.max(1, filler.length)] ?? 'z'];
    });
    return { sources: sources.map((words) => words.join(' ')), draft: draft.join(' ') };
  });

/** The longest common subsequence of two lists, by the book. */
function commonWords(x: readonly string[], y: readonly string[]): number {
  let row = new Array<number>(y.length + 1).fill(0);
  for (const one of x) {
    const next = [0];
    y.forEach((other, j) => next.push(one === other ? row[j] + 1 : Math.max(row[j + 1], next[j])));
    row = next;
  }
  return row[y.length];
}

/** Every word of a draft in a run of so many words that a source has too, by looking at all. */
function copiedByBruteForce(
  draft: readonly string[],
  sources: readonly (readonly string[])[],
  least: number,
) {
  const isCopied = draft.map(() => false);
  for (let i = 0; i + least <= draft.length; i++)
    for (const source of sources)
      for (let p = 0; p + least <= source.length; p++)
        if (draft.slice(i, i + least).every((word, k) => word === source[p + k]))
          isCopied.fill(true, i, i + least);
  return isCopied;
}

describe('of any draft and sources', () => {
  it('every match has the share of equal words that it states, and no fewer words than were asked', () => {
    fc.assert(
      fc.property(shared, ({ sources, draft }) => {
        for (const match of matches(draft, sources)) {
          const mine = wordKeysOf(draft).slice(match.draftFrom, match.draftTo);
          const theirs = wordKeysOf(sources[match.source]).slice(match.sourceFrom, match.sourceTo);
          expect(mine.length).toBeGreaterThanOrEqual(8);
          expect(theirs).toHaveLength(match.sourceTo - match.sourceFrom);
          expect(identityOf(match)).toBeGreaterThanOrEqual(0.8);
          // What is stated is there, in order.
          expect(commonWords(mine, theirs)).toBeGreaterThanOrEqual(match.equal);
          expect([mine[0], mine.at(-1)]).toEqual([theirs[0], theirs.at(-1)]);
        }
      }),
    );
  });

  it('every run of so many words that a source has too is found', () => {
    fc.assert(
      fc.property(shared, fc.constantFrom(5, 8, 11), ({ sources, draft }, least) => {
        const mine = wordKeysOf(draft);
        const truth = copiedByBruteForce(mine, sources.map(wordKeysOf), least);
        const isFound = mine.map(() => false);
        for (const { draftFrom, draftTo } of matches(draft, sources, least))
          isFound.fill(true, draftFrom, draftTo);
        expect(mine.filter((_, i) => truth[i] && !isFound[i])).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('the order of the sources doesn’t matter', () => {
    fc.assert(
      fc.property(shared, ({ sources, draft }) => {
        const named = (found: readonly WordMatch[], order: readonly string[]) =>
          found.map(({ source, ...place }) => JSON.stringify([order[source], place])).toSorted();
        const distinct = [...new Set(sources)];
        const reversed = distinct.toReversed();
        expect(named(matches(draft, reversed), reversed)).toEqual(named(matches(draft, distinct), distinct));
      }),
    );
  });

  it('looking again after a change covers what looking at all of it covers', () => {
    fc.assert(
      fc.property(shared, fc.nat(), fc.nat({ max: 12 }), letters, ({ sources, draft }, at, without, put) => {
        const index = indexSources(sources.map(hashes));
        const before = hashes(draft);
        const words = draft.split(' ');
        words.splice(at % (words.length + 1), without, ...put.slice(0, 9));
        const after = hashes(words.join(' '));
        const again = findMatchesAgain(
          index,
          { draft: before, matches: findMatches(index, before, 8) },
          after,
          8,
        );
        const covered = (found: readonly WordMatch[]) => {
          const is = new Uint8Array(after.length);
          for (const { draftFrom, draftTo } of found) is.fill(1, draftFrom, draftTo);
          return is.join('');
        };
        expect(covered(again)).toBe(covered(findMatches(index, after, 8)));
      }),
    );
  });
});

describe('passages copied from a made corpus', () => {
  const corpus = madeCorpus(120_000, 60, 11);
  const index = indexSources(corpus.sources.map((words) => hashes(words.join(' '))));
  const least: Readonly<Record<Copying, number>> = {
    verbatim: 1,
    reordered: 0.985,
    replaced: 0.985,
    'replaced evenly': 0.985,
    inserted: 0.985,
    'left out': 0.985,
  };

  it.each(copyings)('are found where they are %s, and hardly anything else', (copying) => {
    const draft = copiedDraft(corpus, 12_000, copying, 5);
    const { recall, precision } = recallAndPrecision(
      draft,
      findMatches(index, hashes(draft.words.join(' ')), 8),
    );
    expect(recall).toBeGreaterThanOrEqual(least[copying]);
    expect(precision).toBeGreaterThanOrEqual(0.995);
  });

  it('are indexed in few bytes', () => {
    expect(bytesOfIndex(index) / index.words.length).toBeLessThan(14);
  });
});

import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hashedWordsOf } from '../text/words.ts';
import { relations, switches } from '../model/source.ts';
import {
  inOrderOfCredit,
  percentOf,
  sharesOf,
  turned,
  usualCounting,
  wordsLeftOut,
  type Counting,
  type CountableMatch,
  type CountableSource,
} from './shares.ts';

const source = (id: string, relation: CountableSource['relation'] = 'published'): CountableSource => ({
  id,
  relation,
  isSetAside: false,
});
const match = (of: number, draftFrom: number, draftTo: number): CountableMatch => ({
  source: of,
  draftFrom,
  draftTo,
  isSetAside: false,
});
const all: Counting = { least: 8, without: new Set() };

function shares(
  matches: readonly CountableMatch[],
  sources: readonly CountableSource[],
  counting = all,
  mask: Uint8Array = new Uint8Array(100),
) {
  return sharesOf(mask.length, mask, inOrderOfCredit(matches, sources), sources, counting);
}

describe('shares', () => {
  it('count a word once, and credit it to the longest match, then by the source’s id', () => {
    expect(shares([match(0, 0, 20), match(1, 10, 40)], [source('a'), source('b')])).toEqual({
      words: 100,
      matched: 40,
      bySource: [10, 30],
    });
    expect(shares([match(0, 0, 20), match(1, 0, 20)], [source('b'), source('a')]).bySource).toEqual([0, 20]);
  });

  it('leave the brief’s words out for everybody, and own earlier work out by itself', () => {
    const sources = [source('a', 'brief'), source('b', 'fellow'), source('c', 'own')];
    const matches = [match(0, 0, 10), match(1, 0, 12), match(2, 5, 30)];
    expect(shares(matches, sources, usualCounting).matched).toBe(2);
    expect(shares(matches, sources, turned(usualCounting, 'own')).bySource).toEqual([0, 0, 20]);
    expect(shares(matches, sources).matched).toBe(30);
  });

  it('leave out quoted words, the list of references, short matches and what is set aside', () => {
    const text =
      'He said “the water came up within weeks near the dams” once.\nReferences\nAbery 2011 Dams of peat.';
    const words = hashedWordsOf(text);
    const quoted = [{ from: text.indexOf('“') + 1, to: text.indexOf('”') }];
    const mask = wordsLeftOut(words, quoted, { from: text.indexOf('References'), to: text.length });
    const matches = [match(0, 0, words.ids.length)];
    const sources = [source('a')];
    const matched = (counting: Counting) => shares(matches, sources, counting, mask).matched;
    expect(matched(all)).toBe(18);
    expect(matched(turned(all, 'quoted'))).toBe(9);
    expect(matched(turned(all, 'references'))).toBe(12);
    expect(matched({ ...all, least: 20 })).toBe(0);
    expect(shares(matches, [{ ...source('a'), isSetAside: true }], all, mask).matched).toBe(0);
    expect(shares([{ ...matches[0], isSetAside: true }], sources, all, mask).matched).toBe(0);
  });

  it('are told in tenths of a hundredth, and are 0 of nothing', () => {
    expect([percentOf(1, 3), percentOf(0, 0), percentOf(5, 5)]).toEqual([33.3, 0, 100]);
  });
});

const someSources = fc.array(
  fc.record({ relation: fc.constantFrom(...relations), isSetAside: fc.boolean() }),
  { minLength: 1, maxLength: 5 },
);
const some = fc
  .tuple(
    someSources,
    fc.array(fc.tuple(fc.nat(), fc.nat({ max: 80 }), fc.nat({ max: 30 }), fc.boolean()), { maxLength: 12 }),
    fc.uint8Array({ minLength: 120, maxLength: 120, max: 3 }),
    fc.subarray([...switches]),
    fc.integer({ min: 4, max: 25 }),
  )
  .map(([given, spans, mask, without, least]) => {
    const sources = given.map((one, i) => ({ ...one, id: `s${i}` }));
    const matches = spans.map(([of, from, length, isSetAside]) => ({
      source: of % sources.length,
      draftFrom: from,
      draftTo: from + 4 + length,
      isSetAside,
    }));
    return { sources, matches, mask: Uint8Array.from(mask), counting: { least, without: new Set(without) } };
  });

describe('of any matches', () => {
  it('the sources add up to the whole, and none is more than its matches', () => {
    fc.assert(
      fc.property(some, ({ sources, matches, mask, counting }) => {
        const { matched, bySource, words } = shares(matches, sources, counting, mask);
        expect(bySource.reduce((sum, one) => sum + one, 0)).toBe(matched);
        expect(matched).toBeLessThanOrEqual(words);
        expect(words).toBe(mask.length);
        bySource.forEach((credited, i) => {
          const own = new Set(
            matches
              .filter(({ source: of }) => of === i)
              .flatMap(({ draftFrom, draftTo }) =>
                Array.from({ length: draftTo - draftFrom }, (_, k) => draftFrom + k),
              ),
          );
          expect(credited).toBeLessThanOrEqual(own.size);
        });
      }),
    );
  });

  it('leaving more out never raises what is matched', () => {
    fc.assert(
      fc.property(some, fc.constantFrom(...switches), ({ sources, matches, mask, counting }, which) => {
        const more = counting.without.has(which) ? counting : turned(counting, which);
        const before = shares(matches, sources, { ...counting, without: less(more, which) }, mask);
        const after = shares(matches, sources, more, mask);
        expect(after.matched).toBeLessThanOrEqual(before.matched);
        expect(after.words).toBe(before.words);
      }),
    );
  });

  it('longer matches only never raise it, and neither does setting a source aside', () => {
    fc.assert(
      fc.property(some, ({ sources, matches, mask, counting }) => {
        // A brief’s short match that isn’t counted any more counts again for others who have its words.
        const here = { ...counting, without: less(counting, 'brief') };
        const { matched } = shares(matches, sources, here, mask);
        expect(
          shares(matches, sources, { ...here, least: here.least + 3 }, mask).matched,
        ).toBeLessThanOrEqual(matched);
        const aside = sources.map((one, i) => (i === 0 ? { ...one, isSetAside: true } : one));
        expect(shares(matches, aside, here, mask).matched).toBeLessThanOrEqual(matched);
      }),
    );
  });
});

function less({ without }: Counting, which: (typeof switches)[number]) {
  const others = new Set(without);
  others.delete(which);
  return others;
}

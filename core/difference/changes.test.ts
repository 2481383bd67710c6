import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countWords, newVocabulary, wordsOf } from '../text/words.ts';
import { changesIn } from './changes.ts';
import { differenceOf } from './difference.ts';

function changes(older: string, newer: string) {
  const vocabulary = newVocabulary();
  return changesIn(differenceOf(wordsOf(older, vocabulary), wordsOf(newer, vocabulary)));
}

describe('changes between two texts', () => {
  it('are told by kind, with where they stand in each', () => {
    const older = 'The wells were read at noon. Rain fell in May.';
    const newer = 'The wells were read at dusk. Rain fell in May and in June.';
    const { kept, added, removed, moved, changes: list } = changes(older, newer);
    expect([kept, added, removed, moved]).toEqual([9, 4, 1, 0]);
    expect(
      list.map(({ kind, old, new: now }) => [
        kind,
        older.slice(old.from, old.to),
        newer.slice(now.from, now.to),
      ]),
    ).toEqual([
      ['replaced', 'noon', 'dusk'],
      ['added', '', 'and in June'],
    ]);
  });

  it('tell a sentence that stands elsewhere as moved, once', () => {
    const one = 'Peat holds water for a very long time indeed.';
    const two = 'Dams of turf are cheap and are mended with a spade.';
    const { moved, added, removed, changes: list } = changes(`${one} ${two}`, `${two} ${one}`);
    expect([added, removed, list.map(({ kind }) => kind)]).toEqual([0, 0, ['moved']]);
    expect(moved).toBeGreaterThan(8);
  });

  it('hold all words that were added and removed, whatever the texts', () => {
    const word = fc.constantFrom('bog', 'Moor', 'wells', '12', 'été', '水', '😀', '.', ',', '\n');
    const text = fc.array(word, { maxLength: 40 }).map((list) => list.join(' '));
    fc.assert(
      fc.property(text, text, (older, newer) => {
        const { kept, added, removed, moved, changes: list } = changes(older, newer);
        expect(kept + moved + removed).toBe(countWords(older));
        expect(kept + moved + added).toBe(countWords(newer));
        const sum = (of: readonly string[]) => of.reduce((total, one) => total + countWords(one), 0);
        const own = list.filter(({ kind }) => kind !== 'moved');
        expect(sum(own.map(({ old }) => older.slice(old.from, old.to)))).toBe(removed);
        expect(sum(own.map(({ new: now }) => newer.slice(now.from, now.to)))).toBe(added);
      }),
    );
  });
});

import { describe, expect, it } from 'vitest';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { changedMatches, figuresOf, letterOf, markedPieces, shownMatches, withLetters } from './items.ts';
import { KnownSources, type ComparedSource } from './known-sources.ts';
import { usualCounting } from './shares.ts';

const DAM = 'a dam holds water back in the ditch and the level of the water goes up';
const WELL = 'each well is a plastic pipe with slots along its lower two thirds';
const source = (id: string, relation: ComparedSource['work']['relation']): ComparedSource => ({
  id,
  isAttempt: false,
  work: { title: id, authors: '', year: null, relation },
});
const sources = [source('dam', 'published'), source('well', 'brief')];
const paper = (...lines: string[]) => paperOf(blocksOfLines(lines.join('\n')));

function known(): KnownSources {
  const all = new KnownSources();
  all.add('dam', `Before. ${DAM}. After.`);
  all.add('well', `${WELL}.`);
  return all;
}
const shown = (text: ReturnType<typeof paper>, all = known()) =>
  shownMatches(all.compare('draft', text, sources), sources);

describe('the overlap of a draft', () => {
  const draft = paper('Introduction', `We saw that ${DAM}.`, `Then ${WELL} again.`);

  it('has its matches by letters in the order of the draft, with both places', () => {
    const all = known();
    const [a, b, ...more] = shown(draft, all);
    expect(more).toEqual([]);
    expect([a.letter, a.sourceId, b.letter, b.sourceId]).toEqual(['A', 'dam', 'B', 'well']);
    expect(draft.text.slice(a.place.from, a.place.to)).toBe(DAM);
    expect(all.sides('dam', DAM, a.sourcePlace).source).toEqual([{ text: DAM, same: true }]);
  });

  it('shows the words that differ on both sides', () => {
    const all = known();
    const [match] = shown(paper(`We saw that ${DAM.replace('back', 'up')}.`), all);
    const sides = all.sides('dam', DAM.replace('back', 'up'), match.sourcePlace);
    expect(sides.draft.filter(({ same }) => !same)).toEqual([{ text: 'up ', same: false }]);
    expect(sides.source.filter(({ same }) => !same)).toEqual([{ text: 'back ', same: false }]);
  });

  it('is counted with what each switch does to it, and with all left in', () => {
    const all = known();
    const overlap = all.compare('draft', draft, sources);
    const matches = shownMatches(overlap, sources);
    const figures = figuresOf(overlap, matches, sources, usualCounting, new Set());
    expect(figures).toMatchObject({
      matched: 16,
      all: { matched: 29 },
      bySource: [16, 0],
      effects: { quoted: 0, references: 0, brief: 13, own: 0 },
    });
    expect(figuresOf(overlap, matches, sources, usualCounting, new Set(['dam'])).matched).toBe(0);
    expect(figuresOf(overlap, matches, sources, usualCounting, new Set([matches[0].id])).matched).toBe(0);
  });

  it('tells what is gone from a newer draft and what came in, when only what changed was looked up', () => {
    const all = known();
    const before = shown(draft, all);
    const after = shown(paper('Introduction', 'We saw something else.', `Then ${WELL} again.`), all);
    expect(changedMatches(before, after).gone.map(({ letter }) => letter)).toEqual(['A']);
    expect([...changedMatches(before, after).fresh]).toEqual([]);
    expect([...changedMatches(after, before).fresh]).toEqual([before[0].id]);
  });

  it('counts an earlier attempt as own work, with no letter', () => {
    const all = known();
    all.add('first', draft.text);
    const more = [...sources, { ...source('first', 'own'), isAttempt: true }];
    const overlap = all.compare('draft', draft, more);
    const matches = shownMatches(overlap, more);
    expect(withLetters(matches).map(({ letter }) => letter)).toEqual(['A', 'B']);
    expect(matches).toHaveLength(3);
    const figures = figuresOf(overlap, matches, more, usualCounting, new Set());
    expect([figures.matched, figures.effects.own]).toEqual([16, overlap.words - 29]);
  });

  it('is shown in pieces that make the text again', () => {
    const matches = shown(draft);
    draft.blocks.forEach(({ text }, i) => {
      const span = { from: draft.starts[i], to: draft.starts[i] + text.length };
      const found = markedPieces(draft.text, span, matches);
      expect(found.map((piece) => piece.text).join('')).toBe(text);
    });
    const second = { from: draft.starts[1], to: draft.starts[1] + draft.blocks[1].text.length };
    expect(
      markedPieces(draft.text, second, matches).map((piece) => piece.in.map(({ letter }) => letter)),
    ).toEqual([[], ['A'], []]);
  });
});

it('letters go on after Z', () => {
  expect([0, 25, 26, 51, 52, 701, 702].map(letterOf)).toEqual(['A', 'Z', 'AA', 'AZ', 'BA', 'ZZ', 'AAA']);
});

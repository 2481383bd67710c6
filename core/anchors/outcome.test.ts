import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { paperOf, type Block } from '../paper/paper.ts';
import { locateQuote } from './locate.ts';
import { quoteOf } from '../text/quotation.ts';
import { squeeze } from '../text/squeeze.ts';
import { followPassages, followerOf } from './outcome.ts';

const paper = (...paragraphs: string[]) =>
  paperOf(paragraphs.map((text): Block => ({ kind: 'paragraph', level: 0, text })));

const OLD = paper(
  'Dip wells recorded a mean of 214 mm. This proves that blocking alone restored the bog. The wells by the cutting changed least.',
  'Rainfall was higher than the mean, which is of course a thing to be borne in mind by the reader. Well N7 was left out since its cap had come off.',
  'The dams of peat and turf are cheap and they can be repaired with a spade by anybody who has one.',
);

function follow(quote: string, ...paragraphs: string[]) {
  const at = OLD.text.indexOf(quote);
  const newer = paper(...paragraphs);
  const [outcome] = followPassages(OLD, newer, [{ from: at, to: at + quote.length }]);
  return { ...outcome, words: newer.text.slice(outcome.place.from, outcome.place.to) };
}
const [first, second, third] = OLD.blocks.map((block) => block.text);
const CLAIM = 'This proves that blocking alone restored the bog.';

describe('what became of a passage', () => {
  it('is untouched where everything else changed', () => {
    const result = follow(CLAIM, first.replace('214', '215'), 'All new here.', third);
    expect(result).toMatchObject({ kind: 'untouched', words: CLAIM, kept: 1 });
  });

  it('is reworded by one comma', () => {
    expect(follow(CLAIM, first.replace('that blocking', 'that, blocking'), second, third)).toMatchObject({
      kind: 'reworded',
      kept: 1,
    });
  });

  it('is reworded when it was written anew in its place, and shows the new words', () => {
    const anew = 'A wet summer may have raised them as well.';
    const result = follow(CLAIM, first.replace(CLAIM, anew), second, third);
    expect(result.kind).toBe('reworded');
    expect(result.words).toBe('A wet summer may have raised them as well');
  });

  it('is gone when it was deleted, and shows the gap', () => {
    const result = follow(CLAIM, first.replace(` ${CLAIM}`, ''), second, third);
    expect(result).toMatchObject({ kind: 'gone', words: '' });
    expect(result.place.from).toBe(first.indexOf(' This proves') - 1);
  });

  it('is moved when its sentence stands in another paragraph', () => {
    const result = follow(CLAIM, first.replace(` ${CLAIM}`, ''), second, `${third} ${CLAIM}`);
    expect(result).toMatchObject({ kind: 'moved', words: CLAIM.slice(0, -1) });
  });

  it('is unsure when two places fit equally', () => {
    const result = follow(CLAIM, first.replace(` ${CLAIM}`, ''), `${second} ${CLAIM}`, `${third} ${CLAIM}`);
    expect(result.kind).toBe('unsure');
  });

  it('is unsure when a long passage around it was replaced by other text', () => {
    const result = follow(
      'its cap',
      first,
      'Nothing of the old paragraph is left and quite other matters are told.',
      third,
    );
    expect(['unsure', 'gone']).toContain(result.kind);
  });

  const addedTo = (quote: string, ...paragraphs: string[]) => {
    const at = OLD.text.indexOf(quote);
    const newer = paper(...paragraphs);
    const [{ kind, added }] = followPassages(OLD, newer, [{ from: at, to: at + quote.length }]);
    return { kind, added: added.map(({ from, to }) => newer.text.slice(from, to)) };
  };

  it('is added to by a sentence right behind it or before it, and by words within its sentence', () => {
    const behind = 'A wet summer may have raised them as well.';
    expect(addedTo(CLAIM, first.replace(CLAIM, `${CLAIM} ${behind}`), second, third)).toEqual({
      kind: 'added to',
      added: [behind],
    });
    expect(addedTo(CLAIM, first.replace(CLAIM, `${behind} ${CLAIM}`), second, third)).toEqual({
      kind: 'added to',
      added: [behind],
    });
    const within = first.replace(
      'restored the bog.',
      'restored the bog in one season and without a control.',
    );
    expect(addedTo('This proves that blocking alone', within, second, third)).toEqual({
      kind: 'added to',
      added: ['in one season and without a control'],
    });
  });

  it('is added to by a paragraph of its own behind the last sentence of its own', () => {
    const own = 'Nothing else was changed in the basin during those weeks.';
    expect(addedTo('The wells by the cutting changed least', first, own, second, third)).toEqual({
      kind: 'added to',
      added: [own],
    });
  });

  it('is untouched where the sentence beside it was only written anew, or something came in elsewhere', () => {
    const rewritten = first.replace(
      'Dip wells recorded a mean of 214 mm.',
      'Some wells gave 200 mm on the whole.',
    );
    expect(addedTo(CLAIM, rewritten, second, third)).toEqual({ kind: 'untouched', added: [] });
    const far = `${third} Turf is dug by hand on this side of the moor.`;
    expect(addedTo(CLAIM, first, second, far)).toEqual({ kind: 'untouched', added: [] });
    const moved = first.replace(CLAIM, `${CLAIM} ${second.slice(second.indexOf('Well N7'))}`);
    expect(addedTo(CLAIM, moved, second.slice(0, second.indexOf(' Well N7')), third).added).toEqual([]);
  });

  it('keeps a gap a gap', () => {
    const gap = OLD.text.indexOf(' Well N7');
    const newer = paper(first, second, third);
    expect(followPassages(OLD, newer, [{ from: gap, to: gap }])[0]).toMatchObject({ kind: 'untouched' });
    const filled = paper(first, second.replace(' Well N7', ' It was wet. Well N7'), third);
    const [outcome] = followPassages(OLD, filled, [{ from: gap, to: gap }]);
    expect(outcome.kind).toBe('added to');
    expect(outcome.place.from).toBe(outcome.place.to);
  });

  it('follows a passage to nothing when all text is gone', () => {
    const at = OLD.text.indexOf(CLAIM);
    expect(followPassages(OLD, paper(), [{ from: at, to: at + CLAIM.length }])[0].kind).toBe('gone');
  });

  it('gives the same live as computed afresh, after any sequence of versions', () => {
    const sentence = fc.constantFrom(
      ...OLD.text.split(/(?<=\.)\s/),
      'A new sentence came in here today.',
      'Well N7',
      '',
      'the bog the bog the bog',
    );
    const version = fc.array(
      fc.array(sentence, { maxLength: 4 }).map((s) => s.join(' ')),
      { maxLength: 5 },
    );
    const passages = ['proves', CLAIM, 'which is of course a thing', 'turf'].map((words) => {
      const from = OLD.text.indexOf(words);
      return { from, to: from + words.length };
    });
    fc.assert(
      fc.property(fc.array(version, { minLength: 1, maxLength: 6 }), (versions) => {
        const live = followerOf(OLD);
        for (const paragraphs of versions) {
          const newer = paper(...paragraphs);
          expect(live.follow(newer, passages)).toEqual(followPassages(OLD, newer, passages));
        }
      }),
    );
  });

  it('always points inside the newer text', () => {
    const words = fc.array(fc.constantFrom('bog', 'proves', 'that', 'N7', 'wet', 'the'), { maxLength: 30 });
    fc.assert(
      fc.property(
        words,
        fc.nat({ max: OLD.text.length - 1 }),
        fc.nat({ max: 60 }),
        (newWords, from, length) => {
          const newer = paper(newWords.join(' '));
          const span = { from, to: Math.min(OLD.text.length, from + length) };
          const { place, kept } = followPassages(OLD, newer, [span])[0];
          expect(place.from).toBeLessThanOrEqual(place.to);
          expect(place.from).toBeGreaterThanOrEqual(0);
          expect(place.to).toBeLessThanOrEqual(newer.text.length);
          expect(kept).toBeGreaterThanOrEqual(0);
          expect(kept).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
});

describe('locateQuote', () => {
  it('finds any quotation again, by its context where the words stand twice', () => {
    fc.assert(
      fc.property(fc.nat({ max: OLD.text.length - 12 }), fc.integer({ min: 1, max: 40 }), (from, length) => {
        const span = { from, to: Math.min(OLD.text.length, from + length) };
        const quote = quoteOf(OLD.text, span);
        if (quote.exact.trim() !== quote.exact) return;
        const found = locateQuote(squeeze(OLD.text), quote, from);
        expect(found).toEqual(span);
      }),
    );
  });

  it('finds nothing for words that are not there', () => {
    expect(locateQuote(squeeze(OLD.text), { exact: 'sphagnum lawn', prefix: '', suffix: '' }, 0)).toBeNull();
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asId, PartId } from '../model/ids.ts';
import { exampleJudgement, exampleRemark } from '../model/example.ts';
import type { JudgedPart } from '../model/work.ts';
import { exampleSaying } from './example.ts';
import { cuttableWords, joinAt, partsOf, partsToKeep, splitAt } from './remark-parts.ts';

const text = 'A fine opening. But “name” the source, and cut the last line.';
const remark = exampleRemark({ id: 'r', text });
let made = 0;
const newId = () => asId(PartId, `p${made++}`);
const kept = () => partsToKeep(text, [], 'fix', newId);
const split = (parts: readonly JudgedPart[], at: number) =>
  splitAt(parts, text, at, { id: newId(), before: 'praise', after: 'fix' });
const wordsOf = (parts: readonly JudgedPart[]) => parts.map(({ quote }) => quote);

describe('parts of a remark', () => {
  it('are derived where it says different things, and none where it says one', () => {
    const saying = exampleSaying('fix');
    const [part] = saying.parts;
    const two = {
      ...saying,
      parts: [
        { ...part, to: 15, stance: 'praise' as const },
        { ...part, from: 16, to: text.length },
      ],
    };
    const understood = (of: typeof saying) => ({ judgements: new Map(), sayings: new Map([['r', of]]) });
    expect(partsOf(remark, understood(saying))).toEqual([]);
    expect(partsOf(remark, understood(two)).map(({ id, stance }) => [id, stance])).toEqual([
      [null, 'praise'],
      [null, 'fix'],
    ]);
  });

  it('are as the student left them, and found again where the remark was changed before them', () => {
    const parts = split(kept(), text.indexOf('But'));
    const judgement = exampleJudgement('r', { parts });
    const found = (now: string) =>
      partsOf(exampleRemark({ id: 'r', text: now }), {
        judgements: new Map([['r', judgement]]),
        sayings: new Map(),
      }).map(({ from, to }) => now.slice(from, to));
    expect(found(text)).toEqual(['A fine opening.', 'But “name” the source, and cut the last line.']);
    expect(found(`Ines: ${text}`)).toEqual(found(text));
    expect(found('A fine opening. Name the source.')).toEqual(['A fine opening.']);
  });

  it('may begin at any word, opening marks with it', () => {
    expect(cuttableWords(text).map(({ from, to }) => text.slice(from, to))).toEqual([
      'A ',
      'fine ',
      'opening. ',
      'But ',
      '“name” ',
      'the ',
      'source, ',
      'and ',
      'cut ',
      'the ',
      'last ',
      'line.',
    ]);
  });

  it('split in two of which the first stays what it was, and join again with what was made of either', () => {
    const decided = kept().map((part) => ({ ...part, decision: 'act' as const, note: 'Mine.' }));
    const two = split(decided, text.indexOf('But'));
    expect(two.map(({ decision, note, said }) => [decision, note, said])).toEqual([
      ['act', 'Mine.', 'praise'],
      [null, '', 'fix'],
    ]);
    const noted = two.map((part, i) => (i === 1 ? { ...part, note: 'Yours.', carry: true } : part));
    const [one, ...rest] = joinAt(noted, text, text.indexOf('But'), 'polish');
    expect(rest).toEqual([]);
    expect(one).toMatchObject({
      quote: text,
      said: 'polish',
      decision: 'act',
      carry: true,
      note: 'Mine.\nYours.',
    });
    expect(one.id).toBe(decided[0].id);
  });

  it('cover every word once, whatever is split and joined, and no id comes twice', () => {
    const starts = cuttableWords(text).slice(1);
    fc.assert(
      fc.property(fc.array(fc.nat({ max: starts.length - 1 }), { maxLength: 12 }), (steps) => {
        let parts = kept();
        const used = new Set(parts.map(({ id }) => id));
        for (const step of steps) {
          const { from } = starts[step];
          const isBegin = parts.some((part) => part.from === from);
          parts = isBegin ? joinAt(parts, text, from, 'fix') : split(parts, from);
          if (!isBegin) {
            const fresh = parts.find((part) => part.from === from);
            expect(used.has(fresh?.id ?? asId(PartId, 'none'))).toBe(false);
            if (fresh !== undefined) used.add(fresh.id);
          }
        }
        expect(wordsOf(parts).join(' ').split(/\s+/)).toEqual(text.split(/\s+/));
        for (const { from, to, quote } of parts) expect(text.slice(from, to)).toBe(quote);
      }),
    );
  });
});

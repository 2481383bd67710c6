import { describe, expect, it } from 'vitest';
import type { Requirement } from '../model/look.ts';
import { paperOf, type Block } from '../paper/paper.ts';
import briefs from './planted/briefs.json' with { type: 'json' };
import { asksOf, contradicting, metBy, requirementsIn } from './requirement.ts';

const told = (asks: { readonly kind: string }) =>
  JSON.stringify(
    Object.entries(asks)
      .filter(([name]) => name !== 'withoutReferences')
      .sort(),
  );

describe('what a brief asks for', () => {
  it('is read out of sentences in other words', () => {
    let right = 0;
    let read = 0;
    let wanted = 0;
    const wrong: string[] = [];
    for (const { text, asks = [] } of briefs) {
      const found = asksOf(text).map(told);
      const expected = asks.map(told);
      const same = found.filter((one) => expected.includes(one));
      right += same.length;
      read += found.length;
      wanted += expected.length;
      if (same.length < found.length || same.length < expected.length)
        wrong.push(`${text} → ${found.join(' ')}`);
    }
    console.log(`briefs: precision ${right / read}, recall ${right / wanted}`, wrong);
    expect(right / read).toBeGreaterThanOrEqual(0.95);
    expect(right / wanted).toBeGreaterThanOrEqual(0.8);
  });

  it('keeps the sentence that says so, and what is not counted', () => {
    const brief = 'Hand in on Friday. Write 2,000 to 3,300 words, not counting the references. Good luck!';
    expect(requirementsIn(brief)).toEqual([
      { from: 19, to: 75, asks: { kind: 'words', min: 2000, max: 3300, withoutReferences: true } },
    ]);
  });

  it('that contradicts itself is told', () => {
    const asks = requirementsIn('Write at least 900 words. Keep it under 600 words.').map((one) => one.asks);
    expect(contradicting(asks)).toEqual([asks[0], asks[1]]);
    expect(contradicting(asks.slice(1))).toBeNull();
  });
});

describe('whether a text has what is asked', () => {
  const block = (text: string, kind: Block['kind'] = 'paragraph'): Block => ({ kind, level: 1, text });
  const none = { figures: 1, tables: 0, uncited: 0 };
  const paper = paperOf([
    block('Wells', 'heading'),
    block('Ines Roth'),
    block('3 Nov'),
    block(
      'A well was read each day, and what it told was put down in the book that hung beside the door of the hut. It rained.',
    ),
    block('2. Conclusions', 'heading'),
    block('It was wet (Hask, 2018).'),
    block('Bibliography', 'heading'),
    block('Hask, L. (2018) A first season.'),
  ]);
  const met = (asks: Requirement) => metBy(paper, asks, none);
  it('is counted or looked for', () => {
    expect(met({ kind: 'words', min: null, max: 40, withoutReferences: true })).toEqual({
      met: true,
      count: 38,
    });
    expect(met({ kind: 'words', min: null, max: 40, withoutReferences: false })).toEqual({
      met: false,
      count: 45,
    });
    expect(met({ kind: 'sources', min: 2 })).toEqual({ met: false, count: 1 });
    expect(met({ kind: 'figures', min: 1 }).met).toBe(true);
    expect(met({ kind: 'tables', min: 1 }).met).toBe(false);
    expect(met({ kind: 'section', name: 'references' }).met).toBe(true);
    expect(met({ kind: 'section', name: 'conclusion' }).met).toBe(true);
    expect(met({ kind: 'section', name: 'abstract' }).met).toBe(false);
    expect(met({ kind: 'title block' }).met).toBe(true);
    expect(met({ kind: 'pages', min: 1, max: 2 }).met).toBeNull();
    expect(met({ kind: 'quotations cited' }).met).toBe(true);
  });
});

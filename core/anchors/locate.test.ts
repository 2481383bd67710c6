import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { TextQuote } from '../model/remark.ts';
import { locateQuote } from './locate.ts';
import { quoteOf } from '../text/quotation.ts';
import { squeeze } from '../text/squeeze.ts';
import type { Span } from '../text/span.ts';

/** Looks at every place, one character after the other. */
function everyPlace(text: string, { exact, prefix, suffix }: TextQuote, near: number): Span | null {
  const bare = (part: string) => part.replace(/\s/g, '');
  const { text: all, at } = squeeze(text);
  const [words, before, after] = [bare(exact), bare(prefix), bare(suffix)];
  let best: { span: Span; score: number; distance: number } | null = null;
  for (let i = 0; i + words.length <= all.length; i++) {
    if (!all.startsWith(words, i)) continue;
    let score = 0;
    for (let k = 1; k <= before.length && i - k >= 0 && all[i - k] === before.at(-k); k++) score++;
    for (let k = 0; k < after.length && all[i + words.length + k] === after[k]; k++) score++;
    const span = { from: at[i], to: at[i + words.length - 1] + 1 };
    const distance = Math.abs(span.from - near);
    if (best === null || score > best.score || (score === best.score && distance < best.distance))
      best = { span, score, distance };
  }
  return best?.span ?? null;
}

it('finds the place that looking at every one finds, in long texts that repeat themselves too', () => {
  const piece = fc.string({ unit: fc.constantFrom('a', 'b', ' '), minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(
      fc.array(piece, { minLength: 1, maxLength: 12 }),
      fc.integer({ min: 1, max: 900 }),
      fc.nat(),
      fc.integer({ min: 1, max: 9 }),
      fc.nat(),
      (pieces, times, start, length, far) => {
        const text = Array.from({ length: times }, (_, i) => pieces[i % pieces.length]).join(
          pieces.length % 2 === 0 ? '' : ' ',
        );
        const from = start % text.length;
        const quote = quoteOf(text, { from, to: Math.min(text.length, from + length) });
        fc.pre(quote.exact.trim() !== '');
        for (const near of [from, far % (2 * text.length), -50])
          expect(locateQuote(squeeze(text), quote, near)).toEqual(everyPlace(text, quote, near));
      },
    ),
    { numRuns: 200 },
  );
});

it('takes a far place whose context agrees before a near one whose context does not', () => {
  const filler = 'reed and sedge '.repeat(1200);
  const text = `the dip well rose. ${filler}the dip well fell.`;
  const from = text.lastIndexOf('dip well');
  const quote = quoteOf(text, { from, to: from + 'dip well'.length });
  expect(locateQuote(squeeze(text), quote, 0)).toEqual({ from, to: from + 'dip well'.length });
});

import { referenceListOf } from '../citations/references.ts';
import type { Paper } from '../paper/paper.ts';
import type { Span } from '../text/span.ts';
import { lineAt, type LookLine } from './line.ts';

/** What is numbered in a paper and named in its text. */
export type NumberedKind = 'figure' | 'table';

/** A caption with its number. */
export interface Caption extends Span {
  readonly kind: NumberedKind;
  readonly number: number;
  /** The block that it stands in. */
  readonly block: number;
}

const NUMBER = String.raw`(\d{1,3}|[IVX]{1,5})`;
const CAPTION = new RegExp(
  String.raw`^(Figures?|Figs?\.?|Tables?|FIGURE|TABLE|FIG\.?)\s*${NUMBER}\s*[.:–—|]`,
  'u',
);
const NAMED = new RegExp(
  String.raw`\b(Figures?|Figs?\.|Tables?|FIGURE|TABLE|figures?|figs?\.|tables?)\s*${NUMBER}((?:[a-z]\b)?(?:\s*(?:,|and|&|to|[-–])\s*\d{1,3}\b(?!\s*%|\.\d))*)`,
  'gu',
);
/** "Figure 2 of Bellamy", "in Table 3 there": another work's. */
const OF_ANOTHER =
  /^[a-z]?\s+(?:of|in|by|from)\s+(?:\(?\p{Lu}|(?:his|her|their|the (?:report|book|paper|article|study))\b)/u;
/** Within brackets behind a year or a semicolon: "(Dacre, 2014, Figure 3)". */
const WITHIN_CITATION = /\([^()]*(?:1[5-9]|20)\d\d[a-z]?[^()]*$/u;
const ROMAN: Readonly<Record<string, number>> = { I: 1, V: 5, X: 10 };

function valueOf(number: string): number {
  if (/^\d/.test(number)) return Number(number);
  const digits = [...number.matchAll(/./g)].map(([digit]) => ROMAN[digit]);
  return digits.reduce((sum, digit, i) => sum + (digit < (digits[i + 1] ?? 0) ? -digit : digit), 0);
}

const kindOf = (word: string): NumberedKind => (/^t/i.test(word) ? 'table' : 'figure');

/** The captions of a paper, in order. */
export function captionsOf({ blocks, starts }: Paper): Caption[] {
  return blocks.flatMap((block, i) => {
    const found = block.kind === 'heading' || block.cell !== undefined ? null : CAPTION.exec(block.text);
    if (found === null) return [];
    const from = starts[i];
    return [
      { kind: kindOf(found[1]), number: valueOf(found[2]), block: i, from, to: from + block.text.length },
    ];
  });
}

/** Where a text names a figure or table: each number of "Figures 2 and 3" by itself. */
export function namedIn(text: string): (Span & { readonly kind: NumberedKind; readonly number: number })[] {
  return [...text.matchAll(NAMED)].flatMap(({ 0: words, 1: word, 2: first, 3: further, index }) => {
    const place = { from: index, to: index + words.length };
    if (
      OF_ANOTHER.test(text.slice(place.to)) ||
      WITHIN_CITATION.test(text.slice(Math.max(0, index - 160), index))
    )
      return [];
    const numbers = [valueOf(first)];
    for (const { 1: joint, 2: more } of further.matchAll(/(,|and|&|to|[-–])\s*(\d{1,3})/g)) {
      const last = numbers[numbers.length - 1];
      if (/to|[-–]/.test(joint))
        for (let n = last + 1; n < Number(more) && n < last + 20; n++) numbers.push(n);
      numbers.push(Number(more));
    }
    return numbers.map((number) => ({ ...place, kind: kindOf(word), number }));
  });
}

/** Figures and tables that are named and not there, and those that are there and never named. */
export function numberedLines(paper: Paper): LookLine[] {
  const { text } = paper;
  const captions = captionsOf(paper);
  const list = referenceListOf(paper);
  const isCaption = (at: number) => captions.some(({ from, to }) => at >= from && at < to);
  const named = namedIn(text).filter(
    ({ from }) =>
      (list === null || from < list.from || from >= list.to) && !captions.some((one) => one.from === from),
  );
  const missing = named.filter(
    (one) => !captions.some(({ kind, number }) => kind === one.kind && number === one.number),
  );
  const unnamed = captions.filter(
    ({ kind, number }) =>
      !named.some((one) => one.kind === kind && one.number === number && !isCaption(one.from)),
  );
  return [
    ...missing.map((one) => lineAt('not there', text, one, `${one.kind} ${one.number}`)),
    ...unnamed.map((one) => lineAt('never named', text, one, `${one.kind} ${one.number}`)),
  ];
}

import { TERM_BY_NAME, termOf, type Term } from './terms.ts';

/** An explained word in a text. */
export interface FoundTerm {
  readonly from: number;
  readonly to: number;
  readonly term: Term;
}

/** Plain words that are terms only by themselves, as a whole remark: "evidence" in a sentence needs no explanation. */
const ONLY_ALONE = new Set(
  'delete article control reference claim evidence summary analysis paragraph spelling punctuation units axis caption scope tense expand tone support more counter jump leap sign op ref gen par form syn unit cap cite'.split(
    ' ',
  ),
);
/** Shorter names are abbreviations, which count only alone or at the beginning. */
const LONG_ENOUGH = 5;

/** The terms in a remark: as the whole of it or set off at its beginning; longer ones anywhere. Each once. */
export function termsIn(text: string, own: readonly Term[] = []): FoundTerm[] {
  const names = [...TERM_BY_NAME, ...own.map((term) => [term.term.toLowerCase(), term] as const)];
  const found: FoundTerm[] = [];
  const first = /^\s*([^\s,;:]+?)[.:]?(?=[\s,;:]|$)/u.exec(text);
  const add = (from: number, to: number, term: Term) => {
    const isKnown = found.some((one) => one.term === term || (from < one.to && one.from < to));
    if (!isKnown) found.push({ from, to, term });
  };
  const whole = text
    .trim()
    .replace(/[.!:]+$/, '')
    .toLowerCase();
  const alone = names.find(([name]) => name === whole)?.[1];
  if (alone !== undefined) {
    const from = text.length - text.trimStart().length;
    add(from, from + whole.length, alone);
  } else if (first !== null && /[.:]/.test(text.charAt(first.index + first[0].length - 1))) {
    const term = termOf(first[1]);
    const from = first[0].length - first[0].trimStart().length;
    if (term !== null) add(from, from + first[1].length, term);
  }
  for (const [name, term] of names) {
    if (name.length < LONG_ENOUGH || ONLY_ALONE.has(name)) continue;
    const at = new RegExp(`(?<![\\p{L}])${escaped(name)}(?![\\p{L}])`, 'iu').exec(text);
    if (at !== null) add(at.index, at.index + name.length, term);
  }
  return found.sort((x, y) => x.from - y.from);
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
}

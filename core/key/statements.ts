import type { Remark } from '../model/remark.ts';
import type { MarkKey, MarkSign } from '../model/work.ts';
import { shortMarkIn } from '../saying/abbreviations.ts';
import { COLOR_WORDS, colorMeant } from './colors.ts';

/** Kinds of mark by the words for them. */
const MARK_WORDS: readonly (readonly [RegExp, readonly string[]])[] = [
  [/^(?:highlight|highlights|highlighting|highlighted)$/i, ['highlight']],
  [/^(?:underlin\w+)$/i, ['underline']],
  [/^(?:wavy|squiggly|squiggles|squiggle)$/i, ['squiggly']],
  [/^(?:struck|strike\w*|crossed)$/i, ['strikeout']],
  [/^(?:circled?|circles|rings?|ringed)$/i, ['circle']],
  [/^(?:box|boxes|boxed)$/i, ['square', 'box']],
];
const MARKS =
  '(?:marks?|ones?|highlights?|highlighting|underlin\\w+|lines?|ink|words?|parts?|passages?|bits?|notes?|circles?|boxes|tags?)';
const MEANS =
  '(?:(?:are|is) (?:about|for|where)|(?:asks?|calls?|stands?) for|(?:means?|shows?|marks?|points? (?:to|out))|about|for|are|is|=|:|[–—])';
const MARK_NAMES =
  'highlight(?:s|ing|ed)?|underlin\\w+|wavy|squiggl\\w+|struck|strike\\w*|crossed|circled?|circles|rings?|ringed|box(?:es|ed)?';
const SAID = new RegExp(
  `\\b(${[...COLOR_WORDS].join('|')}|${MARK_NAMES})(?: ${MARKS})?,? ${MEANS} ([^,.;:!?]+)`,
  'giu',
);

/** Whether a remark is there to say what marks mean: it says so of two, or of nothing else. */
export function tellsKey(text: string): boolean {
  const told = [...text.matchAll(SAID)];
  return told.length > 1 || (told.length === 1 && told[0].index <= 4 && told[0][0].length > text.length - 6);
}

/** What a remark says that marks mean: by which word it names them, and the rest. */
export function statementsIn(text: string): { readonly word: string; readonly meaning: string }[] {
  return [...text.matchAll(SAID)].map(([, word, meaning]) => ({ word, meaning: meaning.trim() }));
}

/** The signs that a word for marks means, of a hand that uses these colours. */
export function signMeant(word: string, colors: readonly string[]): MarkSign[] {
  const kinds = MARK_WORDS.find(([pattern]) => pattern.test(word))?.[1];
  if (kinds !== undefined) return kinds.map((name) => ({ kind: 'mark', name }));
  const color = colorMeant(word, colors);
  return color === null ? [] : [{ kind: 'color', name: color }];
}

/** "ev = evidence", “awk.” means awkward. */
const SHORT_SAID =
  /(?:^|[\s,;(])["“‘']?([\p{L}?!/&]{1,6}\.?)["”’']? ?(?:=|means|stands for|is short for|for short) ([^,.;:!?]+)/giu;
/** "Abbreviations as always: bd boundary, sc scale, id look again." */
const SHORT_LIST = /\b(?:abbreviations?|shorthand|short (?:forms?|marks?)|my key)\b[^:.!?]*:\s*([^.!?]+)/giu;
const IN_LIST = /^["“‘']?([\p{L}?!/&]{1,6})\.?["”’']? (?:= |is |for )?(.+)$/u;

/** What a remark says that abbreviations of its hand mean, each in small letters and without its stop. */
export function shortStatementsIn(text: string): { readonly name: string; readonly meaning: string }[] {
  const told = [...text.matchAll(SHORT_SAID)].map(([, name, meaning]) => ({ name, meaning }));
  const listed = [...text.matchAll(SHORT_LIST)].flatMap(([, list]) =>
    list.split(/[,;]/).flatMap((one) => {
      const found = IN_LIST.exec(one.trim());
      return found === null ? [] : [{ name: found[1], meaning: found[2] }];
    }),
  );
  return [...told, ...listed].map(({ name, meaning }) => ({
    name: name.replace(/\.$/, '').toLowerCase(),
    meaning: meaning.trim(),
  }));
}

/** What abbreviations mean in each hand, as the hands say, by remarks that were looked through. */
const toldIn = new WeakMap<readonly Remark[], ReadonlyMap<string, string>>();
const handKey = (author: string, name: string) => `${author}\n${name}`;

function toldAmong(remarks: readonly Remark[]): ReadonlyMap<string, string> {
  const known = toldIn.get(remarks);
  if (known !== undefined) return known;
  const told = new Map(
    remarks.flatMap(({ author, text }) =>
      shortStatementsIn(text).map(({ name, meaning }) => [handKey(author.name, name), meaning] as const),
    ),
  );
  toldIn.set(remarks, told);
  return told;
}

/**
 * What the short mark at a remark's beginning means in its hand: as the student confirmed it, else as the hand says in one of
 * some remarks; null where neither tells, or there is none.
 */
export function meaningOfShort(
  remark: Pick<Remark, 'text' | 'author'>,
  key: readonly MarkKey[],
  among: readonly Remark[],
): string | null {
  const name = shortMarkIn(remark.text);
  if (name === null) return null;
  const author = remark.author.name;
  const entry = key.find(
    (one) => one.author === author && one.sign.kind === 'short' && one.sign.name === name,
  );
  return entry?.meaning ?? toldAmong(among).get(handKey(author, name)) ?? null;
}

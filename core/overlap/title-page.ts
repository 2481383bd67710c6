import { YEAR } from '../citations/references.ts';
import type { Paper } from '../paper/paper.ts';

/** What a source says of itself, as far as it does. */
export interface TitlePage {
  readonly title: string;
  /** Empty where nobody is named. */
  readonly authors: string;
  readonly year: string | null;
}

/** A title page is over after so many blocks, */
const BLOCKS = 8;
/** and none of its lines is longer. */
const LONGEST_LINE = 160;
/** A paragraph that is a sentence, or several, and no title. */
const SENTENCE = /[\p{L}\p{N}]\.$/u;
const BY = /^(?:(?:[Ww]ritten )?[Bb]y|[Vv]on|[Pp]ar|[Pp]or|[Aa]uthors?:)\s+(?=\p{Lu})/u;
/** "Edith Thorne", "R. Halm and O. Dietz", "Abery, J. and Lunt, M.": names and what joins them, no sentence. */
const NAMES =
  /^(?:(?:(?:\p{Lu}\.[\s-]?)+|\p{Lu}[\p{L}'’-]+|of|the|de|von|van|and|und|et)[,;]?\s*|&\s*|\(?\d{4}\)?\s*){2,10}$/u;
const EXTENSION = /\.[a-z0-9]{1,8}$/i;
/** "abery-lunt-2011", "Thorne 1988 Mills": a name of a file that begins with authors and has a year behind them. */
const NAMED = /^([\p{L}'’]+(?:[-_ ,&]+(?:and[-_ ])?[\p{L}'’]+){0,3})[-_ ,(]+((?:1[5-9]|20)\d\d)(?:\D|$)/u;

/** Title, authors and year of a source, from its first lines, or from the name of its file. */
export function titlePageOf({ blocks }: Paper, fileName: string): TitlePage {
  const first = blocks.slice(0, BLOCKS);
  const bare = fileName.replace(/^.*[/\\]/, '').replace(EXTENSION, '');
  const named = NAMED.exec(bare);
  const head = first.at(0);
  const isTitle =
    head !== undefined &&
    (head.kind === 'heading' || (head.text.length <= LONGEST_LINE && !SENTENCE.test(head.text)));
  const lines = first.slice(isTitle ? 1 : 0).map(({ text }) => text);
  const short = lines.filter((line) => line.length <= LONGEST_LINE);
  const byline = short.slice(0, 3).find((line) => BY.test(line) || NAMES.test(line)) ?? '';
  const authors = byline
    .replace(BY, '')
    .replace(YEAR, '')
    .replace(/[\s,;()]+$/, '');
  const year = short.map((line) => YEAR.exec(line)).find((found) => found !== null);
  return {
    title: isTitle ? head.text : bare,
    authors: authors !== '' ? authors : capitalised(named?.[1] ?? ''),
    year: year?.[0] ?? named?.[2] ?? null,
  };
}

function capitalised(names: string): string {
  return names
    .split(/[-_ ,&]+/)
    .filter((name) => name !== '' && name !== 'and')
    .map((name) => name.charAt(0).toUpperCase() + name.slice(1))
    .join(' and ');
}

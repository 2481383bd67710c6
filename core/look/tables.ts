import type { Paper } from '../paper/paper.ts';
import { sentenceSpans } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { lineAt, type LookLine } from './line.ts';
import { captionsOf, namedIn } from './numbered.ts';

/** A figure as it stands in a text. */
interface Figure extends Span {
  readonly value: number;
  readonly decimals: number;
}

interface Row {
  readonly label: readonly string[];
  readonly cells: readonly { readonly column: number; readonly figure: Figure }[];
}

interface Table {
  /** As its caption numbers it; null without one. */
  readonly number: number | null;
  readonly first: number;
  readonly last: number;
  readonly columns: readonly (readonly string[])[];
  readonly rows: readonly Row[];
}

const FIGURE = /(?<![\p{L}\p{N}.,])[-−]?\d{1,3}(?:,\d{3})+(?:\.\d+)?|(?<![\p{L}\p{N}.,])[-−]?\d+(?:\.\d+)?/gu;
const TOKEN = /\p{N}+(?:[.,]\p{N}+)*|[\p{L}]+/gu;
const SMALL_WORDS = new Set([
  'a',
  'an',
  'the',
  'of',
  'in',
  'on',
  'at',
  'and',
  'or',
  'per',
  'c',
  'mm',
  'cm',
  'm',
  'km',
  'g',
  'kg',
  's',
  'min',
]);
/** Words of a label stand so close together in a sentence. */
const MOST_BETWEEN = 4;
/** A figure that is farther from what the table has is about something else. */
const MOST_TIMES = 3;
const CLAUSE_END = /[,;:]\s|\.\s(?=\p{Lu})|\s(?:and|while|but|whereas|against|or|than)\s/gu;

function figuresIn(text: string, offset = 0): Figure[] {
  return [...text.matchAll(FIGURE)].map(({ 0: digits, index }) => ({
    from: offset + index,
    to: offset + index + digits.length,
    value: Number(digits.replaceAll(',', '').replace('−', '-')),
    decimals: /\.(\d+)$/.exec(digits)?.[1].length ?? 0,
  }));
}

/** A word without the ending of a plural. */
const bare = (word: string) => word.toLowerCase().replace(/(?<=\p{L}{3})(?:es|s)$/u, '');

function tokensOf(text: string): { readonly key: string; readonly at: number }[] {
  return [...text.matchAll(TOKEN)].map(({ 0: word, index }) => ({ key: bare(word), at: index }));
}

const labelOf = (text: string) => {
  const all = tokensOf(text).map(({ key }) => key);
  const telling = all.filter((key) => !SMALL_WORDS.has(key));
  return telling.length === 0 ? all : telling;
};

/** Where the words of a label stand in a text one after another, not far apart; null where they don't. */
function placeOfLabel(
  tokens: readonly { key: string; at: number }[],
  label: readonly string[],
): number[] | null {
  if (label.length === 0) return null;
  for (let first = 0; first < tokens.length; first++) {
    if (tokens[first].key !== label[0]) continue;
    const at = [tokens[first].at];
    let last = first;
    for (const word of label.slice(1)) {
      const next = tokens.findIndex(({ key }, i) => i > last && i <= last + MOST_BETWEEN && key === word);
      if (next < 0) break;
      at.push(tokens[next].at);
      last = next;
    }
    if (at.length === label.length) return at;
  }
  return null;
}

function tablesOf(paper: Paper): Table[] {
  const { blocks } = paper;
  const captions = captionsOf(paper).filter(({ kind }) => kind === 'table');
  const byTable = new Map<number, number[]>();
  blocks.forEach(({ cell }, i) => {
    if (cell !== undefined) byTable.set(cell.table, [...(byTable.get(cell.table) ?? []), i]);
  });
  return [...byTable.values()].map((own): Table => {
    const [first, last] = [own[0], own[own.length - 1]];
    const cells = own.map((i) => ({ ...(blocks[i].cell ?? { row: 0, column: 0 }), text: blocks[i].text }));
    const caption =
      captions.find(({ block }) => block === first - 1) ?? captions.find(({ block }) => block === last + 1);
    const columns: string[][] = [];
    for (const { row, column, text } of cells) if (row === 0) columns[column] = labelOf(text);
    const rows = [...new Set(cells.map(({ row }) => row))]
      .filter((row) => row > 0)
      .map((row) => ({
        label: labelOf(cells.find((one) => one.row === row && one.column === 0)?.text ?? ''),
        cells: cells.flatMap(({ row: own, column, text }) => {
          const figures = own === row && column > 0 ? figuresIn(text) : [];
          return figures.length === 1 ? [{ column, figure: figures[0] }] : [];
        }),
      }));
    return { number: caption?.number ?? null, first, last, columns, rows };
  });
}

/** The parts of a sentence that say one thing each. */
function clausesOf(text: string, { from, to }: Span): Span[] {
  const ends = [...text.slice(from, to).matchAll(CLAUSE_END)].map(({ 0: mark, index }) => ({
    from: from + index,
    to: from + index + mark.length,
  }));
  const starts = [from, ...ends.map((end) => end.to)];
  return starts.map((start, i) => ({ from: start, to: ends.at(i)?.from ?? to }));
}

/** What a table has where a clause gives another figure; null where they agree, or it can't be told. */
function inTable(
  table: Table,
  clause: string,
  sentence: string,
  figures: readonly Figure[],
  clauseFrom: number,
) {
  const tokens = tokensOf(clause);
  const matching = table.rows.flatMap((row) => {
    const at = placeOfLabel(tokens, row.label);
    return at === null ? [] : [{ row, at }];
  });
  if (matching.length !== 1) return null;
  const [{ row, at }] = matching;
  const own = figures.filter((one) => !at.includes(one.from - clauseFrom));
  if (own.length !== 1 || row.cells.length === 0) return null;
  const [figure] = own;
  const columnIn = (among: readonly { key: string; at: number }[]) =>
    row.cells.filter(({ column }) => placeOfLabel(among, table.columns[column] ?? []) !== null);
  const inClause = columnIn(tokens);
  const named = inClause.length > 0 ? inClause : columnIn(tokensOf(sentence));
  const values = row.cells.map(({ figure: { value } }) => value);
  const derived = values.flatMap((x, i) => values.slice(i + 1).flatMap((y) => [x + y, Math.abs(x - y)]));
  const total = values.reduce((sum, value) => sum + value, 0);
  // What is worked out of the row is no slip.
  if ([...values, ...derived, total].some((value) => Math.abs(value - figure.value) < 1e-6)) {
    const isOfNamed = inClause.length !== 1 || inClause[0].figure.value === figure.value;
    if (isOfNamed || !values.includes(figure.value)) return null;
  }
  const expected = (named.length > 0 ? named : row.cells).filter(
    ({ figure: { value } }) =>
      value !== 0 && figure.value / value <= MOST_TIMES && value / Math.max(figure.value, 1e-9) <= MOST_TIMES,
  );
  const nearest = expected.toSorted(
    (x, y) => Math.abs(x.figure.value - figure.value) - Math.abs(y.figure.value - figure.value),
  )[0] as (typeof expected)[number] | undefined;
  // A rounded figure says the same.
  if (
    nearest === undefined ||
    nearest.figure.value.toFixed(figure.decimals) === figure.value.toFixed(figure.decimals)
  )
    return null;
  return { figure, nearest };
}

/** Figures of the text that a table, named there or standing beside it, has otherwise. */
export function tableLines(paper: Paper): LookLine[] {
  const { text, blocks, starts } = paper;
  const tables = tablesOf(paper);
  if (tables.length === 0) return [];
  const captions = captionsOf(paper);
  return blocks.flatMap((block, i): LookLine[] => {
    if (block.kind === 'heading' || block.cell !== undefined || captions.some((one) => one.block === i))
      return [];
    const named = namedIn(block.text).flatMap(({ kind, number }) => (kind === 'table' ? [number] : []));
    const beside = tables.filter(
      (table) => (table.number !== null && named.includes(table.number)) || i === table.last + 1,
    );
    if (beside.length === 0) return [];
    return sentenceSpans(block.text).flatMap((sentence) =>
      clausesOf(block.text, sentence).flatMap((clause): LookLine[] => {
        const words = block.text.slice(clause.from, clause.to);
        const names = namedIn(words);
        const figures = figuresIn(words, clause.from).filter(
          (one) =>
            !names.some(({ from, to }) => one.from >= clause.from + from && one.to <= clause.from + to),
        );
        for (const table of beside) {
          const found = inTable(
            table,
            words,
            block.text.slice(sentence.from, sentence.to),
            figures,
            clause.from,
          );
          if (found === null) continue;
          const place = { from: starts[i] + found.figure.from, to: starts[i] + found.figure.to };
          return [lineAt('text and table differ', text, place, String(found.nearest.figure.value))];
        }
        return [];
      }),
    );
  });
}

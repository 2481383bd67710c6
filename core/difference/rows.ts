import type { CellPlace, Paper } from '../paper/paper.ts';
import { firstFrom } from '../text/ascending.ts';
import type { Span } from '../text/span.ts';
import { newVocabulary, wordsOf, type Words } from '../text/words.ts';
import { countChanges, differenceOf, type Difference } from './difference.ts';
import { compareForReading, type Comparison, type Piece } from './display.ts';

/**
 * Paragraphs of two papers beside one another: one of each where it stayed, several of one side where it was split or joined,
 * none where it came in or went.
 */
export interface ComparedRow {
  /** Where its paragraphs stand in the older text; null where there is none. */
  readonly older: Span | null;
  readonly newer: Span | null;
  readonly kind: 'heading' | 'paragraph' | 'item';
  /** The cell of a table that it is, of the newer text where it is there. */
  readonly cell: CellPlace | null;
  /** Both as one: the older side is what is kept, removed and moved away, the newer one all else. */
  readonly pieces: readonly Piece[];
}

/** Two papers row by row. Counts are words, as in the whole. */
export interface ComparedRows {
  readonly rows: readonly ComparedRow[];
  readonly counts: Comparison['counts'];
}

/** How many words of a paragraph that moved stand elsewhere at least. */
const MOVED_SHARE = 0.8;

/** The words of each block: the index of its first one, and one past its last. */
function wordRanges({ blocks, starts }: Paper, words: Words): { from: number; to: number }[] {
  return blocks.map((block, i) => ({
    from: firstFrom(words.from, starts[i]),
    to: firstFrom(words.from, starts[i] + block.text.length),
  }));
}

/** Which words moved, on each side. */
function movedWords({ a, b, moves }: Difference) {
  const away = new Uint8Array(a.ids.length);
  const here = new Uint8Array(b.ids.length);
  for (const { pairs } of moves)
    for (const [i, j] of pairs) {
      away[i] = 1;
      here[j] = 1;
    }
  return { away, here };
}

/** Two papers paragraph by paragraph, and each pair of paragraphs word by word. */
export function compareByRows(older: Paper, newer: Paper): ComparedRows {
  const vocabulary = newVocabulary();
  const difference = differenceOf(wordsOf(older.text, vocabulary), wordsOf(newer.text, vocabulary));
  const { a, b, toB } = difference;
  const [inA, inB] = [wordRanges(older, a), wordRanges(newer, b)];
  const moved = movedWords(difference);
  const toA = new Int32Array(b.ids.length).fill(-1);
  toB.forEach((j, i) => {
    if (j >= 0) toA[j] = i;
  });
  // The farthest word that goes with a word of the first blocks of a side, and the nearest that goes with one of the rest.
  const reach = (ranges: readonly { from: number; to: number }[], to: Int32Array) => {
    const last = [-1];
    for (const { from, to: end } of ranges) {
      let most = last[last.length - 1];
      for (let word = from; word < end; word++) most = Math.max(most, to[word]);
      last.push(most);
    }
    return last;
  };
  const [lastInB, lastInA] = [reach(inA, toB), reach(inB, toA)];
  const endA = (count: number) => (count === 0 ? 0 : inA[count - 1].to);
  const endB = (count: number) => (count === 0 ? 0 : inB[count - 1].to);
  // So many blocks of each side go with one another and with nothing behind them.
  const isCut = (countA: number, countB: number) =>
    lastInB[countA] < endB(countB) && lastInA[countB] < endA(countA);
  const rows: ComparedRow[] = [];
  let [x, y] = [0, 0];
  const put = (nextX: number, nextY: number) => {
    rows.push(rowOf(older, newer, [x, nextX], [y, nextY], { inA, inB, moved }));
    [x, y] = [nextX, nextY];
  };
  while (x < inA.length || y < inB.length) {
    const aloneA = x < inA.length && isCut(x + 1, y);
    const aloneB = y < inB.length && isCut(x, y + 1);
    const sameKind = aloneA && aloneB && older.blocks[x].kind === newer.blocks[y].kind;
    if (sameKind && !isMoved(inA[x], moved.away) && !isMoved(inB[y], moved.here)) put(x + 1, y + 1);
    else if (aloneA) put(x + 1, y);
    else if (aloneB) put(x, y + 1);
    else {
      let size = 2;
      let found: [number, number] | null = null;
      for (; found === null && x + y + size <= inA.length + inB.length; size++)
        for (let dx = 1; dx < size && found === null; dx++) {
          const dy = size - dx;
          if (x + dx <= inA.length && y + dy <= inB.length && isCut(x + dx, y + dy)) found = [dx, dy];
        }
      const [dx, dy] = found ?? [inA.length - x, inB.length - y];
      put(x + dx, y + dy);
    }
  }
  return { rows, counts: countChanges(difference) };
}

function isMoved({ from, to }: { from: number; to: number }, marks: Uint8Array): boolean {
  let count = 0;
  for (let word = from; word < to; word++) count += marks[word];
  return to > from && count >= MOVED_SHARE * (to - from);
}

function rowOf(
  older: Paper,
  newer: Paper,
  [fromA, toA]: [number, number],
  [fromB, toB]: [number, number],
  {
    inA,
    inB,
    moved,
  }: {
    inA: readonly { from: number; to: number }[];
    inB: readonly { from: number; to: number }[];
    moved: ReturnType<typeof movedWords>;
  },
): ComparedRow {
  const spanOf = ({ blocks, starts }: Paper, from: number, to: number): Span | null =>
    to === from ? null : { from: starts[from], to: starts[to - 1] + blocks[to - 1].text.length };
  const [spanA, spanB] = [spanOf(older, fromA, toA), spanOf(newer, fromB, toB)];
  const textA = spanA === null ? '' : older.text.slice(spanA.from, spanA.to);
  const textB = spanB === null ? '' : newer.text.slice(spanB.from, spanB.to);
  const block = spanB === null ? older.blocks[fromA] : newer.blocks[fromB];
  const row = { older: spanA, newer: spanB, kind: block.kind, cell: block.cell ?? null };
  if (spanB === null)
    return {
      ...row,
      pieces: [{ kind: isMoved(inA[fromA], moved.away) ? 'moved away' : 'removed', text: textA }],
    };
  if (spanA === null)
    return {
      ...row,
      pieces: [{ kind: isMoved(inB[fromB], moved.here) ? 'moved here' : 'added', text: textB }],
    };
  const vocabulary = newVocabulary();
  const { passages } = compareForReading(
    differenceOf(wordsOf(textA, vocabulary), wordsOf(textB, vocabulary)),
  );
  return {
    ...row,
    pieces: passages.flatMap((passage, i) =>
      i === 0 ? passage : [{ kind: 'kept', text: '\n' }, ...passage],
    ),
  };
}

/** Whether nothing of a row changed. */
export const isUnchanged = ({ pieces }: ComparedRow) => pieces.every(({ kind }) => kind === 'kept');

/** One side of a row. */
export function sideOf({ pieces }: ComparedRow, side: 'older' | 'newer'): Piece[] {
  const others = side === 'older' ? ['added', 'moved here'] : ['removed', 'moved away'];
  return pieces.filter(({ kind }) => !others.includes(kind));
}

/** Rows that are shown together: a table, paragraphs that changed, or a run of those that didn't. */
interface RowGroup {
  /** The index of its first row. */
  readonly first: number;
  readonly rows: readonly ComparedRow[];
  readonly table: boolean;
}

/** Rows in the groups that they are shown in, in order. */
export function inTables(rows: readonly ComparedRow[]): RowGroup[] {
  const groups: RowGroup[] = [];
  const keyOf = (row: ComparedRow) =>
    row.cell !== null ? `table ${row.cell.table}` : isUnchanged(row) ? 'same' : 'changed';
  for (let first = 0; first < rows.length;) {
    let end = first + 1;
    while (end < rows.length && keyOf(rows[end]) === keyOf(rows[first])) end++;
    groups.push({ first, rows: rows.slice(first, end), table: rows[first].cell !== null });
    first = end;
  }
  return groups;
}

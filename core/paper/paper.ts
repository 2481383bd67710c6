import { firstFrom } from '../text/ascending.ts';
import { normaliseText } from '../text/normalise.ts';

/** A paragraph, heading or list item. `level` is 1 to 6 for headings and 0 otherwise. */
export interface Block {
  readonly kind: 'heading' | 'paragraph' | 'item';
  readonly level: number;
  readonly text: string;
  /** It is set off from the rest as a quotation. */
  readonly quoted?: boolean;
  /** Where in a table it stands; tables are counted through the paper. */
  readonly cell?: CellPlace;
}

/** A cell of a table, all counted from 0. */
export interface CellPlace {
  readonly table: number;
  readonly row: number;
  readonly column: number;
}

/** A paper as text: its blocks, and all of them joined by line feeds. Offsets are UTF-16 units of `text`. */
export interface Paper {
  readonly blocks: readonly Block[];
  readonly text: string;
  /** The offset in `text` at which each block begins. */
  readonly starts: readonly number[];
}

/** Joins blocks to a paper. Each block's text is normalised; empty ones are left out. */
export function paperOf(blocks: readonly Block[]): Paper {
  const kept = blocks
    .map((block) => ({ ...block, text: normaliseText(block.text) }))
    .filter((block) => block.text !== '');
  const starts: number[] = [];
  let at = 0;
  for (const block of kept) {
    starts.push(at);
    at += block.text.length + 1;
  }
  return { blocks: kept, text: kept.map((b) => b.text).join('\n'), starts };
}

/** Plain text as blocks: a paragraph for each line with words on it. */
export function blocksOfLines(text: string): Block[] {
  return text.split(/\n+/).map((line) => ({ kind: 'paragraph', level: 0, text: line }));
}

/** The index of the block that holds `offset`; the last one for an offset past the end. */
export function blockAt(paper: Paper, offset: number): number {
  return Math.max(0, firstFrom(paper.starts, offset + 1) - 1);
}

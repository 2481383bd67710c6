import type { Span } from '../anchors/locate.ts';
import { squeeze } from '../anchors/locate.ts';
import { paperOf, type Block, type Paper } from './paper.ts';

/**
 * A paper as it reads with everything that was changed in it: words put in and words taken out stand side by side. It is
 * what a paper without pages is shown from. Offsets are UTF-16 units of `text`, the texts of all blocks joined by line
 * feeds; `paper` of the same file is this text with the changes accepted, and has offsets of its own.
 */
export interface Layout {
  readonly text: string;
  readonly blocks: readonly LayoutBlock[];
  readonly changes: readonly LayoutChange[];
  readonly pictures: readonly LayoutPicture[];
  /** Where footnotes are called; the note itself is a block of kind footnote with this number as its level. */
  readonly notes: readonly LayoutNote[];
}

export interface LayoutNote {
  readonly at: number;
  readonly number: number;
}

export interface LayoutBlock {
  readonly kind: Block['kind'] | 'picture' | 'footnote';
  /** 1 to 6 for headings, the number of a footnote, else 0. */
  readonly level: number;
  readonly from: number;
  readonly to: number;
  readonly styles: readonly LayoutStyle[];
  /** Where in a table it stands; null outside of tables. Tables are counted through the paper. */
  readonly cell: { readonly table: number; readonly row: number; readonly column: number } | null;
  /** Which of the layout's pictures a block of kind picture shows; null for one that is not in the file. */
  readonly picture: number | null;
}

export interface LayoutStyle extends Span {
  readonly bold: boolean;
  readonly italic: boolean;
}

/** A tracked change. Both ends of a move are there, the end it left as a deletion. */
export interface LayoutChange extends Span {
  readonly kind: 'insertion' | 'deletion' | 'format';
  readonly moved: boolean;
}

export interface LayoutPicture {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly mediaType: string;
  readonly description: string;
}

/** A paper whose own look is set aside, to be shown as text that flows. Its offsets are those of the paper. */
export function layoutOfPaper({ text, blocks, starts }: Paper): Layout {
  return {
    text,
    blocks: blocks.map(({ kind, level, text: own }, i) => ({
      kind,
      level,
      from: starts[i],
      to: starts[i] + own.length,
      styles: [],
      cell: null,
      picture: null,
    })),
    changes: [],
    pictures: [],
    notes: [],
  };
}

/** Both states of a changed paper: as it reads with all changes accepted, and as it read before them. */
export type LayoutState = 'accepted' | 'original';

/** The parts of a layout's text, in order, that are there in a state of it. */
export function keptSpans(layout: Layout, state: LayoutState): Span[] {
  const gone = state === 'accepted' ? 'deletion' : 'insertion';
  const out = layout.changes
    .filter((change) => change.kind === gone)
    .toSorted((x, y) => x.from - y.from || x.to - y.to);
  const kept: Span[] = [];
  let at = 0;
  for (const { from, to } of out) {
    if (from > at) kept.push({ from: at, to: from });
    at = Math.max(at, to);
  }
  if (at < layout.text.length) kept.push({ from: at, to: layout.text.length });
  return kept;
}

/** A state of the layout as a paper. Blocks that are empty in it are left out. */
export function paperOfLayout(layout: Layout, state: LayoutState): Paper {
  const kept = keptSpans(layout, state);
  const blocks: Block[] = [];
  let next = 0;
  for (const block of layout.blocks) {
    let text = '';
    while (next < kept.length && kept[next].to <= block.from) next++;
    for (let i = next; i < kept.length && kept[i].from < block.to; i++)
      text += layout.text.slice(Math.max(block.from, kept[i].from), Math.min(block.to, kept[i].to));
    if (text.trim() === '') continue;
    const kind = block.kind === 'picture' || block.kind === 'footnote' ? 'paragraph' : block.kind;
    blocks.push({ kind, level: kind === 'heading' ? block.level : 0, text });
  }
  return paperOf(blocks);
}

/**
 * Turns offsets of a layout into offsets of its accepted paper and back. An offset within words that were taken out
 * becomes the gap where they were.
 */
export interface LayoutMap {
  toPaper(span: Span): Span;
  toLayout(span: Span): Span;
}

export function layoutMap(layout: Layout, paper: Paper): LayoutMap {
  // White space is normalised in a paper, so places are counted in characters that are not white space.
  const kept = keptSpans(layout, 'accepted');
  const places: number[] = [];
  for (const { from, to } of kept)
    for (let i = from; i < to; i++) if (!/\s/.test(layout.text[i])) places.push(i);
  const squeezed = squeeze(paper.text);
  const countBefore = (offsets: readonly number[], at: number) => {
    let low = 0;
    let high = offsets.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (offsets[middle] < at) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const across = (from: readonly number[], to: readonly number[], end: number, span: Span): Span => {
    const first = countBefore(from, span.from);
    const past = countBefore(from, span.to);
    const start = to.at(first) ?? end;
    if (past > first) return { from: start, to: to[past - 1] + 1 };
    // A gap: it stays behind what is before it.
    const gap = first === 0 ? 0 : to[first - 1] + 1;
    return { from: gap, to: gap };
  };
  return {
    toPaper: (span) => across(places, squeezed.at, paper.text.length, span),
    toLayout: (span) => across(squeezed.at, places, layout.text.length, span),
  };
}

import { firstFrom } from '../text/ascending.ts';
import { normalised } from '../text/normalise.ts';
import type { Span } from '../text/span.ts';
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

/** Where a footnote is called, and its number from 1. */
export interface LayoutNote {
  readonly at: number;
  readonly number: number;
}

/** A paragraph, heading, item, cell, picture or footnote, from where to where it reaches in the text. */
export interface LayoutBlock {
  readonly kind: Block['kind'] | 'picture' | 'footnote';
  /** 1 to 6 for headings, the number of a footnote, for items how deep in lists within lists, else 0. */
  readonly level: number;
  /** An item of a numbered list. */
  readonly ordered: boolean;
  /** It is set off as a quotation, by its style or by being indented. */
  readonly quoted?: boolean;
  readonly from: number;
  readonly to: number;
  readonly styles: readonly LayoutStyle[];
  /** Where in a table it stands; null outside of tables. Tables are counted through the paper. */
  readonly cell: { readonly table: number; readonly row: number; readonly column: number } | null;
  /** Which of the layout's pictures a block of kind picture shows; null for one that is not in the file. */
  readonly picture: number | null;
}

/** A stretch that is bold, italic, raised or lowered, or leads somewhere. */
export interface LayoutStyle extends Span {
  readonly bold: boolean;
  readonly italic: boolean;
  readonly script: 'super' | 'sub' | null;
  readonly link: string | null;
}

/** A tracked change. Both ends of a move are there, the end it left as a deletion. */
export interface LayoutChange extends Span {
  readonly kind: 'insertion' | 'deletion' | 'format';
  readonly moved: boolean;
}

/** A picture that stands in the file, and what its author says it shows. */
export interface LayoutPicture {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly mediaType: string;
  readonly description: string;
}

/** A paper whose own look is set aside, to be shown as text that flows. Its offsets are those of the paper. */
export function layoutOfPaper({ text, blocks, starts }: Paper): Layout {
  return {
    text,
    blocks: blocks.map(({ kind, level, text: own, cell = null }, i) => ({
      kind,
      level,
      ordered: false,
      from: starts[i],
      to: starts[i] + own.length,
      styles: [],
      cell,
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

/** A block that has words in a state of the layout, and the parts of the text that are left of it. */
interface KeptBlock {
  readonly block: LayoutBlock;
  readonly parts: readonly Span[];
  readonly text: string;
}

function keptBlocks(layout: Layout, state: LayoutState): KeptBlock[] {
  const kept = keptSpans(layout, state);
  const found: KeptBlock[] = [];
  let next = 0;
  for (const block of layout.blocks) {
    const parts: Span[] = [];
    while (next < kept.length && kept[next].to <= block.from) next++;
    for (let i = next; i < kept.length && kept[i].from < block.to; i++)
      parts.push({ from: Math.max(block.from, kept[i].from), to: Math.min(block.to, kept[i].to) });
    const text = parts.map(({ from, to }) => layout.text.slice(from, to)).join('');
    if (text.trim() !== '') found.push({ block, parts, text });
  }
  return found;
}

/** A state of the layout as a paper. Blocks that are empty in it are left out. */
export function paperOfLayout(layout: Layout, state: LayoutState): Paper {
  return paperOf(
    keptBlocks(layout, state).map(({ block, text }): Block => {
      const kind = block.kind === 'picture' || block.kind === 'footnote' ? 'paragraph' : block.kind;
      const quoted = block.quoted === true && kind === 'paragraph' ? { quoted: true } : {};
      const cell = block.cell === null ? {} : { cell: block.cell };
      return { kind, level: kind === 'heading' ? block.level : 0, text, ...quoted, ...cell };
    }),
  );
}

/**
 * Turns offsets of a layout into offsets of its accepted paper and back. An offset within words that were taken out
 * becomes the gap where they were.
 */
export interface LayoutMap {
  toPaper(span: Span): Span;
  toLayout(span: Span): Span;
}

/** Where each unit that is no white space stands in one text, in order; several may come of one. */
interface Places {
  readonly from: number[];
  readonly to: number[];
}

/** @param paper the layout's accepted paper */
export function layoutMap(layout: Layout, paper: Paper): LayoutMap {
  const inLayout: Places = { from: [], to: [] };
  const inPaper: Places = { from: [], to: [] };
  let start = 0;
  for (const { parts, text } of keptBlocks(layout, 'accepted')) {
    const own = normalised(text);
    if (own.text === '') continue;
    const offsets = parts.flatMap(({ from, to }) => Array.from({ length: to - from }, (_, i) => from + i));
    for (let i = 0; i < own.text.length; i++)
      if (own.text[i] !== ' ') {
        inLayout.from.push(offsets[own.from[i]]);
        inLayout.to.push(offsets[own.to[i] - 1] + 1);
        inPaper.from.push(start + i);
        inPaper.to.push(start + i + 1);
      }
    start += own.text.length + 1;
  }
  const across = (here: Places, there: Places, end: number, span: Span): Span => {
    const first = firstFrom(here.to, span.from + 1);
    const past = firstFrom(here.from, span.to);
    if (past > first) return { from: there.from[first] ?? end, to: there.to[past - 1] };
    // A gap: it stays behind what is before it.
    const gap = first === 0 ? 0 : there.to[first - 1];
    return { from: gap, to: gap };
  };
  return {
    toPaper: (span) => across(inLayout, inPaper, paper.text.length, span),
    toLayout: (span) => across(inPaper, inLayout, layout.text.length, span),
  };
}

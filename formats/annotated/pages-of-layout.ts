import { imageSize } from 'image-size';
import type { FileHash } from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { RichBlock, Run, TableBlock } from '#core/paper/draft.ts';
import { layoutMap, type Layout, type LayoutBlock } from '#core/paper/layout.ts';
import type { Paper } from '#core/paper/paper.ts';
import { markedSpans, segmentsOf, type MarkedSpan } from '../layout-segments.ts';
import type { Anchor } from '../marked-paper.ts';

/** What a paper without pages of its own is laid out from, with the remarks' names on their words. */
export interface PagesOfLayout {
  readonly blocks: readonly RichBlock[];
  /** By the name that stands in their blocks. */
  readonly pictures: ReadonlyMap<string, Uint8Array<ArrayBuffer>>;
}

/** Kinds of picture that a PDF holds as they are. */
const HELD = new Set(['image/png', 'image/jpeg']);
/** The width of the text in CSS pixels; wider pictures are made as wide as it. */
const MOST_WIDTH = 640;

/**
 * A paper without pages (Word, OpenDocument, text, posts) as blocks to be laid out. Words that were taken out and put in
 * stand side by side, as in the reading place.
 */
export function pagesOfLayout(
  layout: Layout,
  paper: Paper,
  remarks: readonly Remark[],
  anchors: Readonly<Record<string, Anchor>>,
): PagesOfLayout {
  const spans = markedSpans(layout, layoutMap(layout, paper), remarks, anchors).map((span) =>
    span.from === span.to ? widened(layout.text, span) : span,
  );
  const notes = new Map(
    layout.blocks.flatMap((block) =>
      block.kind === 'footnote' ? [[block.level, layout.text.slice(block.from, block.to)] as const] : [],
    ),
  );
  const pictures = new Map<string, Uint8Array<ArrayBuffer>>();
  const blocks: RichBlock[] = [];
  let lists = 0;
  let before: LayoutBlock | null = null;
  const textBlock = (block: LayoutBlock): RichBlock => {
    const goesOn = before?.kind === 'item' && before.ordered === block.ordered;
    if (block.kind === 'item' && !goesOn) lists++;
    return {
      kind: block.kind === 'heading' || block.kind === 'item' ? block.kind : 'paragraph',
      level: block.level,
      ...(block.kind === 'item' && { list: { number: lists, ordered: block.ordered } }),
      runs: runsOf(layout, block, spans, notes),
    };
  };
  const blockOf = (block: LayoutBlock): RichBlock | null => {
    if (block.kind === 'footnote') return null;
    if (block.kind !== 'picture') return textBlock(block);
    const picture = block.picture === null ? null : layout.pictures[block.picture];
    if (picture === null || !HELD.has(picture.mediaType)) return null;
    const name = `picture ${block.picture ?? ''}`;
    const { width, height } = imageSize(picture.bytes);
    const share = Math.min(1, MOST_WIDTH / width);
    pictures.set(name, picture.bytes);
    return {
      kind: 'picture',
      hash: name as FileHash,
      mediaType: picture.mediaType,
      alt: picture.description,
      width: width * share,
      height: height * share,
      runs: [],
    };
  };
  for (let at = 0; at < layout.blocks.length; at++) {
    const block = layout.blocks[at];
    if (block.cell === null) {
      const made = blockOf(block);
      if (made !== null && !isEmpty(made)) blocks.push(made);
    } else {
      const { table } = block.cell;
      let end = at;
      while (end < layout.blocks.length && layout.blocks[end].cell?.table === table) end++;
      blocks.push(tableOf(layout.blocks.slice(at, end), blockOf));
      at = end - 1;
    }
    before = block;
  }
  return { blocks, pictures };
}

function isEmpty(block: RichBlock): boolean {
  return (
    block.kind !== 'rows' &&
    block.kind !== 'picture' &&
    block.runs.every(({ text, note }) => text.trim() === '' && note === undefined)
  );
}

/** A gap has no width on a page: the word before it is marked, else the one behind it. */
function widened(text: string, { id, from }: MarkedSpan): MarkedSpan {
  const before = /\S+\s*$/.exec(text.slice(Math.max(0, from - 60), from));
  if (before !== null && !before[0].includes('\n'))
    return { id, from: from - before[0].length, to: from - before[0].length + before[0].trimEnd().length };
  const behind = /^\s*\S+/.exec(text.slice(from, from + 60));
  return behind === null ? { id, from, to: from } : { id, from, to: from + behind[0].length };
}

function runsOf(
  layout: Layout,
  block: LayoutBlock,
  spans: readonly MarkedSpan[],
  notes: ReadonlyMap<number, string>,
): Run[] {
  return segmentsOf(layout, block, spans, 'changes').flatMap(({ text, bold, italic, marks, note }): Run[] => [
    ...(note === null ? [] : [{ text: '', bold: false, italic: false, note: notes.get(note) ?? '' }]),
    { text, bold, italic, ...(marks.length > 0 && { keys: marks }) },
  ]);
}

function tableOf(
  cells: readonly LayoutBlock[],
  blockOf: (block: LayoutBlock) => RichBlock | null,
): TableBlock {
  const rows: { blocks: RichBlock[] }[][] = [];
  for (const block of cells) {
    const { row = 0, column = 0 } = block.cell ?? {};
    const own = (rows[row] ??= []);
    const made = blockOf(block);
    const cell = (own[column] ??= { blocks: [] });
    if (made !== null) cell.blocks.push(made);
  }
  const columns = Math.max(1, ...rows.map((row) => row.length));
  return {
    kind: 'rows',
    rows: rows
      .filter((row) => row.length > 0)
      .map((row, index, all) =>
        Array.from({ length: columns }, (_, column) => ({
          isHead: index === 0 && all.length > 1,
          across: 1,
          down: 1,
          blocks: (row.at(column) as { blocks: RichBlock[] } | undefined)?.blocks ?? [],
        })),
      ),
  };
}

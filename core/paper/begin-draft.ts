import type { DraftContent } from '../model/work.ts';
import type { Layout, LayoutBlock } from './layout.ts';
import { keptSpans } from './layout.ts';
import type { Block } from './paper.ts';

/** Editor documents that drafts begin with. */

type Json = Record<string, unknown>;

const textNode = (text: string, marks: readonly Json[] = []): Json => ({
  type: 'text',
  text,
  ...(marks.length === 0 ? {} : { marks }),
});
const contentOf = (content: readonly Json[]): Json => (content.length === 0 ? {} : { content });
const MOST_HEADING = 4;

const CAPTION = /^(?:Figure|Fig\.|Map|Plate|Photograph|Picture|Chart|Diagram|Sketch)\s*\d/;

function isCaption({ type, content }: Json): boolean {
  const first = Array.isArray(content) ? (content as Json[]).at(0) : undefined;
  return type === 'paragraph' && typeof first?.text === 'string' && CAPTION.test(first.text);
}

/** Puts items that follow one another into lists, lists within lists by their depth. */
class DocWriter {
  readonly content: Json[] = [];
  private open: { depth: number; ordered: boolean; items: Json[] }[] = [];

  put(node: Json): void {
    this.open = [];
    const last = this.content.at(-1);
    // What stands right below a picture and names its number is said of it.
    if (last?.type === 'figure' && last.content === undefined && isCaption(node)) last.content = node.content;
    else this.content.push(node);
  }

  item(node: Json, depth: number, ordered: boolean): void {
    while (this.open.length > 0 && (this.open.at(-1)?.depth ?? 0) > depth) this.open.pop();
    const last = this.open.at(-1);
    if (last === undefined || last.depth < depth || last.ordered !== ordered) {
      const isDeeper = last !== undefined && last.depth < depth;
      if (!isDeeper && last !== undefined) this.open.pop();
      const items: Json[] = [];
      const list = { type: ordered ? 'orderedList' : 'bulletList', content: items };
      const parent = this.open.at(-1)?.items.at(-1);
      if (parent === undefined) this.content.push(list);
      else (parent.content as Json[]).push(list);
      this.open.push({ depth, ordered, items });
    }
    this.open.at(-1)?.items.push({ type: 'listItem', content: [node] });
  }

  finish(): DraftContent {
    if (this.content.length === 0) this.content.push({ type: 'paragraph' });
    return { schema: 1, doc: { type: 'doc', content: this.content } };
  }
}

/** A draft that starts from a paper's blocks: headings, paragraphs and list items kept. */
export function draftFrom(blocks: readonly Block[]): DraftContent {
  const doc = new DocWriter();
  for (const block of blocks) {
    const text = block.text === '' ? [] : [textNode(block.text)];
    if (block.kind === 'item') doc.item({ type: 'paragraph', ...contentOf(text) }, 0, false);
    else if (block.kind === 'heading') doc.put(heading(block.level, text));
    else doc.put({ type: 'paragraph', ...contentOf(text) });
  }
  return doc.finish();
}

function heading(level: number, content: readonly Json[]): Json {
  return {
    type: 'heading',
    attrs: { level: Math.min(MOST_HEADING, Math.max(1, level)) },
    ...contentOf(content),
  };
}

/**
 * A draft that starts from a paper with its structure: tables, pictures, footnotes, lists and looks kept, changes accepted.
 * @param pictureOf what stands for one of the layout's pictures; null for one that can't be held
 */
export function draftFromLayout(layout: Layout, pictureOf: (picture: number) => Json | null): DraftContent {
  const doc = new DocWriter();
  const notes = new Map(
    layout.blocks.flatMap((block) =>
      block.kind === 'footnote' ? [[block.level, layout.text.slice(block.from, block.to)] as const] : [],
    ),
  );
  const inline = inlineOf(layout, notes);
  for (let at = 0; at < layout.blocks.length; at++) {
    const block = layout.blocks[at];
    if (block.cell !== null) {
      const { table } = block.cell;
      let end = at;
      while (end < layout.blocks.length && layout.blocks[end].cell?.table === table) end++;
      doc.put(tableOf(layout.blocks.slice(at, end), inline, pictureOf));
      at = end - 1;
      continue;
    }
    const node = nodeOf(block, inline, pictureOf);
    if (node === null) continue;
    if (block.kind === 'item') doc.item(node, block.level, block.ordered);
    else doc.put(node);
  }
  return doc.finish();
}

type Inline = (block: LayoutBlock) => Json[];

function nodeOf(
  block: LayoutBlock,
  inline: Inline,
  pictureOf: (picture: number) => Json | null,
): Json | null {
  switch (block.kind) {
    case 'footnote':
      return null;
    case 'picture':
      return block.picture === null ? null : pictureOf(block.picture);
    case 'heading':
      return heading(block.level, inline(block));
    case 'item':
    case 'paragraph': {
      const content = inline(block);
      // Empty lines are the space between paragraphs.
      return content.length === 0 && block.cell === null
        ? null
        : { type: 'paragraph', ...contentOf(content) };
    }
  }
}

function tableOf(
  blocks: readonly LayoutBlock[],
  inline: Inline,
  pictureOf: (picture: number) => Json | null,
): Json {
  const rows = new Map<number, Map<number, Json[]>>();
  let columns = 0;
  for (const block of blocks) {
    const { row = 0, column = 0 } = block.cell ?? {};
    const cells = rows.get(row) ?? new Map<number, Json[]>();
    rows.set(row, cells);
    const node = nodeOf(block, inline, pictureOf);
    const cell = cells.get(column) ?? [];
    cells.set(column, node === null ? cell : [...cell, node]);
    columns = Math.max(columns, column + 1);
  }
  return {
    type: 'table',
    content: [...rows.keys()]
      .toSorted((x, y) => x - y)
      .map((row, index) => ({
        type: 'tableRow',
        content: Array.from({ length: columns }, (_, column) => {
          const content = rows.get(row)?.get(column) ?? [];
          return {
            type: index === 0 && rows.size > 1 ? 'tableHeader' : 'tableCell',
            content: content.length === 0 ? [{ type: 'paragraph' }] : content,
          };
        }),
      })),
  };
}

/** The words of a block as they read with changes accepted, with their looks, and the footnotes that are called in it. */
function inlineOf(layout: Layout, notes: ReadonlyMap<number, string>): Inline {
  const kept = keptSpans(layout, 'accepted');
  return (block) => {
    const cuts = new Set([block.from, block.to]);
    const put = (at: number) => {
      if (at > block.from && at < block.to) cuts.add(at);
    };
    for (const { from, to } of block.styles) [from, to].forEach(put);
    const own = kept.filter((span) => span.from < block.to && span.to > block.from);
    for (const { from, to } of own) [from, to].forEach(put);
    const calls = layout.notes.filter(({ at }) => at >= block.from && at <= block.to);
    for (const { at } of calls) put(at);
    const places = [...cuts].toSorted((x, y) => x - y);
    const nodes: Json[] = [];
    for (const [index, from] of places.entries()) {
      for (const { at, number } of calls)
        if (at === from) nodes.push({ type: 'footnote', attrs: { text: notes.get(number) ?? '' } });
      const to = places.at(index + 1);
      if (to === undefined || !own.some((span) => span.from <= from && span.to >= to)) continue;
      const style = block.styles.find((one) => one.from <= from && one.to >= to);
      const marks = [
        ...(style?.bold === true ? [{ type: 'bold' }] : []),
        ...(style?.italic === true ? [{ type: 'italic' }] : []),
        ...(style?.script == null ? [] : [{ type: `${style.script}script` }]),
        ...(style?.link == null ? [] : [{ type: 'link', attrs: { href: style.link } }]),
      ];
      nodes.push(textNode(layout.text.slice(from, to), marks));
    }
    return nodes;
  };
}

import * as v from 'valibot';
import type { FileHash } from '../model/ids.ts';
import type { DraftContent } from '../model/work.ts';
import { paperOf, type Block, type CellPlace, type Paper } from './paper.ts';

/** A run of characters of one look. */
export interface Run {
  readonly text: string;
  readonly bold: boolean;
  readonly italic: boolean;
  /** Raised or lowered. */
  readonly script?: 'super' | 'sub' | undefined;
  /** Where it leads. */
  readonly link?: string | undefined;
  /** The text of a footnote that is called here; the run itself has no text then. */
  readonly note?: string | undefined;
  /** Names of what hangs on it, whose places whoever lays it out tells. */
  readonly keys?: readonly string[] | undefined;
}

/** Words of a draft with their looks. */
export interface TextBlock {
  readonly kind: Block['kind'] | 'quote';
  /** 1 to 6 for headings; for items how deep in lists within lists, from 0. */
  readonly level: number;
  /** Of an item: the number of its list in the draft, and whether it is a numbered one. */
  readonly list?: { readonly number: number; readonly ordered: boolean } | undefined;
  readonly runs: readonly Run[];
}

/** A cell of a table. */
interface TableCell {
  readonly isHead: boolean;
  /** Over how many columns and rows it reaches. */
  readonly across: number;
  readonly down: number;
  readonly blocks: readonly RichBlock[];
}

/** A table, row by row. */
export interface TableBlock {
  readonly kind: 'rows';
  readonly rows: readonly (readonly TableCell[])[];
}

/** A picture with its caption. */
export interface PictureBlock {
  readonly kind: 'picture';
  readonly hash: FileHash;
  readonly mediaType: string;
  /** What it shows, for whoever can't see it. */
  readonly alt: string;
  readonly width: number;
  readonly height: number;
  readonly runs: readonly Run[];
}

/** A block of a draft with its looks; what files are written from. */
export type RichBlock = TextBlock | TableBlock | PictureBlock;

const Attributes = v.looseObject({
  level: v.optional(v.number()),
  text: v.optional(v.string()),
  href: v.optional(v.nullable(v.string())),
  hash: v.optional(v.string()),
  mediaType: v.optional(v.string()),
  alt: v.optional(v.string()),
  width: v.optional(v.number()),
  height: v.optional(v.number()),
  colspan: v.optional(v.number()),
  rowspan: v.optional(v.number()),
});
const NodeSchema = v.looseObject({
  type: v.string(),
  text: v.optional(v.string()),
  attrs: v.optional(Attributes),
  marks: v.optional(v.array(v.looseObject({ type: v.string(), attrs: v.optional(Attributes) }))),
  content: v.optional(v.array(v.unknown())),
});
type EditorNode = v.InferOutput<typeof NodeSchema>;

function childrenOf(node: EditorNode): EditorNode[] {
  return (node.content ?? []).map((child) => v.parse(NodeSchema, child));
}

function runsOf(node: EditorNode): Run[] {
  return childrenOf(node).map((child): Run => {
    const has = (type: string) => child.marks?.some((mark) => mark.type === type) ?? false;
    const link = child.marks?.find((mark) => mark.type === 'link')?.attrs?.href;
    const script = has('superscript') ? 'super' : has('subscript') ? 'sub' : null;
    return {
      text: child.type === 'hardBreak' ? '\n' : (child.text ?? ''),
      bold: has('bold'),
      italic: has('italic'),
      ...(script === null ? {} : { script }),
      ...(link == null ? {} : { link }),
      ...(child.type === 'footnote' ? { note: child.attrs?.text ?? '' } : {}),
    };
  });
}

/** Where a block stands: in a list, in a quotation. */
interface Around {
  readonly list: { readonly number: number; readonly ordered: boolean } | null;
  readonly depth: number;
  readonly quoted: boolean;
}

/** Numbers the lists of a draft as they come. */
interface Lists {
  count: number;
}

function gather(node: EditorNode, around: Around, lists: Lists, into: RichBlock[]): void {
  const within = (next: Around) => {
    for (const child of childrenOf(node)) gather(child, next, lists, into);
  };
  switch (node.type) {
    case 'paragraph':
      into.push({
        kind: around.list !== null ? 'item' : around.quoted ? 'quote' : 'paragraph',
        level: around.list === null ? 0 : around.depth,
        ...(around.list === null ? {} : { list: around.list }),
        runs: runsOf(node),
      });
      return;
    case 'heading':
      into.push({ kind: 'heading', level: node.attrs?.level ?? 1, runs: runsOf(node) });
      return;
    case 'bulletList':
    case 'orderedList':
      within({
        ...around,
        list: { number: ++lists.count, ordered: node.type === 'orderedList' },
        depth: around.list === null ? 0 : around.depth + 1,
      });
      return;
    case 'blockquote':
      within({ ...around, quoted: true });
      return;
    case 'table':
      into.push({ kind: 'rows', rows: childrenOf(node).map((row) => cellsOf(row, lists)) });
      return;
    case 'figure':
      into.push({
        kind: 'picture',
        hash: (node.attrs?.hash ?? '') as FileHash,
        mediaType: node.attrs?.mediaType ?? '',
        alt: node.attrs?.alt ?? '',
        width: node.attrs?.width ?? 0,
        height: node.attrs?.height ?? 0,
        runs: runsOf(node),
      });
      return;
    default:
      within(around);
  }
}

function cellsOf(row: EditorNode, lists: Lists): TableCell[] {
  return childrenOf(row).map((cell) => {
    const blocks: RichBlock[] = [];
    for (const child of childrenOf(cell)) gather(child, NOWHERE, lists, blocks);
    return {
      isHead: cell.type === 'tableHeader',
      across: cell.attrs?.colspan ?? 1,
      down: cell.attrs?.rowspan ?? 1,
      blocks,
    };
  });
}

const NOWHERE: Around = { list: null, depth: 0, quoted: false };

/** A draft's blocks in order. Throws on content that no editor of this schema wrote. */
export function richBlocksOf(content: DraftContent): RichBlock[] {
  const blocks: RichBlock[] = [];
  gather(v.parse(NodeSchema, content.doc), NOWHERE, { count: 0 }, blocks);
  return blocks;
}

/** A block of words, and the cell that it stands in. */
type WordedBlock = TextBlock & { readonly cell?: CellPlace };

/** The blocks with words, those in tables and under pictures among them, and the footnotes behind all. */
function wordedBlocks(blocks: readonly RichBlock[]): WordedBlock[] {
  const notes: TextBlock[] = [];
  let tables = 0;
  const flat = (list: readonly RichBlock[]): WordedBlock[] =>
    list.flatMap((block): WordedBlock[] => {
      if (block.kind === 'rows') {
        const table = tables++;
        return block.rows.flatMap((cells, row) => {
          let across = 0;
          return cells.flatMap((one) => {
            const cell = { table, row, column: across };
            across += one.across;
            return flat(one.blocks).map((inside) => ({ cell, ...inside }));
          });
        });
      }
      for (const { note } of block.runs)
        if (note !== undefined)
          notes.push({ kind: 'paragraph', level: 0, runs: [{ text: note, bold: false, italic: false }] });
      return block.kind === 'picture' ? [{ kind: 'paragraph', level: 0, runs: block.runs }] : [block];
    });
  return [...flat(blocks), ...notes];
}

const textOf = ({ runs }: TextBlock) => runs.map(({ text }) => text).join('');

/** A draft as plain text: its blocks parted by empty lines, those without words left out. */
export function textOfDraft(content: DraftContent): string {
  return wordedBlocks(richBlocksOf(content))
    .map((block) => textOf(block).trim())
    .filter((text) => text !== '')
    .join('\n\n');
}

/** A draft as a paper, for comparing and following: cells and captions are paragraphs, footnotes stand at the end. */
export function paperOfDraft(content: DraftContent): Paper {
  return paperOf(
    wordedBlocks(richBlocksOf(content)).map((block) => ({
      kind: block.kind === 'quote' ? 'paragraph' : block.kind,
      level: block.kind === 'heading' ? block.level : 0,
      text: textOf(block),
      ...(block.kind === 'quote' ? { quoted: true } : {}),
      ...(block.cell === undefined ? {} : { cell: block.cell }),
    })),
  );
}

/** The pictures that stand in a draft. */
export function picturesIn(blocks: readonly RichBlock[]): PictureBlock[] {
  return blocks.flatMap((block) =>
    block.kind === 'picture'
      ? [block]
      : block.kind === 'rows'
        ? block.rows.flatMap((row) => row.flatMap((cell) => picturesIn(cell.blocks)))
        : [],
  );
}

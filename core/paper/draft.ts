import * as v from 'valibot';
import type { DraftContent } from '../model/work.ts';
import { paperOf, type Block, type Paper } from './paper.ts';

/** A run of characters of one look. */
export interface Run {
  readonly text: string;
  readonly bold: boolean;
  readonly italic: boolean;
}

/** A block of a draft with its looks; what a Word file is written from. */
export interface RichBlock {
  readonly kind: Block['kind'];
  readonly level: number;
  readonly runs: readonly Run[];
}

const NodeSchema = v.looseObject({
  type: v.string(),
  text: v.optional(v.string()),
  attrs: v.optional(v.looseObject({ level: v.optional(v.number()) })),
  marks: v.optional(v.array(v.looseObject({ type: v.string() }))),
  content: v.optional(v.array(v.unknown())),
});
type EditorNode = v.InferOutput<typeof NodeSchema>;

function childrenOf(node: EditorNode): EditorNode[] {
  return (node.content ?? []).map((child) => v.parse(NodeSchema, child));
}

function runsOf(node: EditorNode): Run[] {
  return childrenOf(node).map((child) => ({
    text: child.type === 'hardBreak' ? '\n' : (child.text ?? ''),
    bold: child.marks?.some((mark) => mark.type === 'bold') ?? false,
    italic: child.marks?.some((mark) => mark.type === 'italic') ?? false,
  }));
}

function gather(node: EditorNode, inList: boolean, into: RichBlock[]): void {
  if (node.type === 'paragraph')
    into.push({ kind: inList ? 'item' : 'paragraph', level: 0, runs: runsOf(node) });
  else if (node.type === 'heading')
    into.push({ kind: 'heading', level: node.attrs?.level ?? 1, runs: runsOf(node) });
  else for (const child of childrenOf(node)) gather(child, inList || node.type === 'listItem', into);
}

/** A draft's blocks in order. Throws on content that no editor of this schema wrote. */
export function richBlocksOf(content: DraftContent): RichBlock[] {
  const blocks: RichBlock[] = [];
  gather(v.parse(NodeSchema, content.doc), false, blocks);
  return blocks;
}

/** A draft as plain text: its blocks parted by empty lines, those without words left out. */
export function textOfDraft(content: DraftContent): string {
  return richBlocksOf(content)
    .map(({ runs }) =>
      runs
        .map(({ text }) => text)
        .join('')
        .trim(),
    )
    .filter((text) => text !== '')
    .join('\n\n');
}

/** A draft as a paper, for comparing and following. */
export function paperOfDraft(content: DraftContent): Paper {
  return paperOf(
    richBlocksOf(content).map(({ kind, level, runs }) => ({
      kind,
      level,
      text: runs.map((run) => run.text).join(''),
    })),
  );
}

/** A draft that starts from a paper's blocks: headings, paragraphs and list items kept. */
export function draftFrom(blocks: readonly Block[]): DraftContent {
  const content: Record<string, unknown>[] = [];
  let list: Record<string, unknown>[] | null = null;
  for (const block of blocks) {
    const text = block.text === '' ? [] : [{ type: 'text', text: block.text }];
    if (block.kind === 'item') {
      if (list === null) content.push({ type: 'bulletList', content: (list = []) });
      list.push({ type: 'listItem', content: [{ type: 'paragraph', content: text }] });
      continue;
    }
    list = null;
    content.push(
      block.kind === 'heading'
        ? { type: 'heading', attrs: { level: Math.min(3, Math.max(1, block.level)) }, content: text }
        : { type: 'paragraph', content: text },
    );
  }
  if (content.length === 0) content.push({ type: 'paragraph' });
  return { schema: 1, doc: { type: 'doc', content } };
}

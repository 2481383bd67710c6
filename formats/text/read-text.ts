import type { MarkedPaper } from '../marked-paper.ts';
import { UnreadableFile } from '../unreadable.ts';
import { LayoutWriter } from './layout-writer.ts';

const PLAIN = { bold: false, italic: false };
/** Text of a paper stays far below this. */
const MOST_BYTES = 20 * 1024 * 1024;

/**
 * Reads a plain text as a paper: paragraphs parted by empty lines, and headings and list items where they are written as
 * in Markdown (CommonMark, ATX headings and bullets).
 * @throws UnreadableFile 'unknown kind' for bytes that are no text
 */
export function readText(bytes: Uint8Array): MarkedPaper {
  if (bytes.length > MOST_BYTES) throw new UnreadableFile('too large');
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new UnreadableFile('unknown kind');
  }
  const writer = new LayoutWriter();
  // A line end is looked for first: looking back from every letter would take as long as the square of the line.
  for (const part of text
    .replace(/\r\n?/g, '\n')
    .split(/\n[ \t]*\n|\n(?=[-*•][ \t])|\n(?<=^#{1,6} .*\n)|\n(?=#{1,6} )/m)) {
    const found = /^\s*(?:(#{1,6})|([-*•]))[ \t]+([\s\S]*)$/.exec(part);
    if (part.trim() === '') continue;
    if (found === null) writer.beginBlock({ kind: 'paragraph', level: 0, cell: null });
    else if (found.at(1) !== undefined)
      writer.beginBlock({ kind: 'heading', level: found[1].length, cell: null });
    else writer.beginBlock({ kind: 'item', level: 0, cell: null });
    writer.append(found === null ? part : found[3], PLAIN, []);
  }
  const { paper, layout } = writer.finish();
  return {
    kind: 'text',
    pages: [],
    pageStarts: [],
    paper,
    layout,
    marks: [],
    unknownKinds: [],
    attached: [],
  };
}

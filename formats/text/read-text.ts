import type { MarkedPaper } from '../marked-paper.ts';
import { UnreadableFile } from '../unreadable.ts';
import { LayoutWriter } from './layout-writer.ts';
import { TablePlaces } from './table-places.ts';

const PLAIN = { bold: false, italic: false };
/** Text of a paper stays far below this. */
const MOST_BYTES = 20 * 1024 * 1024;

/** Rows between upright strokes, the second of them a rule. */
const TABLE = /^\s*\|.*\|[ \t]*\n[ \t]*\|[ :|-]+\|[ \t]*(?:\n[ \t]*\|.*\|[ \t]*)*\s*$/;
const TABLE_RULE = /^\s*\|[ :|-]+\|\s*$/;

/**
 * Reads a plain text as a paper: paragraphs parted by empty lines, and headings, list items and tables where they are
 * written as in Markdown (CommonMark, ATX headings and bullets; tables with strokes at both ends).
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
  const tables = new TablePlaces();
  // A line end is looked for first: looking back from every letter would take as long as the square of the line.
  for (const part of text
    .replace(/\r\n?/g, '\n')
    .split(/\n[ \t]*\n|\n(?=[-*•][ \t])|\n(?<=^#{1,6} .*\n)|\n(?=#{1,6} )/m)) {
    const found = /^\s*(?:(#{1,6})|([-*•]))[ \t]+([\s\S]*)$/.exec(part);
    if (part.trim() === '') continue;
    if (TABLE.test(part)) {
      tables.begin();
      for (const row of part.trim().split('\n')) {
        if (TABLE_RULE.test(row)) continue;
        tables.nextRow();
        for (const cell of row
          .trim()
          .replace(/^\||\|$/g, '')
          .split('|')) {
          tables.nextColumn();
          writer.beginBlock({ kind: 'paragraph', level: 0, cell: tables.cell });
          writer.append(cell.trim(), PLAIN, []);
        }
      }
      tables.end();
      continue;
    }
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

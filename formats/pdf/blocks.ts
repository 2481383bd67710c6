import { normaliseText } from '#core/text/normalise.ts';
import { endsSentence } from '#core/text/sentences.ts';
import { paperOf, type Block, type Paper } from '#core/paper/paper.ts';
import type { Line } from './page-text.ts';

/** A line with the block it belongs to and where it begins in the whole paper's text. */
export interface PlacedLine extends Line {
  readonly block: number;
  readonly offset: number;
}

/** Larger than the body text by this factor is a heading. */
const HEADING_FACTOR = 1.08;
/** A distance between baselines over this many times the usual one ends a paragraph. */
const PARAGRAPH_GAP = 1.15;
const LIST_MARK = /^\s*[•‣◦–]\s+/;

/** Whether nothing of a sentence, or of what a colon announces, is missing after a line. */
function isComplete(line: string): boolean {
  return endsSentence(line) || line.endsWith(':');
}

/** Puts lines together to headings, paragraphs and list items, across line ends, hyphenation and pages. */
export function blocksOfLines(lines: readonly Line[]): { paper: Paper; lines: PlacedLine[] } {
  const bodySize = mostUsedSize(lines);
  const usualGap = usualDistance(lines);
  const isHeading = (line: Line) => line.size >= bodySize * HEADING_FACTOR;
  const headingSizes = [...new Set(lines.filter(isHeading).map((line) => rounded(line.size)))].sort(
    (x, y) => y - x,
  );
  const groups: Line[][] = [];
  lines.forEach((line, index) => {
    const before = lines.at(index - 1);
    if (index > 0 && before !== undefined && continues(before, line, usualGap))
      groups[groups.length - 1].push(line);
    else groups.push([line]);
  });
  const blocks: Block[] = groups.map((group) => {
    const [first] = group;
    const text = joinLines(group.map((line) => line.text)).text;
    if (isHeading(first))
      return { kind: 'heading', level: headingSizes.indexOf(rounded(first.size)) + 1, text };
    if (LIST_MARK.test(text)) return { kind: 'item', level: 0, text: text.replace(LIST_MARK, '') };
    return { kind: 'paragraph', level: 0, text };
  });
  const paper = paperOf(blocks);
  return { paper, lines: groups.flatMap((group, block) => placed(group, block, paper)) };
}

function rounded(size: number): number {
  return Math.round(size * 2) / 2;
}

function mostUsedSize(lines: readonly Line[]): number {
  const charactersBySize = new Map<number, number>();
  for (const line of lines) {
    const size = rounded(line.size);
    charactersBySize.set(size, (charactersBySize.get(size) ?? 0) + line.text.length);
  }
  return [...charactersBySize].reduce((most, entry) => (entry[1] > most[1] ? entry : most), [0, 0])[0];
}

/** The distance of baselines that most lines keep. */
function usualDistance(lines: readonly Line[]): number {
  const count = new Map<number, number>();
  lines.forEach((line, index) => {
    const before = lines.at(index - 1);
    if (index === 0 || before?.page !== line.page || before.angle !== line.angle) return;
    const distance = rounded(before.y - line.y);
    if (distance > 0) count.set(distance, (count.get(distance) ?? 0) + 1);
  });
  return [...count].reduce((most, entry) => (entry[1] > most[1] ? entry : most), [Infinity, 0])[0];
}

function continues(before: Line, line: Line, usualGap: number): boolean {
  if (Math.abs(before.size - line.size) > 0.6 || LIST_MARK.test(line.text)) return false;
  if (before.angle !== line.angle) return false;
  if (before.page !== line.page) return !isComplete(before.text.trim());
  const gap = before.y - line.y;
  // A column that begins anew stands higher than the line before it.
  if (gap < 0) return !isComplete(before.text.trim());
  return gap <= Math.max(usualGap, line.size * 1.25) * PARAGRAPH_GAP;
}

/** Lines as one text, and where each begins in it; a word cut by a hyphen at a line's end is joined. */
function joinLines(lines: readonly string[]): { text: string; starts: number[] } {
  const parts: string[] = [];
  const starts: number[] = [];
  let length = 0;
  const add = (part: string) => {
    parts.push(part);
    length += part.length;
  };
  for (const raw of lines) {
    const line = normaliseText(raw);
    const before = parts.at(-1) ?? '';
    if (/\p{L}-$/u.test(before) && /^\p{Ll}/u.test(line)) {
      parts[parts.length - 1] = before.slice(0, -1);
      length--;
    } else if (length > 0) add(' ');
    starts.push(length);
    add(line);
  }
  return { text: parts.join(''), starts };
}

function placed(group: readonly Line[], block: number, paper: Paper): PlacedLine[] {
  const { starts } = joinLines(group.map((line) => line.text));
  const limit = paper.blocks[block].text.length;
  return group.map((line, i) => ({
    ...line,
    block,
    offset: paper.starts[block] + Math.min(starts[i], limit),
  }));
}

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
/** Marks of items; fonts without names for their characters have bullets among the control characters. */
const LIST_MARK = /^\s*[•‣◦–▪●○■\uF0B7\u0080-\u009F]\s+/;
const NUMBER = /^\s*\(?(\d{1,2})[.)]\s+\S/;
/** The second of numbered items stands within so many lines of the first, and begins as far from the edge, in points. */
const ITEM_REACH = { lines: 40, aside: 6 };

/** Whether nothing of a sentence, or of what a colon announces, is missing after a line. */
function isComplete(line: string): boolean {
  return endsSentence(line) || line.endsWith(':');
}

/** Lines put together. */
export interface PutTogether {
  readonly paper: Paper;
  /** The same lines in the same order. */
  readonly lines: PlacedLine[];
  /** The numbers of the blocks that are items of numbered lists; their texts begin with their numbers. */
  readonly numbered: ReadonlySet<number>;
}

/** A quotation that is set off stands so many points further in than the lines before and after it, each line of it. */
const SET_OFF_POINTS = 14;

function isSetOff(group: readonly Line[], lines: readonly Line[]): boolean {
  const [first] = group;
  if (group.length < 2 || group.some(({ x }) => Math.abs(x - first.x) > 1)) return false;
  const at = lines.indexOf(first);
  const before = lines.at(at - 1);
  const after = lines.at(at + group.length);
  const isFurtherOut = (line: Line | undefined) =>
    line?.page === first.page && first.x - line.x >= SET_OFF_POINTS && line.right > first.x;
  // Between pages and beside headings one of the two has to do.
  return at > 0 && (isFurtherOut(before) || before?.page !== first.page) && isFurtherOut(after);
}

/** Puts lines together to headings, paragraphs and list items, across line ends, hyphenation and pages. */
export function blocksOfLines(
  lines: readonly Line[],
  /** Whether a line is set in a heavier font than most; those that stand alone are headings too. */
  isStrong: (line: Line) => boolean = () => false,
): PutTogether {
  const bodySize = mostUsedSize(lines);
  const usualGap = usualDistance(lines);
  const isHeading = (line: Line) => line.size >= bodySize * HEADING_FACTOR;
  const numberedLines = numberedItems(lines, isHeading);
  const indented = indentedBeginnings(lines);
  const headingSizes = [...new Set(lines.filter(isHeading).map((line) => rounded(line.size)))].sort(
    (x, y) => y - x,
  );
  const groups: Line[][] = [];
  lines.forEach((line, index) => {
    const before = lines.at(index - 1);
    const goesOn =
      before !== undefined &&
      !numberedLines.has(line) &&
      !indented.has(line) &&
      isStrong(before) === isStrong(line) &&
      continues(before, line, usualGap);
    if (index > 0 && goesOn) groups[groups.length - 1].push(line);
    else groups.push([line]);
  });
  const blocks: Block[] = groups.map((group) => {
    const [first] = group;
    const text = joinLines(group.map((line) => line.text)).text;
    if (isHeading(first))
      return { kind: 'heading', level: headingSizes.indexOf(rounded(first.size)) + 1, text };
    if (isShort(group, text) && group.every(isStrong))
      return { kind: 'heading', level: headingSizes.length + 1, text };
    if (LIST_MARK.test(text)) return { kind: 'item', level: 0, text: text.replace(LIST_MARK, '') };
    return { kind: 'paragraph', level: 0, text, ...(isSetOff(group, lines) ? { quoted: true } : {}) };
  });
  const paper = paperOf(blocks);
  return {
    paper,
    lines: groups.flatMap((group, block) => placed(group, block, paper)),
    numbered: new Set(groups.flatMap(([first], block) => (numberedLines.has(first) ? [block] : []))),
  };
}

/** The first lines of numbered items: each has the number after the one before, the first is 1, and there are two at least. */
function numberedItems(lines: readonly Line[], isHeading: (line: Line) => boolean): ReadonlySet<Line> {
  const found = new Set<Line>();
  let last: { readonly line: Line; readonly index: number; readonly number: number } | null = null;
  for (const [index, line] of lines.entries()) {
    const number = isHeading(line) ? null : NUMBER.exec(line.text);
    if (number === null) continue;
    const here = { line, index, number: Number(number[1]) };
    const follows =
      last !== null &&
      here.number === last.number + 1 &&
      index - last.index <= ITEM_REACH.lines &&
      Math.abs(line.x - last.line.x) <= ITEM_REACH.aside;
    if (follows && last !== null) found.add(last.line).add(line);
    if (follows || here.number === 1) last = here;
  }
  return found;
}

/** A heading that is no larger than the text is no sentence, and no longer than two lines. */
function isShort(group: readonly Line[], text: string): boolean {
  return group.length <= 2 && !/[.,;]$/.test(text.trim());
}

/** Paragraphs that begin further in, as those do between which there is no room. */
const INDENT = { least: 0.8, most: 4, times: 2 };

/**
 * The lines that begin a paragraph by standing further in than the line before. Lines that hang (references, items) stand
 * further in too: they are told apart by the line that follows, which goes on at the edge only in a paragraph.
 */
function indentedBeginnings(lines: readonly Line[]): ReadonlySet<Line> {
  const isAt = (line: Line, x: number) => Math.abs(line.x - x) <= 1;
  const may = lines.flatMap((line, index) => {
    const before = lines.at(index - 1);
    if (index === 0 || before === undefined || before.angle !== line.angle) return [];
    if (LIST_MARK.test(before.text) || NUMBER.test(before.text) || !isComplete(before.text.trim())) return [];
    const next = isComplete(line.text.trim()) ? undefined : lines.at(index + 1);
    return [{ line, before, goesOn: next?.page === line.page ? next : null }];
  });
  // Where it shows: a line further in, after one at the edge, that goes on at the edge.
  const shown = may.filter(({ line, before, goesOn }) => {
    const inBy = line.x - before.x;
    const isIn = inBy >= INDENT.least * line.size && inBy <= INDENT.most * line.size;
    return isIn && goesOn !== null && isAt(goesOn, before.x);
  });
  if (shown.length < INDENT.times) return new Set();
  return new Set(
    may
      .filter(({ line, goesOn }) =>
        shown.some(
          (one) =>
            isAt(one.line, line.x) &&
            (goesOn === null || isAt(goesOn, one.before.x)) &&
            !isAt(one.before, line.x),
        ),
      )
      .map(({ line }) => line),
  );
}

function rounded(size: number): number {
  return Math.round(size * 2) / 2;
}

/** The size in which most of the text is set. */
export function mostUsedSize(lines: readonly Line[]): number {
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

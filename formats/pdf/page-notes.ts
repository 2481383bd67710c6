import type { Line } from './page-text.ts';

/** A footnote at the foot of a page. */
export interface PageNote {
  /** What it is called by: a number or a sign. */
  readonly mark: string;
  readonly lines: readonly Line[];
}

/** Footnotes are set at most so large, measured by the text. */
const SMALL = 0.93;
const MARK = /^\s*(\d{1,3}|[*†‡§])[.)]?\s*(?=\S)/;

/** The mark that a line begins with as a footnote does, and how many characters of it that takes; null for none. */
function markOf(line: Line): { readonly mark: string; readonly length: number } | null {
  const found = MARK.exec(line.text);
  return found === null ? null : { mark: found[1], length: found[0].length };
}

/**
 * Parts the footnotes of a page from its text: small lines at its end that begin with a mark which is called, raised, in the
 * text. Small lines of another kind stay.
 * @param called the marks that were called on pages before
 */
export function notesOfPage(
  lines: readonly Line[],
  bodySize: number,
  called: ReadonlySet<string>,
): { readonly text: readonly Line[]; readonly notes: readonly PageNote[] } {
  let end = lines.length;
  while (end > 0 && lines[end - 1].size <= SMALL * bodySize) end--;
  const calls = new Set([
    ...called,
    ...lines.slice(0, end).flatMap(({ raised = [] }) => raised.map(({ text }) => text.trim())),
  ]);
  const first = lines.findIndex((line, index) => index >= end && calls.has(markOf(line)?.mark ?? ''));
  if (first < 0) return { text: lines, notes: [] };
  const notes: { mark: string; lines: Line[] }[] = [];
  for (const line of lines.slice(first)) {
    const begins = markOf(line);
    if (begins !== null && calls.has(begins.mark) && notes.every(({ mark }) => mark !== begins.mark))
      notes.push({ mark: begins.mark, lines: [{ ...line, text: line.text.slice(begins.length) }] });
    else notes[notes.length - 1].lines.push(line);
  }
  return { text: lines.slice(0, first), notes };
}

/** Lines near the edge of a page that say the same on many, but for a number, are no text of the paper. */
const HEAD = { lines: 2, share: 0.5, pages: 2 };

/** The pages without their running heads and feet: what the first or last lines of most pages say alike. */
export function withoutRunningHeads(pages: readonly (readonly Line[])[]): Line[][] {
  const bare = ({ text }: Line) => text.replace(/\d+/g, '#').trim();
  const edges = (lines: readonly Line[]) => [...lines.slice(0, HEAD.lines), ...lines.slice(-HEAD.lines)];
  const count = new Map<string, number>();
  for (const lines of pages)
    for (const text of new Set(edges(lines).map(bare))) count.set(text, (count.get(text) ?? 0) + 1);
  const isHead = (line: Line) => {
    const times = count.get(bare(line)) ?? 0;
    return times >= HEAD.pages && times > HEAD.share * pages.length;
  };
  return pages.map((lines) => {
    const edge = new Set(edges(lines));
    return lines.filter((line) => !(edge.has(line) && isHead(line)));
  });
}

import { parsed, refusedLaterAs } from '../malformed.ts';
import { boundsOf } from './bounds.ts';
import type { Span } from '#core/text/span.ts';
import { blocksOfLines } from './blocks.ts';
import { glyphsOfPage, quadOf, type Glyph } from './glyphs.ts';
import { openPdf, type PdfAssets } from './open-pdf.ts';
import { linesOfPage, type Line } from './page-text.ts';

/** Where words stand: the page from 1, a quad for each line, and the box around them, in points of the page. */
export interface PlaceOnPage {
  readonly page: number;
  readonly quads: number[][];
  readonly rect: number[];
}

/** What is compared: letters without the spaces and line-end hyphens that a paper's text and a page differ in. */
function bare(text: string): string {
  return text.normalize('NFKC').replace(/[\s\u00ad\u2010-]/g, '');
}

/**
 * Where spans of a PDF's text stand on its pages, a quad for each line; null for one whose characters are not found
 * there. A span over two pages is shown on the first.
 */
export async function quadsOfSpans(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  spans: readonly Span[],
): Promise<(PlaceOnPage | null)[]> {
  const document = await openPdf(bytes, assets, { forReading: true });
  const reading = async () => {
    const lines: Line[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await parsed(document.getPage(number));
      lines.push(...(await linesOfPage(page)));
      page.cleanup();
    }
    const { paper, lines: placed } = blocksOfLines(lines);
    const glyphsByPage = new Map<number, Glyph[]>();
    const places: (PlaceOnPage | null)[] = [];
    for (const span of spans) {
      const line = placed.findLast(({ offset }) => offset <= span.from) ?? placed.at(0);
      if (line === undefined || span.to === span.from) {
        places.push(null);
        continue;
      }
      const number = line.page;
      const onPage = placed.filter(({ page }) => page === number);
      const next = placed.find(({ page, offset }) => page > number && offset > line.offset);
      const to = Math.min(span.to, next?.offset ?? Infinity);
      const glyphs = glyphsByPage.get(number) ?? (await glyphsOfPage(await parsed(document.getPage(number))));
      glyphsByPage.set(number, glyphs);
      // The same words may stand on a page more than once: as many come before on the page as before in its text.
      const wanted = bare(paper.text.slice(span.from, to));
      const before = occurrences(bare(paper.text.slice(onPage[0].offset, span.from) + wanted), wanted) - 1;
      places.push(placeOf(number, glyphs, wanted, before));
    }
    return places;
  };
  try {
    return await refusedLaterAs('damaged PDF', reading);
  } finally {
    await document.loadingTask.destroy();
  }
}

function occurrences(text: string, wanted: string): number {
  let count = 0;
  for (let i = text.indexOf(wanted); i >= 0; i = text.indexOf(wanted, i + 1)) count++;
  return count;
}

function placeOf(page: number, glyphs: readonly Glyph[], wanted: string, before: number): PlaceOnPage | null {
  const owners: number[] = [];
  let text = '';
  glyphs.forEach((glyph, index) => {
    const own = bare(glyph.text);
    text += own;
    for (let i = 0; i < own.length; i++) owners.push(index);
  });
  let at = -1;
  let last = -1;
  for (let i = 0; i <= Math.max(0, before); i++) {
    at = text.indexOf(wanted, at + 1);
    if (at < 0) break;
    last = at;
  }
  if (wanted === '' || last < 0) return null;
  const quads = lineRuns(glyphs.slice(owners[last], owners[last + wanted.length - 1] + 1)).map(
    ([first, end]) => quadOf(first, end),
  );
  return { page, quads, rect: boundsOf(quads.flat()) };
}

/** Runs of characters that stand on one line, as their first and last. */
function lineRuns(glyphs: readonly Glyph[]): [Glyph, Glyph][] {
  const runs: [Glyph, Glyph][] = [];
  for (const glyph of glyphs) {
    if (glyph.text.trim() === '') continue;
    const run = runs.at(-1);
    if (run === undefined || !follows(run[1], glyph)) runs.push([glyph, glyph]);
    else run[1] = glyph;
  }
  return runs;
}

function follows(before: Glyph, glyph: Glyph): boolean {
  const length = Math.hypot(before.dx, before.dy) || 1;
  const [ux, uy] = [before.dx / length, before.dy / length];
  const [x, y] = [glyph.x - before.x, glyph.y - before.y];
  return Math.abs(x * -uy + y * ux) < 0.5 * before.size && x * ux + y * uy > -before.size;
}

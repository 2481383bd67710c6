import * as v from 'valibot';
import { quoteOf, squeeze } from '#core/anchors/locate.ts';
import { Instant } from '#core/model/ids.ts';
import type { TextQuote } from '#core/model/remark.ts';
import { blockAt, type Paper } from '#core/paper/paper.ts';
import { normaliseText } from '#core/text/normalise.ts';
import { blocksOfLines, type PlacedLine } from './blocks.ts';
import { readAnnotationNames } from './names.ts';
import type { Anchor, Mark, MarkedPdf, PageSize } from './marked-pdf.ts';
import { locateMarkedWords } from './marked-words.ts';
import { openPdf, type PdfAssets } from './open-pdf.ts';
import { linesOfPage, type Line } from './page-text.ts';
import { UnreadableFile } from '../unreadable.ts';

/** Kinds of annotation that are remarks; links, widgets, popups and files are not. */
const REMARK_KINDS = new Set([
  'Highlight',
  'Underline',
  'Squiggly',
  'StrikeOut',
  'Text',
  'FreeText',
  'Ink',
  'Square',
  'Circle',
  'Polygon',
  'PolyLine',
  'Line',
  'Caret',
  'Stamp',
]);
const NOT_REMARKS = new Set(['Link', 'Widget', 'Popup', 'FileAttachment', 'Sound']);

/** What pdf.js tells of an annotation, as far as it is used here. */
const RawAnnotation = v.object({
  id: v.string(),
  subtype: v.optional(v.string(), ''),
  rect: v.array(v.number()),
  quadPoints: v.nullish(v.unknown()),
  overlaidText: v.optional(v.string(), ''),
  contentsObj: v.optional(v.object({ str: v.string() }), { str: '' }),
  titleObj: v.optional(v.object({ str: v.string() }), { str: '' }),
  creationDate: v.nullish(v.string()),
  modificationDate: v.nullish(v.string()),
  color: v.nullish(v.unknown()),
  inReplyTo: v.nullish(v.string()),
});
type RawAnnotation = v.InferOutput<typeof RawAnnotation>;

/**
 * Reads a marked PDF: its text as headings and paragraphs, and every annotation that is a remark, with the words it is
 * about. Replies and popups are not remarks of their own.
 * @param progress called with pages done and pages in all
 * @throws UnreadableFile as openPdf
 */
export async function readMarkedPdf(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  progress: (done: number, of: number) => void = () => undefined,
): Promise<MarkedPdf> {
  const { pages, lines, raw } = await readPages(bytes, assets, progress);
  const names = await readAnnotationNames(bytes);
  const { paper, lines: placedLines } = blocksOfLines(lines);
  const squeezed = squeeze(paper.text);
  const wanted = raw.filter(
    ({ annotation }) => REMARK_KINDS.has(annotation.subtype) && (annotation.inReplyTo ?? null) === null,
  );
  const marks = wanted.map(({ page, annotation }): Mark => {
    const quads = quadsOf(annotation.quadPoints);
    const anchor = anchorOf(annotation, page, paper, squeezed, placedLines);
    return {
      sourceId: names.get(annotation.id)?.name ?? null,
      kind: annotation.subtype.toLowerCase(),
      page,
      rect: annotation.rect,
      quads,
      quote: anchor?.exactly === true ? quoteOf(paper.text, anchor) : bareQuote(annotation.overlaidText),
      text: annotation.contentsObj.str.replaceAll('\r\n', '\n').replaceAll('\r', '\n'),
      author: annotation.titleObj.str,
      at: instantOfPdfDate(annotation.creationDate ?? annotation.modificationDate ?? null),
      color: colorOf(annotation.color),
      subject: names.get(annotation.id)?.subject ?? null,
      anchor,
    };
  });
  const unknown = raw
    .map(({ annotation }) => annotation.subtype)
    .filter((kind) => !REMARK_KINDS.has(kind) && !NOT_REMARKS.has(kind));
  return { pages, paper, marks, unknownKinds: [...new Set(unknown)] };
}

interface RawPages {
  readonly pages: readonly PageSize[];
  readonly lines: readonly Line[];
  readonly raw: readonly { readonly page: number; readonly annotation: RawAnnotation }[];
}

/** Everything that pdf.js tells of each page. A page that it fails at makes the file a damaged one. */
async function readPages(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  progress: (done: number, of: number) => void,
): Promise<RawPages> {
  const document = await openPdf(bytes, assets);
  try {
    const pages: PageSize[] = [];
    const lines: Line[] = [];
    const raw: { page: number; annotation: RawAnnotation }[] = [];
    for (let number = 1; number <= document.numPages; number++) {
      const page = await document.getPage(number);
      const { width, height, transform } = page.getViewport({ scale: 1 });
      pages.push({ width, height, transform });
      lines.push(...(await linesOfPage(page)));
      for (const annotation of (await page.getAnnotations({ intent: 'display' })) as unknown[]) {
        const parsed = v.safeParse(RawAnnotation, annotation);
        if (parsed.success) raw.push({ page: number, annotation: parsed.output });
      }
      page.cleanup();
      progress(number, document.numPages);
    }
    return { pages, lines, raw };
  } catch (error) {
    throw new UnreadableFile('damaged PDF', error instanceof Error ? error.message : '');
  } finally {
    await document.loadingTask.destroy();
  }
}

function quadsOf(points: unknown): number[][] {
  if (!(points instanceof Float32Array)) return [];
  const quads: number[][] = [];
  for (let i = 0; i + 8 <= points.length; i += 8) quads.push(Array.from(points.subarray(i, i + 8)));
  return quads;
}

/** Words that the page's text doesn't hold in this order, kept without context. */
function bareQuote(overlaid: string): TextQuote | null {
  const exact = normaliseText(overlaid);
  return exact === '' ? null : { exact, prefix: '', suffix: '' };
}

function anchorOf(
  annotation: RawAnnotation,
  page: number,
  paper: Paper,
  squeezed: ReturnType<typeof squeeze>,
  lines: readonly PlacedLine[],
): Anchor | null {
  const middle = (annotation.rect[1] + annotation.rect[3]) / 2;
  const line = nearestLine(lines, page, annotation.overlaidText === '' ? middle : annotation.rect[3]);
  if (line === null) return null;
  const words = locateMarkedWords(paper.text, squeezed, annotation.overlaidText, line.offset);
  if (words !== null) return { ...words, exactly: true };
  const block = blockAt(paper, line.offset);
  const from = paper.starts[block];
  return { from, to: from + paper.blocks[block].text.length, exactly: false };
}

function nearestLine(lines: readonly PlacedLine[], page: number, y: number): PlacedLine | null {
  let nearest: PlacedLine | null = null;
  let least = Infinity;
  for (const line of lines) {
    const distance = Math.abs(line.y + line.size * 0.3 - y);
    if (line.page === page && distance < least) {
      least = distance;
      nearest = line;
    }
  }
  return nearest;
}

function colorOf(color: unknown): string | null {
  if (!(color instanceof Uint8ClampedArray) || color.length < 3) return null;
  return `#${Array.from(color.subarray(0, 3), (part) => part.toString(16).padStart(2, '0')).join('')}`;
}

const PDF_DATE = /^D:(\d{4})(\d\d)?(\d\d)?(\d\d)?(\d\d)?(\d\d)?(?:Z|([+-])(\d\d)'?(\d\d)?'?)?/;

/** A PDF date (ISO 32000-1, 7.9.4) as an instant; null for what is none. Without a zone it counts as UTC. */
function instantOfPdfDate(date: string | null): Instant | null {
  const found = date === null ? null : PDF_DATE.exec(date);
  if (found === null) return null;
  const part = (index: number, or: number) => Number(found.at(index) ?? or);
  const offset = (found.at(7) === '-' ? -1 : 1) * (part(8, 0) * 60 + part(9, 0)) * 60_000;
  const at = Date.UTC(part(1, 0), part(2, 1) - 1, part(3, 1), part(4, 0), part(5, 0), part(6, 0)) - offset;
  return Number.isNaN(at) ? null : v.parse(Instant, new Date(at).toISOString());
}

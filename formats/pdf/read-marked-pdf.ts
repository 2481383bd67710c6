import { parsed, refusedLaterAs } from '../malformed.ts';
import { quoteOf } from '#core/text/quotation.ts';
import { squeeze } from '#core/text/squeeze.ts';
import type { Span } from '#core/text/span.ts';
import type { Target, TextQuote } from '#core/model/remark.ts';
import { blockAt, type Paper } from '#core/paper/paper.ts';
import { normaliseText } from '#core/text/normalise.ts';
import { OWN_COPY } from '../annotated/own-copy.ts';
import { isMachine } from '../machine.ts';
import type { Anchor, AttachedFile, Mark, MarkedPaper, PageSize } from '../marked-paper.ts';
import { annotationsOfPage, threadsOf, type Annotation, type AnnotationThread } from './annotations.ts';
import { boundsOf } from './bounds.ts';
import { blocksOfLines, type PlacedLine } from './blocks.ts';
import { glyphsOfPage, type Glyph } from './glyphs.ts';
import {
  ellipseArea,
  locateGlyphs,
  markedGlyphs,
  polygonArea,
  quadArea,
  rectArea,
  textOfGlyphs,
  wordsIn,
} from './marked-words.ts';
import { readAnnotationNames } from './names.ts';
import { openPdf, type PdfAssets } from './open-pdf.ts';
import { linesOfPage, turned, type Line } from './page-text.ts';

const TEXT_MARKUP = new Set(['highlight', 'underline', 'squiggly', 'strikeout']);
/** So many pages are asked for before the one at hand is done. */
const PAGES_AHEAD = 3;
/** From so many pages on it is worth while to open the file more than once. */
const MANY_PAGES = 24;
const ENCLOSING = new Set(['square', 'circle', 'polygon']);

/** How a PDF is read. */
export interface PdfReading {
  readonly password?: string;
  /** Annotations that came in a file of their own, to be read in place of those in the PDF. */
  readonly annotations?: readonly Annotation[];
  /** Called with pages done and pages in all. */
  readonly progress?: (done: number, of: number) => void;
}

/**
 * Reads a marked PDF: its text as headings and paragraphs, and every annotation that is a remark, with the words it is
 * about, its replies and its state.
 * @throws UnreadableFile as openPdf
 */
export async function readMarkedPdf(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  options: PdfReading = {},
): Promise<MarkedPaper> {
  const { pages, lines, annotations, glyphsByPage, attached, isOwnCopy } = await refusedLaterAs(
    'damaged PDF',
    () => readPages(bytes, assets, options),
  );
  const { paper, lines: placedLines } = blocksOfLines(lines);
  const { threads, unknownKinds } = threadsOf(annotations);
  const squeezed = squeeze(paper.text);
  const linesByPage = new Map<number, PlacedLine[]>();
  for (const line of placedLines) {
    const own = linesByPage.get(line.page);
    if (own === undefined) linesByPage.set(line.page, [line]);
    else own.push(line);
  }
  const marks = threads.map((thread) => markOf(thread, { paper, squeezed, linesByPage, glyphsByPage }));
  const files = annotations.flatMap(({ file }) => (file === null ? [] : [file]));
  return {
    kind: 'pdf',
    pages,
    pageStarts: startsOfPages(pages.length, placedLines, paper),
    paper,
    layout: null,
    marks,
    unknownKinds,
    attached: [...attached, ...files],
    isOwnCopy,
  };
}

/** A page without words begins where the next one does. */
function startsOfPages(count: number, lines: readonly PlacedLine[], { text }: Paper): number[] {
  const starts = new Array<number>(count).fill(text.length);
  for (const { page, offset } of lines) starts[page - 1] = Math.min(starts[page - 1], offset);
  for (let i = count - 2; i >= 0; i--) starts[i] = Math.min(starts[i], starts[i + 1]);
  return starts;
}

interface RawPages {
  readonly pages: PageSize[];
  readonly lines: Line[];
  readonly annotations: Annotation[];
  /** Of the pages on which words have to be found. */
  readonly glyphsByPage: Map<number, Glyph[]>;
  readonly attached: AttachedFile[];
  isOwnCopy: boolean;
}

/** Everything that pdf.js tells of each page. A page that it fails at makes the file a damaged one. */
async function readPages(
  bytes: Uint8Array,
  assets: PdfAssets | null,
  { password, progress, annotations: given }: PdfReading,
): Promise<RawPages> {
  const open = (thread: number) => openPdf(bytes, assets, { password, forReading: true, thread });
  const document = await open(0);
  const readers = [document];
  try {
    const threads = document.numPages < MANY_PAGES ? 1 : (assets?.threads?.length ?? 1);
    while (readers.length < threads) readers.push(await open(readers.length));
    // Another reader of the file gathers them while pages are already being read; only the annotations wait for them.
    const named = readAnnotationNames(bytes, password);
    const read: RawPages = {
      pages: [],
      lines: [],
      annotations: [],
      glyphsByPage: new Map(),
      attached: [],
      isOwnCopy: false,
    };
    const readPage = async (number: number) => {
      const page = await parsed(readers[number % readers.length].getPage(number));
      const { width, height, transform } = page.getViewport({ scale: 1 });
      const [lines, own] = await Promise.all([
        linesOfPage(page),
        given?.filter((one) => one.page === number) ?? annotationsOfPage(page, named),
      ]);
      const needsGlyphs = own.some(({ kind }) => TEXT_MARKUP.has(kind) || ENCLOSING.has(kind));
      const glyphs = needsGlyphs ? await glyphsOfPage(page) : null;
      page.cleanup();
      return { size: { width, height, transform }, lines, own, glyphs };
    };
    // Some are asked for ahead, so that the thread that reads and the one that works on it don't wait for one another.
    const ahead: ReturnType<typeof readPage>[] = [];
    let asked = 0;
    for (let number = 1; number <= document.numPages; number++) {
      while (asked < document.numPages && asked < number + PAGES_AHEAD * readers.length) {
        const next = readPage(++asked);
        // Told when its turn comes, and no sooner.
        next.catch(() => undefined);
        ahead.push(next);
      }
      const page = await ahead.shift();
      if (page === undefined) break;
      read.pages.push(page.size);
      read.lines.push(...page.lines);
      read.annotations.push(...page.own);
      if (page.glyphs !== null) read.glyphsByPage.set(number, page.glyphs);
      progress?.(number, document.numPages);
    }
    read.annotations.push(...(given ?? []).filter((one) => one.page > document.numPages));
    const { info } = (await parsed(document.getMetadata())) as { info: { Custom?: object } };
    read.isOwnCopy = Object.hasOwn(info.Custom ?? {}, OWN_COPY);
    const embedded = ((await parsed(document.getAttachments())) ?? {}) as Record<
      string,
      { filename?: unknown; content?: unknown }
    >;
    for (const [name, { filename, content }] of Object.entries(embedded))
      if (content instanceof Uint8Array)
        read.attached.push({
          name: typeof filename === 'string' ? filename : name,
          bytes: new Uint8Array(content),
        });
    return read;
  } finally {
    await Promise.all(readers.map(({ loadingTask }) => loadingTask.destroy()));
  }
}

interface Surroundings {
  readonly paper: Paper;
  readonly squeezed: ReturnType<typeof squeeze>;
  readonly linesByPage: ReadonlyMap<number, readonly PlacedLine[]>;
  readonly glyphsByPage: ReadonlyMap<number, Glyph[]>;
}

function markOf({ annotation, grouped, replies, state }: AnnotationThread, around: Surroundings): Mark {
  const placed = [annotation, ...grouped].flatMap((one) => placesOf(one, around));
  const anchor = placed.find((one) => one.anchor?.exactly === true)?.anchor ?? placed[0].anchor;
  const texts = [annotation, ...grouped].map(({ text }) => text).filter((text) => text !== '');
  return {
    sourceId: annotation.sourceId,
    kind: annotation.kind,
    author: annotation.author,
    byMachine: isMachine(annotation.author),
    at: annotation.at,
    color: annotation.color,
    text: [...new Set(texts)].join('\n') || (annotation.file?.name ?? ''),
    subject: annotation.subject,
    targets: placed.map(({ target }) => target),
    anchor,
    textAt: placed[0].textAt,
    replies,
    state,
    change: null,
  };
}

interface Placed {
  readonly target: Target;
  readonly anchor: Anchor | null;
  readonly textAt: number | null;
}

/** The places of an annotation: more than one where it lies on words that stand apart from one another. */
function placesOf(annotation: Annotation, around: Surroundings): Placed[] {
  const { kind, quads } = annotation;
  const whole = placeOf(annotation, around);
  if (whole.anchor?.exactly === true || !TEXT_MARKUP.has(kind) || quads.length < 2) return [whole];
  const runs: { quads: number[][]; span: Span }[] = [];
  for (const quad of quads) {
    const { anchor } = placeOf({ ...annotation, quads: [quad], rect: boundsOf(quad) }, around);
    if (anchor?.exactly !== true) return [whole];
    const last = runs.at(-1);
    const goesOn =
      last !== undefined &&
      anchor.from >= last.span.to &&
      around.paper.text.slice(last.span.to, anchor.from).trim() === '';
    if (goesOn)
      runs[runs.length - 1] = { quads: [...last.quads, quad], span: { ...last.span, to: anchor.to } };
    else runs.push({ quads: [quad], span: anchor });
  }
  return runs.map(({ quads: own, span }) => ({
    target: {
      kind: 'words',
      page: annotation.page,
      quads: own,
      rect: boundsOf(own.flat()),
      quote: quoteOf(around.paper.text, span),
    },
    anchor: { from: span.from, to: span.to, exactly: true },
    textAt: span.from,
  }));
}

/** What an annotation is about, and where that stands in the paper's text. */
function placeOf(annotation: Annotation, around: Surroundings): Placed {
  const { page, rect, quads } = annotation;
  const glyphs = around.glyphsByPage.get(page) ?? [];
  const indices = glyphsUnder(annotation, glyphs);
  const line = nearestLine(around.linesByPage.get(page) ?? [], rect);
  const span = locateGlyphs(around.squeezed, glyphs, indices, line?.offset ?? 0);
  const quote = quoteUnder(around.paper, span, textOfGlyphs(glyphs, indices));
  const anchor = span !== null ? { ...span, exactly: true } : nearAnchor(around.paper, line);
  const textAt = span?.from ?? line?.offset ?? null;
  if (quote === null)
    return {
      target: { kind: 'point', page, rect, shape: annotation.shape, drawn: annotation.drawn },
      anchor,
      textAt,
    };
  return {
    target: { kind: 'words', page, quads: TEXT_MARKUP.has(annotation.kind) ? quads : [], rect, quote },
    anchor,
    textAt,
  };
}

function glyphsUnder({ kind, quads, rect, shape }: Annotation, glyphs: readonly Glyph[]): number[] {
  if (TEXT_MARKUP.has(kind))
    return markedGlyphs(glyphs, quads.length > 0 ? quads.map(quadArea) : [rectArea(rect)]);
  if (kind === 'square') return wordsIn(glyphs, rectArea(rect));
  if (kind === 'circle') return wordsIn(glyphs, ellipseArea(rect));
  if (kind === 'polygon' && shape.length > 0) return wordsIn(glyphs, polygonArea(shape[0]));
  return [];
}

function quoteUnder(paper: Paper, span: Span | null, shown: string): TextQuote | null {
  if (span !== null) return quoteOf(paper.text, span);
  // Words that the page's text doesn't hold in this order are kept without context.
  const exact = normaliseText(shown);
  return exact === '' ? null : { exact, prefix: '', suffix: '' };
}

/** The paragraph nearest to a place. */
function nearAnchor(paper: Paper, line: PlacedLine | null): Anchor | null {
  if (line === null) return null;
  const block = blockAt(paper, line.offset);
  const from = paper.starts[block];
  return { from, to: from + paper.blocks[block].text.length, exactly: false };
}

function nearestLine(
  lines: readonly PlacedLine[],
  [left, bottom, right, top]: readonly number[],
): PlacedLine | null {
  let nearest: PlacedLine | null = null;
  let least = Infinity;
  for (const line of lines) {
    const { x, y } = turned((left + right) / 2, (bottom + top) / 2, line.angle);
    const aside = Math.max(0, line.x - x, x - line.right);
    // Notes stand in the margin: what is beside counts less than what is above or below.
    const distance = Math.abs(line.y + line.size * 0.3 - y) + aside * 0.2;
    if (distance < least) {
      least = distance;
      nearest = line;
    }
  }
  return nearest;
}

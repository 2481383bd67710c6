import { PDFDict, PDFDocument, PDFHexString, PDFName, PDFString, type PDFPage } from '@cantoo/pdf-lib';
import { parsed, refusedLaterAs } from '../malformed.ts';
import { layOutPdf, type LaidOut, type PdfFonts, type PdfToWrite } from '../pdf/write-pdf.ts';
import { entryKey, remarkOfEntry } from './entry-key.ts';
import type { Ground } from './ground.ts';
import { insertTagged } from './join-tagged.ts';
import { digitsIn, putNumbers, type NumberedMark } from './numbers.ts';
import { OWN_COPY } from './own-copy.ts';
import { addBookmarks, type Bookmark } from './outlines.ts';
import { putAnnotations, renameAuthors, type PutRemark } from './put-annotations.ts';
import type { RemarkOut } from './remark-out.ts';

/** Where a bookmark leads: to a remark's mark (else its entry), or to what has a name in the pages before or behind. */
type BookmarkTo = { readonly remarkId: string } | { readonly key: string };

/** A bookmark: where it leads, and those below it. */
export interface BookmarkToWrite {
  readonly title: string;
  readonly to: BookmarkTo;
  readonly below: readonly BookmarkToWrite[];
}

/** A paper with its remarks, to be written as one PDF. */
export interface AnnotatedToWrite {
  readonly title: string;
  /** BCP 47. */
  readonly language: string;
  /** When it is made, ISO 8601. */
  readonly at: string;
  /** Pages before and behind the paper. What has the key of a remark's entry (`entryKey`) leads to its mark and back. */
  readonly before: PdfToWrite['blocks'];
  readonly behind: PdfToWrite['blocks'];
  readonly remarks: readonly RemarkOut[];
  /** What the link over a remark's number says, by its id. */
  readonly linkSays: ReadonlyMap<string, string>;
  readonly bookmarks: readonly BookmarkToWrite[];
  /** What authors of annotations that the paper holds are called instead, by their names. */
  readonly renamed?: ReadonlyMap<string, string> | undefined;
}

/** Steps of which progress is told: laying out, marking, joining, saving. */
const STEPS = 100;

/**
 * Writes a paper as PDF with its remarks as annotations, each numbered on its page, and the pages before and behind it:
 * linked both ways, tagged, with bookmarks.
 * @throws UnreadableFile 'damaged PDF' for a paper whose PDF can't be written anew
 */
export async function writeAnnotatedPdf(
  ground: Ground | null,
  content: AnnotatedToWrite,
  fonts: PdfFonts,
  progress: (done: number, of: number) => void = () => undefined,
): Promise<Uint8Array<ArrayBuffer>> {
  const { title, language, at, remarks } = content;
  const about = { title, language, at, numbered: false };
  const [before, behind] = [
    await layOutPdf({ ...about, blocks: content.before }, fonts),
    await layOutPdf(
      {
        ...about,
        blocks: content.behind,
        progress: (done, of) => progress((done / of) * 0.5 * STEPS, STEPS),
      },
      fonts,
    ),
  ];
  const document = ground === null ? await PDFDocument.create() : await opened(ground.bytes);
  const paper = document.getPages();
  const placed = remarks.flatMap((remark) => {
    const places = ground?.places.get(remark.id)?.filter(({ page }) => page < paper.length) ?? [];
    return places.length === 0 ? [] : [{ remark, places }];
  });
  for (const one of placed) if (!one.remark.isInPaper) putAnnotations(document, paper, one);
  if (content.renamed !== undefined) renameAuthors(paper, content.renamed);
  progress(0.7 * STEPS, STEPS);
  const front = content.before.length === 0 ? [] : await putPages(document, before.bytes, 0);
  const back =
    content.behind.length === 0 ? [] : await putPages(document, behind.bytes, document.getPageCount());
  const around = [
    { pages: front, places: before.places },
    { pages: back, places: behind.places },
  ];
  const named = new Map<string, Spot>();
  for (const { pages, places } of around)
    for (const [key, [place]] of places) named.set(key, spotOf(pages, place));
  const marks = new Map<string, Spot>(
    placed.map(({ remark, places: [{ page, rect }] }) => [
      remark.id,
      { page: paper[page], left: rect[0], top: rect[3] },
    ]),
  );
  await putAllNumbers(document, paper, placed, { named, says: content.linkSays }, fonts);
  for (const { pages, places } of around) linkEntries(document, pages, places, marks);
  const spotFor = (to: BookmarkTo) =>
    'key' in to ? named.get(to.key) : (marks.get(to.remarkId) ?? named.get(entryKey(to.remarkId)));
  addBookmarks(document, bookmarksOf(content.bookmarks, spotFor));
  labelPages(document, front.length, paper.length, back.length);
  describe(document, content);
  progress(0.9 * STEPS, STEPS);
  const bytes = await parsed(document.save({ addDefaultPage: false, updateFieldAppearances: false }));
  progress(STEPS, STEPS);
  return new Uint8Array(bytes);
}

function opened(bytes: Uint8Array): Promise<PDFDocument> {
  return refusedLaterAs('damaged PDF', () =>
    parsed(PDFDocument.load(bytes, { updateMetadata: false, throwOnInvalidObject: false })),
  );
}

/** A place on a page. */
interface Spot {
  readonly page: PDFPage;
  readonly left: number;
  readonly top: number;
}

function spotOf(pages: readonly PDFPage[], { page, rect }: LaidOut): Spot {
  return { page: pages[page], left: rect[0], top: rect[3] };
}

async function putPages(document: PDFDocument, bytes: Uint8Array, at: number): Promise<PDFPage[]> {
  const own = await PDFDocument.load(bytes, { updateMetadata: false });
  insertTagged(document, own, at);
  return document.getPages().slice(at, at + own.getPageCount());
}

async function putAllNumbers(
  document: PDFDocument,
  paper: readonly PDFPage[],
  placed: readonly PutRemark[],
  { named, says }: { readonly named: ReadonlyMap<string, Spot>; readonly says: ReadonlyMap<string, string> },
  fonts: PdfFonts,
): Promise<void> {
  const digits = await digitsIn(fonts.bold[0]);
  const byPage = new Map<number, NumberedMark[]>();
  for (const { remark, places } of placed)
    for (const { page, rect, quads } of places) {
      const entry = named.get(entryKey(remark.id));
      if (entry === undefined) continue;
      const [first] = quads.length > 0 ? quads : [[rect[0], rect[3]]];
      const mark: NumberedMark = {
        number: remark.number,
        at: [first[0], first[1]],
        says: says.get(remark.id) ?? String(remark.number),
        to: { page: entry.page.ref, left: entry.left, top: entry.top },
      };
      const known = byPage.get(page);
      if (known === undefined) byPage.set(page, [mark]);
      else known.push(mark);
    }
  for (const [page, own] of byPage) putNumbers(document, paper[page], own, digits);
}

/** From each entry back to its mark. */
function linkEntries(
  document: PDFDocument,
  pages: readonly PDFPage[],
  places: ReadonlyMap<string, readonly LaidOut[]>,
  marks: ReadonlyMap<string, Spot>,
): void {
  for (const [key, lines] of places) {
    const mark = marks.get(remarkOfEntry(key) ?? '');
    if (mark === undefined) continue;
    for (const place of lines) {
      const link = document.context.obj({
        Type: 'Annot',
        Subtype: 'Link',
        Rect: [...place.rect],
        Border: [0, 0, 0],
        F: 4,
        Dest: [mark.page.ref, 'XYZ', mark.left, mark.top, null],
      });
      pages[place.page].node.addAnnot(document.context.register(link));
    }
  }
}

function bookmarksOf(
  wanted: readonly BookmarkToWrite[],
  spotFor: (to: BookmarkTo) => Spot | undefined,
): Bookmark[] {
  return wanted.flatMap(({ title, to, below }) => {
    const own = bookmarksOf(below, spotFor);
    const spot = spotFor(to);
    if (spot !== undefined)
      return [{ title, to: { page: spot.page.ref, left: spot.left, top: spot.top }, below: own }];
    return own.length === 0 ? [] : [{ title, to: own[0].to, below: own }];
  });
}

/** The paper's pages keep their numbers, from 1; those before and behind are counted by themselves. */
function labelPages(document: PDFDocument, before: number, paper: number, behind: number): void {
  const { context } = document;
  const ranges = [
    ...(before > 0 ? [0, context.obj({ S: 'r' })] : []),
    ...(paper > 0 ? [before, context.obj({ S: 'D' })] : []),
    ...(behind > 0 ? [before + paper, context.obj({ S: 'D', P: PDFString.of('R') })] : []),
  ];
  document.catalog.set(PDFName.of('PageLabels'), context.register(context.obj({ Nums: ranges })));
}

function describe(document: PDFDocument, { title, language, at }: AnnotatedToWrite): void {
  const { catalog } = document;
  const date = new Date(at);
  document.setTitle(title, { showInWindowTitleBar: true });
  document.setProducer('Juncture');
  document.setModificationDate(date);
  // Whoever takes it in again knows by this that most of it is known.
  document.context
    .lookup(document.context.trailerInfo.Info, PDFDict)
    .set(PDFName.of(OWN_COPY), PDFHexString.fromText('1'));
  if (document.getCreationDate() === undefined) document.setCreationDate(date);
  if (catalog.get(PDFName.of('Lang')) === undefined)
    catalog.set(PDFName.of('Lang'), PDFHexString.fromText(language));
  // Opens with its bookmarks.
  if (catalog.lookup(PDFName.of('Outlines')) instanceof PDFDict)
    catalog.set(PDFName.of('PageMode'), PDFName.of('UseOutlines'));
}

import type { Remark, Target } from '#core/model/remark.ts';
import type { Anchor, MarkedPaper } from '../marked-paper.ts';
import type { PdfAssets } from '../pdf/open-pdf.ts';
import { quadsOfSpans } from '../pdf/place-spans.ts';
import { layOutPdf, type LaidOut, type PdfFonts } from '../pdf/write-pdf.ts';
import { cornersOf } from '../web-annotation/svg-region.ts';
import { placesOfLines, placesOfTargets, type MarkPlace } from './mark-place.ts';
import { pagesOfLayout } from './pages-of-layout.ts';

/** A paper as PDF, and where on it its remarks have their places. */
export interface Ground {
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** By the remark's id; not there for one that has no place on a page. */
  readonly places: ReadonlyMap<string, readonly MarkPlace[]>;
}

/** A picture as a PDF holds it: upright, PNG or JPEG. */
export interface UprightPicture {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly width: number;
  readonly height: number;
}

/** What a paper is made a PDF of. */
export interface PaperAsGround {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly paper: Pick<MarkedPaper, 'kind' | 'pages' | 'paper' | 'layout'>;
  /** What is told of it in the file. */
  readonly about: { readonly title: string; readonly language: string; readonly at: string };
  /** Decodes a picture; needed for pictures alone. */
  readonly uprightPicture: (bytes: Uint8Array<ArrayBuffer>) => Promise<UprightPicture>;
}

/**
 * The PDF that a paper's remarks are put onto: itself, or laid out from its text, or from its picture.
 * @param anchors where the remarks hang in the paper's text
 */
export async function groundOf(
  { bytes, paper, about, uprightPicture }: PaperAsGround,
  remarks: readonly Remark[],
  anchors: Readonly<Record<string, Anchor>>,
  fonts: PdfFonts,
  assets: PdfAssets | null,
): Promise<Ground> {
  if (paper.kind === 'pdf') return { bytes, places: await placesOnPdf(bytes, remarks, anchors, assets) };
  if (paper.kind === 'picture') {
    const picture = await uprightPicture(bytes);
    const page = { kind: 'picture page' as const, ...picture, alt: about.title, key: PICTURE };
    const laid = await layOutPdf({ ...about, blocks: [page], numbered: false }, fonts);
    const [place] = laid.places.get(PICTURE) ?? [];
    const size = paper.pages.at(0) ?? picture;
    return { bytes: laid.bytes, places: placesOnPicture(remarks, place, size.width) };
  }
  if (paper.layout === null) throw new Error('a paper without pages has a layout');
  const { blocks, pictures } = pagesOfLayout(paper.layout, paper.paper, remarks, anchors);
  const laid = await layOutPdf({ ...about, blocks, pictures }, fonts);
  const places = new Map([...laid.places].map(([id, lines]) => [id, placesOfLines(lines)] as const));
  return { bytes: laid.bytes, places };
}

const PICTURE = 'picture';

/** Words that came from another file have a place in the text alone: it is looked for on the pages. */
async function placesOnPdf(
  bytes: Uint8Array<ArrayBuffer>,
  remarks: readonly Remark[],
  anchors: Readonly<Record<string, Anchor>>,
  assets: PdfAssets | null,
): Promise<Map<string, MarkPlace[]>> {
  const places = new Map(remarks.map(({ id, targets }) => [id, placesOfTargets(targets)] as const));
  const lost = remarks.filter(
    ({ id, targets }) =>
      places.get(id)?.length === 0 &&
      targets.some(({ kind }) => kind === 'words') &&
      (anchors[id] as Anchor | undefined) !== undefined,
  );
  if (lost.length > 0) {
    const found = await quadsOfSpans(
      bytes,
      assets,
      lost.map(({ id }) => anchors[id]),
    );
    for (const [index, { id }] of lost.entries()) {
      const place = found[index];
      if (place !== null)
        places.set(id, [{ page: place.page - 1, rect: place.rect, quads: place.quads, shape: [] }]);
    }
  }
  return new Map([...places].filter(([, own]) => own.length > 0));
}

function placesOnPicture(
  remarks: readonly Remark[],
  { page, rect: [left, bottom, right, top] }: LaidOut,
  width: number,
): Map<string, MarkPlace[]> {
  const scale = (right - left) / width;
  const x = (value: number) => left + value * scale;
  const y = (value: number) => top - value * scale;
  const placed = (target: Target): MarkPlace[] => {
    if (target.kind !== 'region') return [];
    const corners = target.outline === null ? null : cornersOf(target.outline);
    const shape = corners === null ? [] : [corners.map((value, i) => (i % 2 === 0 ? x(value) : y(value)))];
    const rect = [x(target.x), y(target.y + target.height), x(target.x + target.width), y(target.y)];
    return [
      { page, rect: rect.map((value, i) => inside(value, i, left, bottom, right, top)), quads: [], shape },
    ];
  };
  return new Map(
    remarks.flatMap(({ id, targets }) => {
      const places = targets.flatMap(placed);
      return places.length === 0 ? [] : [[id, places] as const];
    }),
  );
}

/** A region may reach out of its picture. */
function inside(value: number, index: number, ...bounds: readonly number[]): number {
  const [least, most] = index % 2 === 0 ? [bounds[0], bounds[2]] : [bounds[1], bounds[3]];
  return Math.min(most, Math.max(least, value));
}

import type { Mark, MarkedPaper } from './marked-paper.ts';
import type { PdfAssets } from './pdf/open-pdf.ts';
import { quadsOfSpans } from './pdf/place-spans.ts';
import { readMarkedPdf } from './pdf/read-marked-pdf.ts';
import { recognise } from './recognise.ts';
import { UnreadableFile } from './unreadable.ts';
import { marksOfWebRemarks, type Ground } from './web-annotation/place.ts';
import { readWebAnnotations } from './web-annotation/read-web-annotation.ts';
import { readXfdf } from './xfdf/read-xfdf.ts';

/** A paper, picture or recording that is there already, for remarks that came in a file of their own. */
export interface PaperThere {
  readonly bytes: Uint8Array;
  /** null for a recording. */
  readonly paper: MarkedPaper | null;
}

/**
 * Reads remarks that came in a file of their own (Web Annotation, XFDF) and puts them onto what they are about. What can't
 * be placed says so and is there all the same.
 * @throws UnreadableFile
 */
export async function readRemarksOnto(
  bytes: Uint8Array,
  { bytes: paperBytes, paper }: PaperThere,
  assets: PdfAssets | null,
): Promise<Mark[]> {
  if (recognise(bytes).kind === 'xfdf') {
    const annotations = readXfdf(bytes);
    if (annotations.length === 0) throw new UnreadableFile('no remarks');
    if (paper?.kind !== 'pdf') throw new UnreadableFile('no page to place on');
    return (await readMarkedPdf(paperBytes, assets, { annotations })).marks.map((mark) =>
      offPages(mark, paper.pages.length),
    );
  }
  const remarks = readWebAnnotations(bytes);
  const marks = marksOfWebRemarks(remarks, groundOf(paper));
  return paper?.kind === 'pdf' ? onPages(marks, paperBytes, paper, assets) : marks;
}

/**
 * Remarks about something that is not here: what each says, and the place it names in its own words.
 * @throws UnreadableFile
 */
export function readRemarksUnplaced(bytes: Uint8Array): Mark[] {
  if (recognise(bytes).kind === 'xfdf') throw new UnreadableFile('no page to place on');
  return marksOfWebRemarks(readWebAnnotations(bytes), { kind: 'nothing' });
}

function groundOf(paper: MarkedPaper | null): Ground {
  if (paper === null) return { kind: 'recording' };
  if (paper.kind === 'picture')
    return { kind: 'picture', width: paper.pages[0].width, height: paper.pages[0].height };
  return { kind: 'text', paper: paper.paper, pages: paper.pages };
}

/** A remark about a page that the paper doesn't have. */
function offPages(mark: Mark, pages: number): Mark {
  const targets = mark.targets.map((target) =>
    (target.kind === 'point' || target.kind === 'words') && (target.page ?? 1) > pages
      ? { kind: 'unplaced' as const, said: `page ${target.page ?? ''}` }
      : target,
  );
  return { ...mark, targets };
}

/** Words found in a PDF's text, with the places on its pages where they are shown. */
async function onPages(
  marks: readonly Mark[],
  bytes: Uint8Array,
  { pageStarts }: MarkedPaper,
  assets: PdfAssets | null,
): Promise<Mark[]> {
  const spans = marks.flatMap(({ anchor }) => (anchor === null ? [] : [anchor]));
  const placed = await quadsOfSpans(bytes, assets, spans);
  return marks.map((mark) => {
    if (mark.anchor === null) return mark;
    const { from } = mark.anchor;
    // Where the page draws its words in another order than it is read, the page itself is known all the same.
    const page = pageStarts.findLastIndex((start) => start <= from) + 1;
    const place = placed[spans.indexOf(mark.anchor)] ?? { page };
    const targets = mark.targets.map((target) =>
      target.kind === 'words' ? { ...target, ...place } : target,
    );
    return { ...mark, targets };
  });
}

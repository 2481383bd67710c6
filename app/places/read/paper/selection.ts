import { locateQuote } from '#core/anchors/locate.ts';
import { quoteOf } from '#core/text/quotation.ts';
import { squeeze } from '#core/text/squeeze.ts';
import type { Target } from '#core/model/remark.ts';
import { layoutMap } from '#core/paper/layout.ts';
import type { Anchor, PageSize } from '#formats/marked-paper.ts';
import { boundsOf } from '#formats/pdf/bounds.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';

interface SelectedPlace {
  readonly target: Target;
  readonly anchor: Anchor;
}

/** The words that are selected in the paper that is shown, as a place for a remark; null where none are. */
export function placeOfSelection(paper: ReadPaper): SelectedPlace | null {
  const selection = window.getSelection();
  if (selection === null || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  return paper.layout === null ? onPage(range, paper) : onSheet(range, paper);
}

function onSheet(range: Range, paper: ReadPaper): SelectedPlace | null {
  const from = layoutOffset(range.startContainer, range.startOffset);
  const to = layoutOffset(range.endContainer, range.endOffset);
  if (paper.layout === null || from === null || to === null || to <= from) return null;
  const span = layoutMap(paper.layout, paper.paper).toPaper({ from, to });
  const quote = quoteOf(paper.paper.text, span);
  if (quote.exact === '') return null;
  return {
    target: { kind: 'words', page: null, quads: [], rect: null, quote },
    anchor: { ...span, exactly: true },
  };
}

function layoutOffset(node: Node, offset: number): number | null {
  const element = node instanceof Element ? node : node.parentElement;
  const piece = element?.closest<HTMLElement>('[data-from]');
  if (piece === null || piece === undefined) return null;
  return Number(piece.dataset.from) + (node instanceof Element ? 0 : offset);
}

function onPage(range: Range, { paper, pages }: ReadPaper): SelectedPlace | null {
  const start =
    range.startContainer instanceof Element ? range.startContainer : range.startContainer.parentElement;
  const page = start?.closest<HTMLElement>('[data-page]');
  const number = Number(page?.dataset.page ?? 0);
  if (page === null || page === undefined || number < 1 || number > pages.length) return null;
  const near = (paper.text.length * (number - 1)) / pages.length;
  const span = locateQuote(squeeze(paper.text), { exact: range.toString(), prefix: '', suffix: '' }, near);
  if (span === null) return null;
  const frame = page.getBoundingClientRect();
  const size = pages[number - 1];
  const quads = [...range.getClientRects()]
    .filter((rect) => rect.width > 1 && rect.height > 1)
    .map((rect) => quadOnPage(rect, frame, size));
  return {
    target: {
      kind: 'words',
      page: number,
      quads,
      rect: boundsOf(quads.flat()),
      quote: quoteOf(paper.text, span),
    },
    anchor: { ...span, exactly: true },
  };
}

/** The corners of a box on the screen in the page's own points: the page's transform the other way round. */
function quadOnPage(
  box: DOMRect,
  frame: DOMRect,
  { width, transform: [a, b, c, d, e, f] }: PageSize,
): number[] {
  const scale = frame.width / width;
  const point = (x: number, y: number) => {
    const [u, w] = [(x - frame.left) / scale - e, (y - frame.top) / scale - f];
    const determinant = a * d - b * c;
    return [(d * u - c * w) / determinant, (a * w - b * u) / determinant];
  };
  return [
    ...point(box.left, box.top),
    ...point(box.right, box.top),
    ...point(box.left, box.bottom),
    ...point(box.right, box.bottom),
  ];
}

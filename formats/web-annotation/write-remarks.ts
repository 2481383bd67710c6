import type { Target } from '#core/model/remark.ts';
import type { Span } from '#core/text/span.ts';
import { saidBy, type RemarkOut, type ReplyOut } from '../annotated/remark-out.ts';
import type { PageSize } from '../marked-paper.ts';
import { boundsOf } from '../pdf/bounds.ts';
import { toView } from '../pdf/page-view.ts';

/** What remarks are about, as their annotations name it. */
export interface AboutSource {
  /** The name of the file. */
  readonly source: string;
  /** Empty for a paper without pages. */
  readonly pages: readonly PageSize[];
  /** Where remarks hang in its text, by their id. */
  readonly spans: Readonly<Record<string, Span>>;
}

/** Every remark as a W3C Web Annotation, in one collection; an answer is an annotation of what it answers. */
export function writeRemarksAsAnnotations(
  remarks: readonly RemarkOut[],
  about: AboutSource,
): Uint8Array<ArrayBuffer> {
  const items = remarks.flatMap((remark) => [
    annotationOf(remark, about),
    ...repliesOf(iriOf(remark.id), remark.replies),
  ]);
  const collection = {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    type: 'AnnotationCollection',
    total: items.length,
    first: { type: 'AnnotationPage', items },
  };
  return new TextEncoder().encode(JSON.stringify(collection, null, 1));
}

function iriOf(id: string): string {
  return `urn:juncture:${encodeURIComponent(id)}`;
}

function annotationOf(remark: RemarkOut, about: AboutSource): object {
  const said = saidBy(remark);
  return {
    id: iriOf(remark.id),
    type: 'Annotation',
    motivation: said === '' ? 'highlighting' : 'commenting',
    ...created(remark.at),
    creator: { type: remark.byMachine ? 'Software' : 'Person', name: remark.author },
    body: [
      ...(said === '' ? [] : [bodyOf(said)]),
      ...(remark.criterion === null
        ? []
        : [{ type: 'TextualBody', purpose: 'tagging', value: remark.criterion }]),
    ],
    target: remark.targets.map((target) => targetOf(target, remark.id, about)),
  };
}

function bodyOf(value: string) {
  return { type: 'TextualBody', value, format: 'text/plain' };
}

function created(at: string | null) {
  return at === null ? {} : { created: at };
}

function repliesOf(target: string, replies: readonly ReplyOut[]): object[] {
  return replies.flatMap((reply, index) => {
    const id = `${target}:${index + 1}`;
    return [
      {
        id,
        type: 'Annotation',
        motivation: 'replying',
        ...created(reply.at),
        creator: { type: 'Person', name: reply.author },
        body: bodyOf(reply.text),
        target,
      },
      ...repliesOf(id, reply.replies),
    ];
  });
}

function targetOf(target: Target, id: string, { source, pages, spans }: AboutSource): object {
  const selectors = selectorsOf(target, pages, spans[id]);
  return { source, ...(selectors.length > 0 && { selector: selectors }) };
}

function selectorsOf(target: Target, pages: readonly PageSize[], span: Span | undefined): object[] {
  switch (target.kind) {
    case 'words':
      return [
        ...(target.quote.exact === '' && target.quote.prefix === '' && target.quote.suffix === ''
          ? []
          : [{ type: 'TextQuoteSelector', ...target.quote }]),
        ...(span === undefined ? [] : [{ type: 'TextPositionSelector', start: span.from, end: span.to }]),
        ...(target.page === null ? [] : [pageFragment(pages, target.page, target.rect)]),
      ];
    case 'point':
      return [pageFragment(pages, target.page, target.rect)];
    case 'region':
      return [
        ...(target.outline === null
          ? []
          : [
              {
                type: 'SvgSelector',
                value: `<svg xmlns="http://www.w3.org/2000/svg"><path d="${target.outline}"/></svg>`,
              },
            ]),
        fragment(
          'http://www.w3.org/TR/media-frags/',
          `xywh=pixel:${[target.x, target.y, target.width, target.height].join(',')}`,
        ),
      ];
    case 'time':
      return [
        fragment(
          'http://www.w3.org/TR/media-frags/',
          `t=${target.fromS}${target.toS === null ? '' : `,${target.toS}`}`,
        ),
      ];
    case 'question':
      return [fragment('http://www.w3.org/TR/media-frags/', `id=${encodeURIComponent(target.questionId)}`)];
    case 'unplaced':
      return target.said === '' ? [] : [{ type: 'TextQuoteSelector', exact: target.said }];
    case 'criterion':
    case 'whole':
      return [];
  }
}

function fragment(conformsTo: string, value: string) {
  return { type: 'FragmentSelector', conformsTo, value };
}

/** In hundredths of a point. */
const round = (value: number) => Math.round(value * 100) / 100;

function pageFragment(pages: readonly PageSize[], number: number, rect: readonly number[] | null) {
  const page = pages.at(number - 1);
  const standard = 'http://tools.ietf.org/rfc/rfc8118';
  if (page === undefined || rect === null) return fragment(standard, `page=${number}`);
  const [left, top, right, bottom] = boundsOf([
    ...toView(page, rect[0], rect[1]),
    ...toView(page, rect[2], rect[3]),
  ]);
  const view = [left, top, right - left, bottom - top].map((value) => Math.max(0, round(value)));
  return fragment(standard, `page=${number}&viewrect=${view.join(',')}`);
}

import {
  type PDFArray,
  PDFDict,
  type PDFRef,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFString,
  type PDFDocument,
  type PDFPage,
} from '@cantoo/pdf-lib';
import { annotationKind } from './annotation-kind.ts';
import { appearanceOf, colorParts } from './appearance.ts';
import type { MarkPlace } from './mark-place.ts';
import { saidBy, type RemarkOut, type ReplyOut } from './remark-out.ts';

/** Remarks as annotations that any reader of PDF opens (ISO 32000-1, 12.5.6). */

/** What nobody gave a colour: a pale one behind words, a dark one for lines. Both stand out in black and white. */
const PALE = '#f2da8c';
const DARK = '#0e5a56';
/** Table 165: printed. */
const PRINTED = 4;
/** Hidden, printed, neither zoomed nor turned: a reply shows with what it answers. */
const BESIDE = 2 | 4 | 8 | 16;

/** A remark and where it is put. */
export interface PutRemark {
  readonly remark: RemarkOut;
  readonly places: readonly MarkPlace[];
}

/** Puts a remark onto the pages: an annotation for each place, those behind the first grouped with it. */
export function putAnnotations(document: PDFDocument, pages: readonly PDFPage[], put: PutRemark): void {
  const { remark, places } = put;
  let first: PDFRef | null = null;
  for (const [index, place] of places.entries()) {
    const page = pages[place.page];
    const dict = annotationDict(document, page, remark, place);
    dict.set(PDFName.of('NM'), PDFHexString.fromText(index === 0 ? remark.id : `${remark.id} ${index + 1}`));
    if (first !== null) {
      dict.set(PDFName.of('IRT'), first);
      dict.set(PDFName.of('RT'), PDFName.of('Group'));
    }
    const ref = document.context.register(dict);
    page.node.addAnnot(ref);
    first ??= ref;
  }
  if (first !== null) putReplies(document, pages[places[0].page], first, remark.replies, places[0].rect);
}

function putReplies(
  document: PDFDocument,
  page: PDFPage,
  parent: PDFRef,
  replies: readonly ReplyOut[],
  rect: readonly number[],
): void {
  for (const reply of replies) {
    const dict = document.context.obj({
      Type: 'Annot',
      Subtype: 'Text',
      Rect: [...rect],
      F: BESIDE,
      P: page.ref,
      IRT: parent,
      RT: 'R',
    });
    said(dict, reply.author, reply.at, reply.text);
    const ref = document.context.register(dict);
    page.node.addAnnot(ref);
    putReplies(document, page, ref, reply.replies, rect);
  }
}

function said(dict: PDFDict, author: string, at: string | null, text: string): void {
  dict.set(PDFName.of('Contents'), PDFHexString.fromText(text));
  dict.set(PDFName.of('T'), PDFHexString.fromText(author));
  if (at === null) return;
  const date = PDFString.fromDate(new Date(at));
  dict.set(PDFName.of('CreationDate'), date);
  dict.set(PDFName.of('M'), date);
}

function annotationDict(document: PDFDocument, page: PDFPage, remark: RemarkOut, place: MarkPlace): PDFDict {
  const { context } = document;
  const kind = annotationKind(remark.kind, place);
  const color = remark.color ?? (kind === 'Highlight' ? PALE : DARK);
  const { content, box, multiplied } = appearanceOf(kind, place, color);
  const look = context.stream(content, {
    Type: 'XObject',
    Subtype: 'Form',
    BBox: [...box],
    Resources: multiplied ? { ExtGState: { Through: { Type: 'ExtGState', BM: 'Multiply' } } } : {},
    ...(multiplied && { Group: { Type: 'Group', S: 'Transparency' } }),
  });
  const dict = context.obj({
    Type: 'Annot',
    Subtype: kind,
    // Of a note the box is its sign; of all others what is drawn.
    Rect: kind === 'Text' ? [...place.rect] : [...box],
    F: PRINTED,
    P: page.ref,
    C: colorParts(color),
    AP: { N: context.register(look) },
  });
  if (place.quads.length > 0) dict.set(PDFName.of('QuadPoints'), context.obj(place.quads.flat()));
  shaped(context.obj([]), dict, kind, place);
  if (remark.criterion !== null) dict.set(PDFName.of('Subj'), PDFHexString.fromText(remark.criterion));
  if (kind === 'FreeText') {
    const parts = colorParts(color).map((part) => part.toFixed(3));
    dict.set(PDFName.of('DA'), PDFString.of(`/Helv 9 Tf ${parts.join(' ')} rg`));
  }
  said(dict, remark.author, remark.at, saidBy(remark));
  return dict;
}

function shaped(list: PDFArray, dict: PDFDict, kind: string, { shape }: MarkPlace): void {
  const points = (numbers: readonly number[]) => {
    const array = list.clone();
    for (const number of numbers) array.push(PDFNumber.of(number));
    return array;
  };
  if (kind === 'Ink') {
    for (const stroke of shape) list.push(points(stroke));
    dict.set(PDFName.of('InkList'), list);
  } else if (kind === 'Line') dict.set(PDFName.of('L'), points(shape[0].slice(0, 4)));
  else if (kind === 'Polygon' || kind === 'PolyLine') dict.set(PDFName.of('Vertices'), points(shape[0]));
}

/** Calls the authors of what is on the pages otherwise. */
export function renameAuthors(pages: readonly PDFPage[], names: ReadonlyMap<string, string>): void {
  for (const page of pages)
    for (const one of page.node.Annots()?.asArray() ?? []) {
      const annotation = page.node.context.lookup(one);
      if (!(annotation instanceof PDFDict)) continue;
      const author = annotation.lookup(PDFName.of('T'));
      const known =
        author instanceof PDFString || author instanceof PDFHexString ? author.decodeText() : null;
      const other = known === null ? undefined : names.get(known);
      if (other !== undefined) annotation.set(PDFName.of('T'), PDFHexString.fromText(other));
    }
}

import { annotationKind } from '../annotated/annotation-kind.ts';
import type { MarkPlace } from '../annotated/mark-place.ts';
import { saidBy, type RemarkOut, type ReplyOut } from '../annotated/remark-out.ts';
import { escapeXml } from '../xml/escape-xml.ts';

/**
 * Remarks as XFDF (ISO 19444-1) about a PDF; those without a place on its pages are left out.
 * @param pdf the name of the PDF
 */
export function writeXfdf(
  pdf: string,
  remarks: readonly RemarkOut[],
  places: ReadonlyMap<string, readonly MarkPlace[]>,
): Uint8Array<ArrayBuffer> {
  const annotations = remarks.flatMap((remark) => annotationsOf(remark, places.get(remark.id) ?? []));
  return new TextEncoder().encode(
    [
      '<?xml version="1.0" encoding="UTF-8"?>',
      '<xfdf xmlns="http://ns.adobe.com/xfdf/" xml:space="preserve">',
      `<f href="${clean(pdf)}"/>`,
      '<annots>',
      ...annotations,
      '</annots>',
      '</xfdf>',
      '',
    ].join('\n'),
  );
}

function annotationsOf(remark: RemarkOut, places: readonly MarkPlace[]): string[] {
  if (places.length === 0) return [];
  return [
    ...places.map((place, index) => {
      const kind = annotationKind(remark.kind, place).toLowerCase();
      return element(
        kind,
        {
          ...common(remark.author, remark.at, place),
          name: index === 0 ? remark.id : `${remark.id} ${index + 1}`,
          color: remark.color,
          subject: remark.criterion,
          coords: place.quads.length === 0 ? null : numbers(place.quads.flat()),
          start: kind === 'line' ? numbers(place.shape[0].slice(0, 2)) : null,
          end: kind === 'line' ? numbers(place.shape[0].slice(2, 4)) : null,
          ...(index > 0 && { inreplyto: remark.id, replyType: 'group' }),
        },
        `${index === 0 ? contents(saidBy(remark)) : ''}${shaped(kind, place)}`,
      );
    }),
    ...repliesOf(remark.id, remark.replies, places[0]),
  ];
}

function repliesOf(parent: string, replies: readonly ReplyOut[], place: MarkPlace): string[] {
  return replies.flatMap((reply, index) => {
    const name = `${parent} answer ${index + 1}`;
    return [
      element(
        'text',
        { ...common(reply.author, reply.at, place), name, inreplyto: parent, replyType: 'reply' },
        contents(reply.text),
      ),
      ...repliesOf(name, reply.replies, place),
    ];
  });
}

function common(author: string, at: string | null, { page, rect }: MarkPlace) {
  const date = at === null ? null : `D:${new Date(at).toISOString().replace(/[-:T]|\.\d+Z$/g, '')}Z`;
  return { page: String(page), rect: numbers(rect), title: author, creationdate: date, date };
}

function shaped(kind: string, { shape }: MarkPlace): string {
  const points = (list: readonly number[]) => {
    const pairs: string[] = [];
    for (let i = 0; i + 1 < list.length; i += 2) pairs.push(numbers(list.slice(i, i + 2)));
    return pairs.join(';');
  };
  if (kind === 'ink')
    return `<inklist>${shape.map((stroke) => `<gesture>${points(stroke)}</gesture>`).join('')}</inklist>`;
  if (kind === 'polygon' || kind === 'polyline') return `<vertices>${points(shape[0])}</vertices>`;
  return '';
}

function contents(text: string): string {
  return text === '' ? '' : `<contents>${clean(text)}</contents>`;
}

function numbers(list: readonly number[]): string {
  return list.map((value) => String(Math.round(value * 1000) / 1000)).join(',');
}

function element(name: string, attributes: Readonly<Record<string, string | null>>, content: string): string {
  const own = Object.entries(attributes).flatMap(([key, value]) =>
    value === null ? [] : [` ${key}="${clean(value)}"`],
  );
  return `<${name}${own.join('')}>${content}</${name}>`;
}

/** XML can't hold most control characters, nor half of a pair (XML 1.0, 2.2). */
function clean(text: string): string {
  return escapeXml(text.replace(/[^\P{Cc}\t\n\r]|\p{Cs}|[\ufffe\uffff]/gu, ''));
}

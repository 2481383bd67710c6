import { instantOfPdfDate, quadsOf, type Annotation } from '../pdf/annotations.ts';
import { instantOfIso } from '../dates.ts';
import { refusedAs } from '../malformed.ts';
import { parseXml, textOfPart, type Attributes } from '../xml/parse-xml.ts';

/**
 * Reads the annotations of an XFDF file. They have no words yet: those come from the PDF that they belong to.
 * @throws UnreadableFile 'damaged remarks'
 */
export function readXfdf(bytes: Uint8Array): Annotation[] {
  return refusedAs('damaged remarks', () => annotationsOf(textOfPart(bytes)));
}

type Unfinished = { -readonly [Key in keyof Annotation]: Annotation[Key] };

function annotationsOf(xml: string): Annotation[] {
  const found: Annotation[] = [];
  let current: Unfinished | null = null;
  let element = '';
  let inside: 'contents' | 'rich' | 'numbers' | null = null;
  let rich = '';
  let numbers = '';
  let inAnnotations = false;
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'annots') inAnnotations = true;
      if (current === null) {
        if (!inAnnotations || name === 'annots') return;
        element = name;
        current = annotationOf(name, attributes, found.length);
        rich = '';
        return;
      }
      if (name === 'contents') inside = 'contents';
      else if (name === 'contents-richtext') inside = 'rich';
      else if (name === 'gesture' || name === 'vertices') {
        inside = 'numbers';
        numbers = '';
      } else if (inside === 'rich' && /(^|:)(p|br|div)$/.test(name) && rich !== '') rich += '\n';
    },
    text: (text) => {
      if (current === null) return;
      if (inside === 'contents') current.text += text;
      else if (inside === 'rich') rich += text;
      else if (inside === 'numbers') numbers += text;
    },
    close: (name) => {
      if (name === 'annots') inAnnotations = false;
      if (current === null) return;
      if ((name === 'gesture' || name === 'vertices') && inside === 'numbers') {
        current.shape = [...current.shape, numbersOf(numbers)];
        inside = null;
      } else if (name === 'contents' || name === 'contents-richtext') inside = null;
      else if (name === element) {
        current.text = (current.text || rich).replaceAll('\r\n', '\n').replaceAll('\r', '\n').trim();
        if (element !== 'popup') found.push(current);
        current = null;
      }
    },
  });
  return found;
}

function annotationOf(kind: string, attributes: Attributes, ordinal: number): Unfinished {
  const {
    page,
    rect,
    coords,
    color,
    title,
    name,
    inreplyto,
    replyType,
    replytype,
    subject,
    state,
    statemodel,
    flags,
  } = attributes;
  const ends = [attributes.start, attributes.end].map((pair) => numbersOf(pair ?? ''));
  const corners = numbersOf(rect ?? '');
  return {
    id: name ?? `${kind} ${ordinal}`,
    sourceId: name ?? null,
    subject: subject ?? null,
    kind: kind.toLowerCase(),
    page: Math.max(1, Math.floor(Number(page ?? 0)) + 1 || 1),
    rect: corners.length === 4 ? corners : [0, 0, 0, 0],
    quads: quadsOf(numbersOf(coords ?? '')),
    shape: ends[0].length === 2 && ends[1].length === 2 ? [ends.flat()] : [],
    text: '',
    author: title ?? '',
    at: dateOf(attributes.creationdate) ?? dateOf(attributes.date),
    color: /^#[0-9a-f]{6}$/i.test(color ?? '') ? (color ?? '').toLowerCase() : null,
    drawn: false,
    hidden: (flags ?? '').split(',').includes('hidden'),
    inReplyTo: inreplyto ?? null,
    grouped: (replyType ?? replytype ?? '').toLowerCase() === 'group',
    state: statemodel === undefined ? null : (state ?? null),
    file: null,
  };
}

function dateOf(text: string | undefined) {
  return text === undefined ? null : (instantOfPdfDate(text) ?? instantOfIso(text));
}

function numbersOf(text: string): number[] {
  return text
    .split(/[\s,;]+/)
    .filter((part) => part !== '')
    .map(Number)
    .filter((value) => Number.isFinite(value));
}

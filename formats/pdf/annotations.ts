import { PDFDateString } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { parsed } from '../malformed.ts';
import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import * as v from 'valibot';
import { Instant } from '#core/model/ids.ts';
import type { MarkReply } from '../marked-paper.ts';
import { repliesTo } from '../threads.ts';
import type { AnnotationNames } from './names.ts';

/** Kinds of annotation that are remarks (ISO 32000-1, 12.5.6). */
const REMARK_KINDS = new Set([
  'highlight',
  'underline',
  'squiggly',
  'strikeout',
  'text',
  'freetext',
  'ink',
  'square',
  'circle',
  'polygon',
  'polyline',
  'line',
  'caret',
  'stamp',
  'fileattachment',
  'sound',
]);
/** Kinds that are none: what opens elsewhere, forms, and the windows of other annotations. */
const NOT_REMARKS = new Set(['link', 'widget', 'popup']);

/** A field that is as nothing where it is of another kind than expected: one odd field must not cost a remark. */
function ifFits<Schema extends v.GenericSchema>(schema: Schema) {
  return v.fallback(v.nullable(schema), null);
}
const Str = v.fallback(v.object({ str: v.string() }), { str: '' });

/** What pdf.js tells of an annotation, as far as it is used here. */
const Raw = v.object({
  id: v.string(),
  subtype: v.fallback(v.string(), ''),
  rect: v.fallback(v.pipe(v.array(v.number()), v.length(4)), [0, 0, 0, 0]),
  annotationFlags: v.fallback(v.number(), 0),
  quadPoints: v.nullish(v.unknown()),
  inkLists: ifFits(v.array(v.unknown())),
  vertices: v.nullish(v.unknown()),
  lineCoordinates: v.nullish(v.unknown()),
  contentsObj: Str,
  titleObj: Str,
  richText: Str,
  textContent: ifFits(v.array(v.string())),
  creationDate: ifFits(v.string()),
  modificationDate: ifFits(v.string()),
  color: v.nullish(v.unknown()),
  defaultAppearanceData: ifFits(v.object({ fontColor: v.nullish(v.unknown()) })),
  hasAppearance: v.fallback(v.boolean(), false),
  inReplyTo: ifFits(v.string()),
  replyType: ifFits(v.string()),
  state: ifFits(v.string()),
  stateModel: ifFits(v.string()),
  file: ifFits(v.object({ filename: v.string(), content: ifFits(v.instance(Uint8Array)) })),
});
type Raw = v.InferOutput<typeof Raw>;

const HIDDEN = 2;

/** One annotation of a page, before the words under it are looked for. */
export interface Annotation {
  readonly id: string;
  readonly sourceId: string | null;
  readonly subject: string | null;
  readonly kind: string;
  readonly page: number;
  readonly rect: number[];
  readonly quads: number[][];
  /** Strokes of ink, corners of a shape, ends of a line: x y x y ... */
  readonly shape: number[][];
  readonly text: string;
  readonly author: string;
  readonly at: Instant | null;
  readonly color: string | null;
  readonly drawn: boolean;
  readonly hidden: boolean;
  readonly inReplyTo: string | null;
  readonly grouped: boolean;
  readonly state: string | null;
  readonly file: { readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> } | null;
}

/** An annotation that is a remark, with what answers it, and those that are grouped with it (RT Group). */
export interface AnnotationThread {
  readonly annotation: Annotation;
  readonly grouped: readonly Annotation[];
  readonly replies: readonly MarkReply[];
  readonly state: string | null;
}

/** The annotations of a page, in the order of the file. */
export async function annotationsOfPage(
  page: PDFPageProxy,
  named: Promise<ReadonlyMap<string, AnnotationNames>>,
): Promise<Annotation[]> {
  // "any" brings hidden ones too: replies often are.
  const raw = (await parsed(page.getAnnotations({ intent: 'any' }))) as unknown[];
  const names = await named;
  return raw.map((one) => {
    const annotation = v.parse(Raw, one);
    return annotationOf(annotation, page.pageNumber, names.get(annotation.id));
  });
}

function annotationOf(raw: Raw, page: number, named: AnnotationNames | undefined): Annotation {
  const kind = raw.subtype.toLowerCase();
  const contents = raw.replyType === 'Group' ? (named?.contents ?? '') : raw.contentsObj.str;
  const plain = contents || raw.richText.str || (named?.richText ?? '');
  const text = plain || (kind === 'freetext' ? (raw.textContent ?? []).join('\n') : '');
  const ink = raw.inkLists?.map(numbersOf) ?? [];
  const corners = [raw.vertices, raw.lineCoordinates].map(numbersOf).filter((list) => list.length > 0);
  return {
    id: raw.id,
    sourceId: named?.name ?? null,
    subject: named?.subject ?? null,
    kind,
    page,
    rect: raw.rect,
    quads: quadsOf(numbersOf(raw.quadPoints)),
    shape: kind === 'ink' ? ink : corners,
    text: text.replaceAll('\r\n', '\n').replaceAll('\r', '\n'),
    author: raw.titleObj.str,
    at: instantOfPdfDate(raw.creationDate ?? named?.created ?? raw.modificationDate ?? null),
    color:
      kind === 'freetext'
        ? (colorOf(raw.defaultAppearanceData?.fontColor) ?? colorOf(raw.color))
        : colorOf(raw.color),
    drawn: raw.hasAppearance || DRAWN_WITHOUT.has(kind),
    hidden: (raw.annotationFlags & HIDDEN) !== 0,
    inReplyTo: raw.inReplyTo ?? null,
    grouped: raw.replyType === 'Group',
    state: raw.stateModel == null ? null : (raw.state ?? null),
    file:
      raw.file == null || raw.file.content == null
        ? null
        : { name: raw.file.filename, bytes: new Uint8Array(raw.file.content) },
  };
}

/** Kinds that pdf.js draws even where the file brings no appearance. */
const DRAWN_WITHOUT = new Set([
  'highlight',
  'underline',
  'squiggly',
  'strikeout',
  'ink',
  'square',
  'circle',
  'polygon',
  'polyline',
  'line',
]);

/**
 * Puts replies, states and grouped annotations where they belong; what is left over are the remarks. A reply to something
 * that is not there, or to itself by a detour, is a remark of its own.
 */
export function threadsOf(annotations: readonly Annotation[]): {
  threads: AnnotationThread[];
  unknownKinds: string[];
} {
  const known = withoutDoubles(annotations.filter(({ kind }) => REMARK_KINDS.has(kind)));
  const byId = new Map(known.map((annotation) => [annotation.id, annotation]));
  const children = new Map<string, Annotation[]>();
  const roots: Annotation[] = [];
  for (const annotation of known) {
    const parent = annotation.inReplyTo;
    if (parent === null || !byId.has(parent) || answersItself(annotation, byId)) roots.push(annotation);
    else children.set(parent, [...(children.get(parent) ?? []), annotation]);
  }
  const isState = (child: Annotation) => child.state !== null && child.text === '';
  const answers = [...children.values()]
    .flat()
    .filter((child) => !child.grouped && !isState(child))
    .map((child) => ({ ...child, answers: child.inReplyTo ?? '' }))
    .sort(byTime);
  const threads = roots.map((annotation): AnnotationThread => {
    const own = children.get(annotation.id) ?? [];
    const states = own.filter(isState).sort(byTime);
    return {
      annotation,
      grouped: own.filter((child) => child.grouped),
      replies: repliesTo(annotation.id, answers),
      state: lastState(annotation, states),
    };
  });
  const unknown = annotations
    .map(({ kind }) => kind)
    .filter((kind) => kind !== '' && !REMARK_KINDS.has(kind) && !NOT_REMARKS.has(kind));
  return { threads, unknownKinds: [...new Set(unknown)] };
}

function lastState(annotation: Annotation, states: readonly Annotation[]): string | null {
  const last = states.at(-1)?.state ?? annotation.state;
  return last === 'None' || last === 'Unmarked' ? null : last;
}

function byTime(x: Annotation, y: Annotation): number {
  return (x.at ?? '') < (y.at ?? '') ? -1 : x.at === y.at ? 0 : 1;
}

function answersItself(annotation: Annotation, byId: ReadonlyMap<string, Annotation>): boolean {
  const seen = new Set([annotation.id]);
  for (
    let next = byId.get(annotation.inReplyTo ?? '');
    next !== undefined;
    next = byId.get(next.inReplyTo ?? '')
  ) {
    if (next.id === annotation.id) return true;
    if (seen.has(next.id)) return false;
    seen.add(next.id);
  }
  return false;
}

/** Some programs keep a hidden copy of what they show; it is not counted twice. */
function withoutDoubles(annotations: readonly Annotation[]): Annotation[] {
  const key = ({ kind, page, author, text, rect }: Annotation) =>
    JSON.stringify([kind, page, author, text, rect.map(Math.round)]);
  const shown = new Set(annotations.filter(({ hidden }) => !hidden).map(key));
  return annotations.filter((one) => !one.hidden || one.inReplyTo !== null || !shown.has(key(one)));
}

function numbersOf(list: unknown): number[] {
  if (list instanceof Float32Array || list instanceof Float64Array) return Array.from(list);
  return Array.isArray(list) ? list.filter((value) => typeof value === 'number') : [];
}

/** Quads of eight numbers each; what is left over is no quad. */
export function quadsOf(numbers: readonly number[]): number[][] {
  const quads: number[][] = [];
  for (let i = 0; i + 8 <= numbers.length; i += 8) quads.push(numbers.slice(i, i + 8));
  return quads;
}

function colorOf(color: unknown): string | null {
  if (!(color instanceof Uint8ClampedArray) || color.length < 3) return null;
  return `#${Array.from(color.subarray(0, 3), (part) => part.toString(16).padStart(2, '0')).join('')}`;
}

/** A PDF date (ISO 32000-1, 7.9.4) as an instant; null for what is none. Without a zone it counts as UTC. */
export function instantOfPdfDate(date: string | null): Instant | null {
  const at = PDFDateString.toDateObject(date ?? '');
  return at === null || Number.isNaN(at.getTime()) ? null : v.parse(Instant, at.toISOString());
}

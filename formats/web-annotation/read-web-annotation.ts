import { textOfHtml } from '../text/html-text.ts';
import { jsonIn, refusedAs } from '../malformed.ts';
import type { Instant } from '#core/model/ids.ts';
import { instantOfIso } from '../dates.ts';
import { isMachine } from '../machine.ts';
import type { MarkReply } from '../marked-paper.ts';
import { repliesTo } from '../threads.ts';
import { UnreadableFile } from '../unreadable.ts';

/** One way in which an annotation says where it hangs (W3C Web Annotation Data Model, section 4). */
export type Selector =
  | { readonly kind: 'quote'; readonly exact: string; readonly prefix: string; readonly suffix: string }
  | { readonly kind: 'position'; readonly start: number; readonly end: number }
  | { readonly kind: 'fragment'; readonly value: string }
  | { readonly kind: 'svg'; readonly value: string }
  | { readonly kind: 'range'; readonly start: readonly Selector[]; readonly end: readonly Selector[] };

/** What an annotation is about: an address, and where in it. */
export interface WebTarget {
  readonly source: string;
  /** Each to be tried in turn. None: the whole source. */
  readonly selectors: readonly Selector[];
  /** It had selectors, but none of a kind that is known here. */
  readonly unknown: boolean;
}

/** One Web Annotation, before it is put onto a paper. */
export interface WebRemark {
  readonly id: string;
  readonly motivation: string;
  readonly author: string;
  readonly byMachine: boolean;
  readonly at: Instant | null;
  readonly text: string;
  readonly targets: readonly WebTarget[];
  readonly replies: readonly MarkReply[];
}

const DEEPEST_REFINEMENT = 20;
/** A node of JSON-LD, of which nothing is known yet. */
type Thing = Readonly<Record<string, unknown>>;

function thing(value: unknown): Thing | null {
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Thing) : null;
}

function list(value: unknown): unknown[] {
  return value === undefined || value === null ? [] : Array.isArray(value) ? value : [value];
}

function string(value: unknown): string {
  return typeof value === 'string' ? value : '';
}

/** A JSON-LD term may come with or without its prefix, and keywords with or without the at sign. */
function get(of: Thing, name: string): unknown {
  return of[name] ?? of[`oa:${name}`] ?? of[`as:${name}`] ?? of[`dcterms:${name}`] ?? of[`@${name}`];
}

function hasType(of: Thing, name: string): boolean {
  return list(get(of, 'type')).some((type) => string(type).replace(/^\w+:/, '') === name);
}

/**
 * Reads Web Annotations (JSON-LD): one, a page of them, or a collection with its pages. Answers are put below what they
 * answer.
 * @throws UnreadableFile 'damaged remarks' for what is no JSON, 'no remarks' for other JSON
 */
export function readWebAnnotations(bytes: Uint8Array): WebRemark[] {
  const parsed = refusedAs('damaged remarks', () => jsonIn(new TextDecoder().decode(bytes)));
  const all = annotationsIn(parsed);
  if (all.length === 0) throw new UnreadableFile('no remarks');
  const ids = new Map(
    all.map((annotation, index) => [annotation, string(get(annotation, 'id')) || `annotation ${index}`]),
  );
  const known = new Set(ids.values());
  const answered = (annotation: Thing) =>
    list(get(annotation, 'target'))
      .map((target) => string(target) || string(get(thing(target) ?? {}, 'id')))
      .find((iri) => known.has(iri) && iri !== ids.get(annotation));
  const answers = all.flatMap((annotation) => {
    const above = answered(annotation);
    if (above === undefined) return [];
    return [{ id: ids.get(annotation) ?? '', answers: above, ...said(annotation) }];
  });
  const answerOf = new Map(answers.map((answer) => [answer.id, answer.answers]));
  return all.flatMap((annotation): WebRemark[] => {
    const id = ids.get(annotation) ?? '';
    if (answerOf.has(id) && !goesRound(id, answerOf)) return [];
    return [
      {
        id,
        motivation: string(list(get(annotation, 'motivation'))[0]).replace(/^\w+:/, '') || 'commenting',
        ...said(annotation),
        byMachine: isByMachine(annotation),
        targets: list(get(annotation, 'target')).map(targetOf),
        replies: repliesTo(id, answers),
      },
    ];
  });
}

function goesRound(id: string, answerOf: ReadonlyMap<string, string>): boolean {
  const seen = new Set<string>();
  for (let at: string | undefined = id; at !== undefined; at = answerOf.get(at)) {
    if (seen.has(at)) return true;
    seen.add(at);
  }
  return false;
}

/** The annotations of a document, in order, however it holds them. */
function annotationsIn(document: unknown): Thing[] {
  const found: Thing[] = [];
  const left = [document];
  const seen = new Set<unknown>();
  for (let next = left.shift(); next !== undefined; next = left.shift()) {
    if (seen.has(next)) continue;
    seen.add(next);
    if (Array.isArray(next)) left.unshift(...(next as unknown[]));
    const one = thing(next);
    if (one === null) continue;
    if (hasType(one, 'Annotation')) found.push(one);
    else left.unshift(...['first', 'items', 'next', 'graph'].flatMap((name) => list(get(one, name))));
  }
  return found;
}

function creatorOf(annotation: Thing): Thing {
  const [creator] = list(get(annotation, 'creator'));
  return typeof creator === 'string' ? { name: creator } : (thing(creator) ?? {});
}

function isByMachine(annotation: Thing): boolean {
  const creator = creatorOf(annotation);
  return hasType(creator, 'Software') || hasType(creator, 'SoftwareAgent') || isMachine(nameOf(creator));
}

function nameOf(creator: Thing): string {
  return (
    string(get(creator, 'name')) ||
    string(creator['foaf:name']) ||
    string(get(creator, 'nickname')) ||
    string(get(creator, 'id'))
  );
}

function said(annotation: Thing): { author: string; at: Instant | null; text: string } {
  const bodies = list(get(annotation, 'body') ?? get(annotation, 'bodyValue'));
  const texts = bodies.map((body) => {
    if (typeof body === 'string')
      return get(annotation, 'bodyValue') === body || !/^\w+:\S+$/.test(body) ? body : '';
    const one = thing(body);
    if (one === null || string(get(one, 'purpose')).replace(/^\w+:/, '') === 'tagging') return '';
    const value = string(get(one, 'value')) || string(one['cnt:chars']);
    return string(get(one, 'format')) === 'text/html' ? textOfHtml(value) : value;
  });
  return {
    author: nameOf(creatorOf(annotation)),
    at: instantOfIso(string(get(annotation, 'created')) || string(get(annotation, 'modified')) || null),
    text: texts
      .filter((text) => text !== '')
      .join('\n')
      .trim(),
  };
}

function targetOf(value: unknown): WebTarget {
  if (typeof value === 'string') {
    const [source, fragment] = value.split('#', 2);
    return { source, selectors: fragment ? [{ kind: 'fragment', value: fragment }] : [], unknown: false };
  }
  const target = thing(value) ?? {};
  const source = string(get(target, 'source')) || string(get(target, 'id'));
  const [bare, fragment] = source.split('#', 2);
  const given = list(get(target, 'selector'));
  const selectors = given.flatMap((selector) => selectorsOf(selector, 0));
  if (fragment) selectors.push({ kind: 'fragment', value: fragment });
  return { source: bare, selectors, unknown: given.length > 0 && selectors.length === 0 };
}

function selectorsOf(value: unknown, depth: number): Selector[] {
  const selector = thing(value);
  if (selector === null || depth > DEEPEST_REFINEMENT) return [];
  const refined = list(get(selector, 'refinedBy')).flatMap((inner) => selectorsOf(inner, depth + 1));
  const own = selectorOf(selector, depth);
  // What refines a selector says more exactly where; a fragment that names a page still helps where that fails.
  return [...refined, ...(own === null ? [] : [own])];
}

function selectorOf(selector: Thing, depth: number): Selector | null {
  if (hasType(selector, 'Choice')) return null;
  if (hasType(selector, 'TextQuoteSelector'))
    return {
      kind: 'quote',
      exact: string(get(selector, 'exact')),
      prefix: string(get(selector, 'prefix')),
      suffix: string(get(selector, 'suffix')),
    };
  if (hasType(selector, 'TextPositionSelector')) {
    const [start, end] = [Number(get(selector, 'start')), Number(get(selector, 'end'))];
    return Number.isInteger(start) && Number.isInteger(end) && start >= 0 && end >= start
      ? { kind: 'position', start, end }
      : null;
  }
  if (hasType(selector, 'FragmentSelector'))
    return { kind: 'fragment', value: string(get(selector, 'value')).replace(/^#/, '') };
  if (hasType(selector, 'SvgSelector')) return { kind: 'svg', value: string(get(selector, 'value')) };
  if (hasType(selector, 'RangeSelector'))
    return {
      kind: 'range',
      start: selectorsOf(get(selector, 'startSelector'), depth + 1),
      end: selectorsOf(get(selector, 'endSelector'), depth + 1),
    };
  return null;
}

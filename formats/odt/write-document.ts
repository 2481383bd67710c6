import { pictureTypeIn, pictureTypeOf } from '../picture/picture-type.ts';
import { LayoutWriter, type TextStyle, type TrackedChange, type WrittenText } from '../text/layout-writer.ts';
import { TablePlaces } from '../text/table-places.ts';
import { rowsFor, type ElementRows } from '../xml/element-rows.ts';
import { parseXml, type Attributes } from '../xml/parse-xml.ts';
import type { readZip } from '../zip/read-zip.ts';
import type { ChangedRegion } from './changes.ts';
import { spacesOf } from './spaces.ts';

/** The body of an OpenDocument text, written as a layout; what each element does is one row of `elements`. */

export type Parts = ReturnType<typeof readZip>;

const PLAIN: TextStyle = { bold: false, italic: false };

/** An annotation as it stands in the text, and from where to where of it the text reaches that it is about. */
export interface OdtAnnotation {
  readonly id: string;
  readonly parent: string | null;
  readonly resolved: boolean;
  author: string;
  date: string;
  paragraphs: string[];
  from: number;
  to: number;
}

/** A walk over the document. */
interface Walk {
  readonly writer: LayoutWriter;
  readonly looks: ReadonlyMap<string, TextStyle>;
  /** Styles of paragraphs that are set off as quotations. */
  readonly setOff: ReadonlySet<string>;
  readonly regions: ReadonlyMap<string, ChangedRegion>;
  readonly parts: Parts;
  readonly annotations: OdtAnnotation[];
  /** Of those of one name the first. */
  readonly byName: Map<string, OdtAnnotation>;
  readonly footnotes: { readonly number: number; text: string }[];
  readonly spans: TextStyle[];
  readonly active: { readonly id: string; readonly change: TrackedChange }[];
  readonly tables: TablePlaces;
  lists: number;
  noteCount: number;
  inCitation: boolean;
  inFootnote: boolean;
  /** The annotation that the walk is in. */
  inside: OdtAnnotation | null;
  /** What of the annotation is being read. */
  listening: 'author' | 'date' | 'words' | null;
  /** A picture's bytes in Base64, while they are read. */
  inline: string | null;
}

function begin({ writer, tables }: Walk, kind: 'heading' | 'paragraph' | 'item', level: number): void {
  writer.beginBlock({ kind, level, cell: tables.cell });
}

function append(walk: Walk, text: string): void {
  const { writer, spans, active, footnotes } = walk;
  if (walk.inFootnote) {
    const footnote = footnotes.at(-1);
    if (footnote !== undefined) footnote.text += text;
  } else if (!walk.inCitation)
    writer.append(
      text,
      spans.at(-1) ?? PLAIN,
      active.map(({ change }) => change),
    );
}

/** An attribute by its name without prefix: some were written before they were in the standard. */
function attributeEnding(attributes: Attributes, ending: string): string | undefined {
  return Object.entries(attributes).find(([name]) => name.endsWith(ending))?.[1];
}

function beginAnnotation(walk: Walk, attributes: Attributes): void {
  const at = walk.writer.position;
  walk.inside = {
    id: attributes['office:name'] ?? `annotation ${walk.annotations.length}`,
    parent: attributeEnding(attributes, ':parent-name') ?? null,
    resolved: attributeEnding(attributes, ':resolved') === 'true',
    author: '',
    date: '',
    paragraphs: [],
    from: at,
    to: at,
  };
  walk.annotations.push(walk.inside);
  if (!walk.byName.has(walk.inside.id)) walk.byName.set(walk.inside.id, walk.inside);
}

/** More of what an annotation says, after the paragraph that was begun last. */
function say({ paragraphs }: OdtAnnotation, text: string): void {
  paragraphs[paragraphs.length - 1] += text;
}

const stopListening = { close: (walk: Walk) => (walk.listening = null) };

/** Elements in an annotation (ODF 1.3-3, 14.1). */
const inAnnotation: ElementRows<Walk> = {
  'office:annotation': { close: (walk) => (walk.inside = null) },
  'dc:creator': { open: (walk) => (walk.listening = 'author'), ...stopListening },
  'dc:date': { open: (walk) => (walk.listening = 'date'), ...stopListening },
  'text:p': {
    open: (walk) => {
      walk.inside?.paragraphs.push('');
      walk.listening = 'words';
    },
    ...stopListening,
  },
  ...rowsFor<Walk>(['text:s', 'text:tab'], {
    open: ({ inside }) => {
      if (inside !== null) say(inside, ' ');
    },
  }),
  'text:line-break': {
    open: ({ inside }) => {
      if (inside !== null) say(inside, '\n');
    },
  },
};

function endBlock({ writer, inFootnote }: Walk): void {
  if (!inFootnote) writer.endBlock();
}

/** Elements of the text (ODF 1.3-3, 5, 6, 9). */
const inText: ElementRows<Walk> = {
  'text:h': {
    open: (walk, attributes) => {
      if (!walk.inFootnote)
        begin(walk, 'heading', Math.min(6, Math.max(1, Number(attributes['text:outline-level'] ?? 1))));
    },
    close: endBlock,
  },
  'text:p': {
    open: (walk, attributes) => {
      const style = attributes['text:style-name'] ?? '';
      if (walk.inFootnote) append(walk, ' ');
      else if (style === 'Title') begin(walk, 'heading', 1);
      else begin(walk, walk.lists > 0 || style.startsWith('List') ? 'item' : 'paragraph', 0);
      if (walk.setOff.has(style)) walk.writer.restyle({ quoted: true });
    },
    close: endBlock,
  },
  'text:span': {
    open: ({ spans, looks }, attributes) =>
      spans.push(looks.get(attributes['text:style-name'] ?? '') ?? spans.at(-1) ?? PLAIN),
    close: ({ spans }) => spans.pop(),
  },
  'text:list': { open: (walk) => walk.lists++, close: (walk) => walk.lists-- },
  'text:s': { open: (walk, attributes) => append(walk, ' '.repeat(spacesOf(attributes))) },
  ...rowsFor<Walk>(['text:tab', 'text:line-break'], { open: (walk) => append(walk, ' ') }),
  'table:table': { open: ({ tables }) => tables.begin(), close: ({ tables }) => tables.end() },
  'table:table-row': { open: ({ tables }) => tables.nextRow() },
  'table:table-cell': { open: ({ tables }) => tables.nextColumn() },
  'office:annotation': { open: beginAnnotation },
  'office:annotation-end': {
    open: ({ byName, writer }, attributes) => {
      const ended = byName.get(attributes['office:name'] ?? '');
      if (ended !== undefined) ended.to = writer.position;
    },
  },
  'text:change-start': {
    open: ({ regions, active }, attributes) => {
      const id = attributes['text:change-id'] ?? '';
      const region = regions.get(id);
      if (region !== undefined) active.push({ id, change: region.change });
    },
  },
  'text:change-end': {
    open: ({ active }, attributes) =>
      active.splice(0, active.length, ...active.filter(({ id }) => id !== attributes['text:change-id'])),
  },
  'text:change': {
    open: ({ regions, writer }, attributes) => {
      const region = regions.get(attributes['text:change-id'] ?? '');
      if (region !== undefined && writer.isOpen) writer.append(region.words, PLAIN, [region.change]);
    },
  },
  'text:note': { open: (walk) => walk.writer.note(++walk.noteCount) },
  'text:note-citation': {
    open: (walk) => (walk.inCitation = true),
    close: (walk) => (walk.inCitation = false),
  },
  'text:note-body': {
    open: (walk) => {
      walk.inFootnote = true;
      walk.footnotes.push({ number: walk.noteCount, text: '' });
    },
    close: (walk) => (walk.inFootnote = false),
  },
  'draw:image': {
    open: ({ writer, parts }, attributes) => putPicture(writer, parts, attributes['xlink:href'] ?? ''),
  },
  'office:binary-data': {
    open: (walk) => (walk.inline = ''),
    close: (walk) => {
      if (walk.inline !== null) putInline(walk.writer, walk.inline);
      walk.inline = null;
    },
  },
};

function readText(walk: Walk, text: string): void {
  const { inside, listening } = walk;
  if (walk.inline !== null) walk.inline += text;
  else if (inside === null) append(walk, text);
  else if (listening === 'author') inside.author += text;
  else if (listening === 'date') inside.date += text;
  else if (listening === 'words') say(inside, text);
}

/**
 * Writes the text of a document, its notes last.
 * @param styles which text styles are bold or italic, and which of paragraphs set off quotations, by name
 * @param regions the tracked changes that the text refers to, by their id
 * @param parts the files of the package, pictures among them
 */
export function writeDocument(
  xml: string,
  styles: Pick<Walk, 'looks' | 'setOff'>,
  regions: ReadonlyMap<string, ChangedRegion>,
  parts: Parts,
): { written: WrittenText; annotations: readonly OdtAnnotation[] } {
  const writer = new LayoutWriter();
  const walk: Walk = {
    writer,
    ...styles,
    regions,
    parts,
    annotations: [],
    byName: new Map(),
    footnotes: [],
    spans: [],
    active: [],
    tables: new TablePlaces(),
    lists: 0,
    noteCount: 0,
    inCitation: false,
    inFootnote: false,
    inside: null,
    listening: null,
    inline: null,
  };
  let inBody = false;
  let skipping = 0;
  const rowOf = (name: string) => (walk.inside === null ? inText : inAnnotation)[name];
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'office:text') inBody = true;
      if (name === 'text:tracked-changes') skipping++;
      if (inBody && skipping === 0) rowOf(name)?.open?.(walk, attributes, name);
    },
    text: (text) => {
      if (inBody && skipping === 0) readText(walk, text);
    },
    close: (name) => {
      if (name === 'office:text') inBody = false;
      if (name === 'text:tracked-changes') skipping--;
      if (inBody && skipping === 0) rowOf(name)?.close?.(walk, name);
    },
  });
  for (const { number, text } of walk.footnotes) {
    writer.beginBlock({ kind: 'footnote', level: number, cell: null });
    writer.append(text, PLAIN, []);
  }
  return { written: writer.finish(), annotations: walk.annotations };
}

function putPicture(writer: LayoutWriter, parts: Parts, href: string): void {
  const bytes = parts[href] as Uint8Array<ArrayBuffer> | undefined;
  const mediaType = pictureTypeOf(href);
  if (bytes !== undefined && mediaType !== undefined) writer.picture({ bytes, mediaType, description: '' });
}

/** A picture that stands in the XML itself, in Base64; what is none is left out. */
function putInline(writer: LayoutWriter, base64: string): void {
  const plain = base64.replaceAll(/\s+/g, '');
  if (!/^[A-Za-z0-9+/]+={0,2}$/.test(plain)) return;
  const bytes = Uint8Array.from(atob(plain), (character) => character.charCodeAt(0));
  const mediaType = pictureTypeIn(bytes);
  if (mediaType !== undefined) writer.picture({ bytes, mediaType, description: '' });
}

import { instantOfIso } from '../dates.ts';
import { LayoutWriter, type TrackedChange, type WrittenText } from '../text/layout-writer.ts';
import { TablePlaces } from '../text/table-places.ts';
import { rowsFor, type ElementRows } from '../xml/element-rows.ts';
import { parseXml, type Attributes } from '../xml/parse-xml.ts';
import { readNumberings, readRelations, readStyles, type DocxParts, type Styles } from './docx-parts.ts';

/** The body of a Word document and its notes, written as a layout; what each element does is one row of `elements`. */

/** From where to where a comment reaches, as offsets of the text that is written. */
export interface Range {
  from: number;
  to: number;
}

/**
 * Writes the document, then the notes that it called, in the order of their calls.
 * @param ranges takes the range of each comment, by its id
 */
export function writeDocument(parts: DocxParts, ranges: Map<string, Range>): WrittenText {
  const writer = new LayoutWriter();
  const relations = readRelations(parts.part('_rels/document.xml.rels'));
  const called: { part: string; id: string }[] = [];
  const context: BodyContext = {
    writer,
    styles: readStyles(parts.part('styles.xml')),
    range: (id) => {
      const range = ranges.get(id) ?? { from: writer.position, to: writer.position };
      ranges.set(id, range);
      return range;
    },
    picture: (id, description) => {
      const media = parts.media(relations.get(id) ?? '');
      if (media !== null) writer.picture({ ...media, description });
    },
    linkOf: (id) => {
      const to = relations.get(id) ?? '';
      return /^(?:https?|mailto):/i.test(to) ? to : null;
    },
    numberings: readNumberings(parts.part('numbering.xml')),
    call: (part, id) => {
      writer.note(called.push({ part, id }));
    },
  };
  writeBody(parts.document, context, null);
  called.forEach(({ part, id }, index) => {
    const xml = parts.part(part);
    if (xml !== null) writeBody(xml, context, { id, number: index + 1 });
  });
  return writer.finish();
}

interface BodyContext {
  readonly writer: LayoutWriter;
  readonly styles: Styles;
  readonly range: (commentId: string) => Range;
  readonly picture: (relationId: string, description: string) => void;
  readonly call: (part: string, id: string) => void;
  /** Where a relation leads outside of the file; null where it doesn't. */
  readonly linkOf: (relationId: string) => string | null;
  /** The numberings that count, by id and depth. */
  readonly numberings: ReadonlySet<string>;
}

/** A walk over the document, or over one note of a part of notes. */
interface Walk extends BodyContext {
  readonly note: { readonly id: string; readonly number: number } | null;
  readonly tables: TablePlaces;
  readonly changes: TrackedChange[];
  readonly moves: { readonly id: string; readonly name: string }[];
  readonly paragraphs: { format: TrackedChange | null }[];
  run: { bold: boolean; italic: boolean; script: 'super' | 'sub' | null; format: TrackedChange | null };
  /** Where the words that are walked over lead; null for nowhere. */
  link: string | null;
  /** The numbering of the paragraph that is open, as far as it was read. */
  numbering: { id: string; depth: number };
  inText: boolean;
  inParagraphProperties: boolean;
  inRunProperties: boolean;
  /** How deep the walk is in properties as they were before a change. */
  inOldProperties: number;
  /** A text box is written twice, the second time for old readers. */
  fallbacks: number;
  description: string;
  /** Whether the walk is in what it writes. */
  listening: boolean;
}

function begin({ writer, note, tables }: Walk): void {
  writer.beginBlock({
    kind: note === null ? 'paragraph' : 'footnote',
    level: note?.number ?? 0,
    cell: tables.cell,
  });
}

function append(walk: Walk, text: string): void {
  const { writer, changes, run } = walk;
  if (!writer.isOpen) begin(walk);
  const above = changes.at(-1);
  const under = [...(above === undefined ? [] : [above]), ...(run.format === null ? [] : [run.format])];
  writer.append(text, { ...run, link: walk.link }, under);
}

/** A note is a footnote, whatever the style of its paragraphs. */
/** "Quote", "IntenseQuote", "BlockText", and what other languages call them. */
const QUOTATION_STYLE = /quot|block ?text|zitat|cita/i;
/** A third of an inch: less is no quotation set off. */
const SET_OFF_TWIPS = 480;

function restyle(
  { writer, note }: Walk,
  look: { kind: 'heading' | 'item'; level: number; ordered?: boolean } | { quoted: true },
): void {
  if (note === null) writer.restyle(look);
}

function isOn(value: string | undefined): boolean {
  return value !== '0' && value !== 'false' && value !== 'none';
}

function inProperties({ inRunProperties, inParagraphProperties }: Walk): boolean {
  return inRunProperties || inParagraphProperties;
}

function ofRun({ inRunProperties, inParagraphProperties }: Walk): boolean {
  return inRunProperties && !inParagraphProperties;
}

function idOf(attributes: Attributes): string {
  return attributes['w:id'] ?? '';
}

/** Elements whose words are under a tracked change, and of which kind. */
const CHANGES: Readonly<Partial<Record<string, TrackedChange['kind']>>> = {
  'w:ins': 'insertion',
  'w:del': 'deletion',
  'w:moveFrom': 'move',
  'w:moveTo': 'move',
};

function changeOf(
  kind: TrackedChange['kind'],
  name: string,
  attributes: Attributes,
  move: string | null,
): TrackedChange {
  return {
    kind,
    author: attributes['w:author'] ?? '',
    at: instantOfIso(attributes['w:date'] ?? null),
    ...(kind === 'move' && {
      move: { end: name === 'w:moveFrom' ? ('from' as const) : ('to' as const), name: move },
    }),
  };
}

/** What each element of WordprocessingML does (ECMA-376-1, 17); in properties of before a change, none does. */
const elements: ElementRows<Walk> = {
  ...rowsFor(Object.keys(CHANGES), {
    // In properties they say that the paragraph's mark was changed, or a row of a table.
    open: (walk, attributes, name) => {
      const kind = CHANGES[name];
      if (kind !== undefined && !inProperties(walk))
        walk.changes.push(changeOf(kind, name, attributes, walk.moves.at(-1)?.name ?? null));
    },
    close: (walk) => {
      if (!inProperties(walk)) walk.changes.pop();
    },
  }),
  'w:p': {
    open: (walk) => {
      walk.paragraphs.push({ format: null });
      begin(walk);
    },
    close: ({ paragraphs, writer }) => {
      const format = paragraphs.pop()?.format ?? null;
      if (format !== null) writer.trackBlock(format);
      writer.endBlock();
    },
  },
  'w:pPr': {
    open: (walk) => (walk.inParagraphProperties = true),
    close: (walk) => (walk.inParagraphProperties = false),
  },
  'w:pStyle': {
    open: (walk, attributes) => {
      const style = attributes['w:val'] ?? '';
      const level = walk.styles.levels.get(style) ?? 0;
      if (level > 0) restyle(walk, { kind: 'heading', level: Math.min(6, level) });
      else if (walk.styles.lists.has(style)) restyle(walk, { kind: 'item', level: 0 });
      else if (QUOTATION_STYLE.test(style)) restyle(walk, { quoted: true });
    },
  },
  'w:ind': {
    open: (walk, attributes) => {
      const left = Number(attributes['w:left'] ?? attributes['w:start'] ?? 0);
      // The first line of what hangs, an entry of a list of references, stands out again.
      if (walk.inParagraphProperties && left >= SET_OFF_TWIPS && attributes['w:hanging'] === undefined)
        restyle(walk, { quoted: true });
    },
  },
  'w:outlineLvl': {
    open: (walk, attributes) => {
      const level = Number(attributes['w:val']);
      if (level < 6) restyle(walk, { kind: 'heading', level: level + 1 });
    },
  },
  'w:numPr': {
    open: (walk) => {
      walk.numbering = { id: '', depth: 0 };
      if (walk.inParagraphProperties) restyle(walk, { kind: 'item', level: 0 });
    },
    close: (walk) => {
      const { id, depth } = walk.numbering;
      if (walk.inParagraphProperties)
        restyle(walk, { kind: 'item', level: depth, ordered: walk.numberings.has(`${id} ${depth}`) });
    },
  },
  'w:ilvl': {
    open: ({ numbering }, attributes) =>
      (numbering.depth = Math.min(8, Number(attributes['w:val'] ?? 0) || 0)),
  },
  'w:numId': { open: ({ numbering }, attributes) => (numbering.id = attributes['w:val'] ?? '') },
  'w:r': { open: (walk) => (walk.run = { bold: false, italic: false, script: null, format: null }) },
  'w:rPr': {
    open: (walk) => (walk.inRunProperties = true),
    close: (walk) => (walk.inRunProperties = false),
  },
  'w:b': {
    open: (walk, attributes) => {
      if (ofRun(walk)) walk.run.bold = isOn(attributes['w:val']);
    },
  },
  'w:i': {
    open: (walk, attributes) => {
      if (ofRun(walk)) walk.run.italic = isOn(attributes['w:val']);
    },
  },
  'w:vertAlign': {
    open: (walk, attributes) => {
      const value = attributes['w:val'] ?? '';
      if (ofRun(walk))
        walk.run.script = value === 'superscript' ? 'super' : value === 'subscript' ? 'sub' : null;
    },
  },
  'w:hyperlink': {
    open: (walk, attributes) => (walk.link = walk.linkOf(attributes['r:id'] ?? '')),
    close: (walk) => (walk.link = null),
  },
  ...rowsFor(['w:t', 'w:delText'], {
    open: (walk) => (walk.inText = true),
    close: (walk) => (walk.inText = false),
  }),
  'w:tab': {
    // Among properties it is a stop.
    open: (walk) => {
      if (!walk.inParagraphProperties) append(walk, ' ');
    },
  },
  ...rowsFor(['w:br', 'w:cr'], { open: (walk) => append(walk, ' ') }),
  'w:noBreakHyphen': { open: (walk) => append(walk, '-') },
  'w:tbl': { open: ({ tables }) => tables.begin(), close: ({ tables }) => tables.end() },
  'w:tr': { open: ({ tables }) => tables.nextRow() },
  'w:tc': { open: ({ tables }) => tables.nextColumn() },
  'w:commentRangeStart': {
    open: ({ range, writer }, attributes) => (range(idOf(attributes)).from = writer.position),
  },
  'w:commentRangeEnd': {
    open: ({ range, writer }, attributes) => (range(idOf(attributes)).to = writer.position),
  },
  'w:commentReference': { open: ({ range }, attributes) => range(idOf(attributes)) },
  ...rowsFor(['w:moveFromRangeStart', 'w:moveToRangeStart'], {
    open: ({ moves }, attributes) => moves.push({ id: idOf(attributes), name: attributes['w:name'] ?? '' }),
  }),
  ...rowsFor(['w:moveFromRangeEnd', 'w:moveToRangeEnd'], {
    open: ({ moves }, attributes) =>
      moves.splice(0, moves.length, ...moves.filter(({ id }) => id !== attributes['w:id'])),
  }),
  'w:footnoteReference': { open: ({ call }, attributes) => call('footnotes.xml', idOf(attributes)) },
  'w:endnoteReference': { open: ({ call }, attributes) => call('endnotes.xml', idOf(attributes)) },
  'wp:docPr': { open: (walk, attributes) => (walk.description = attributes.descr ?? '') },
  'a:blip': {
    open: ({ picture, description }, attributes) => picture(attributes['r:embed'] ?? '', description),
  },
};

/** Properties as they were before a change: `w:rPrChange`, `w:pPrChange`, and those of sections and tables. */
const OLD_PROPERTIES = /^w:[a-zA-Z]+Change$/;

/** A change of format is known by the properties of before. */
function noteFormat(walk: Walk, name: string, attributes: Attributes): void {
  if (name === 'w:rPrChange' && ofRun(walk)) walk.run.format = changeOf('format', name, attributes, null);
  const paragraph = walk.paragraphs.at(-1);
  if (name === 'w:pPrChange' && paragraph !== undefined)
    paragraph.format = changeOf('format', name, attributes, null);
}

/** Writes the paragraphs of the document, or of one note of a part of notes. */
function writeBody(xml: string, context: BodyContext, note: Walk['note']): void {
  const walk: Walk = {
    ...context,
    note,
    tables: new TablePlaces(),
    changes: [],
    moves: [],
    paragraphs: [],
    run: { bold: false, italic: false, script: null, format: null },
    link: null,
    numbering: { id: '', depth: 0 },
    inText: false,
    inParagraphProperties: false,
    inRunProperties: false,
    inOldProperties: 0,
    fallbacks: 0,
    description: '',
    listening: note === null,
  };
  parseXml(xml, {
    open: (name, attributes) => {
      if (note !== null && (name === 'w:footnote' || name === 'w:endnote'))
        walk.listening = attributes['w:id'] === note.id;
      if (name === 'mc:Fallback') walk.fallbacks++;
      if (!walk.listening || walk.fallbacks > 0) return;
      if (OLD_PROPERTIES.test(name)) {
        walk.inOldProperties++;
        noteFormat(walk, name, attributes);
      } else if (walk.inOldProperties === 0) elements[name]?.open?.(walk, attributes, name);
    },
    text: (text) => {
      const { inText, listening, fallbacks, inOldProperties } = walk;
      if (inText && listening && fallbacks === 0 && inOldProperties === 0) append(walk, text);
    },
    close: (name) => {
      if (name === 'mc:Fallback') walk.fallbacks--;
      if (!walk.listening || walk.fallbacks > 0) return;
      if (OLD_PROPERTIES.test(name)) walk.inOldProperties--;
      else if (walk.inOldProperties === 0) elements[name]?.close?.(walk, name);
    },
  });
}

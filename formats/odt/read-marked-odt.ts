import { refusedAs } from '../malformed.ts';
import { instantOfIso } from '../dates.ts';
import { isMachine } from '../machine.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import {
  LayoutWriter,
  marksOfChanges,
  targetOfSpan,
  type TextStyle,
  type TrackedChange,
  type WrittenText,
} from '../text/layout-writer.ts';
import { repliesTo } from '../threads.ts';
import { pictureTypeIn, pictureTypeOf } from '../picture/picture-type.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '../unreadable.ts';
import { parseXml, textOfPart, type Attributes } from '../xml/parse-xml.ts';
import { readZip } from '../zip/read-zip.ts';

const PLAIN: TextStyle = { bold: false, italic: false };

/**
 * Reads an OpenDocument text (.odt, ODF 1.3): its text with headings, lists, tables, pictures and footnotes; its
 * annotations with the exact words they are about, their answers and whether they are resolved; its tracked changes.
 * @throws UnreadableFile
 */
export function readMarkedOdt(bytes: Uint8Array): MarkedPaper {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new UnreadableFile('not an OpenDocument text');
  const parts = unpack(bytes);
  const content = parts['content.xml'] as Uint8Array | undefined;
  if (content === undefined) throw new UnreadableFile('not an OpenDocument text');
  const styles = parts['styles.xml'] as Uint8Array | undefined;
  return refusedAs('damaged OpenDocument text', () =>
    paperOfXml(textOfPart(content), styles === undefined ? null : textOfPart(styles), parts),
  );
}

/**
 * Reads a flat OpenDocument text (.fodt): the same in one XML file, pictures among it.
 * @throws UnreadableFile
 */
export function readMarkedFodt(bytes: Uint8Array): MarkedPaper {
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  return refusedAs('damaged OpenDocument text', () => paperOfXml(textOfPart(bytes), null, {}));
}

function paperOfXml(xml: string, styles: string | null, parts: Parts): MarkedPaper {
  const looks = new Map<string, TextStyle>();
  if (styles !== null) readLooks(styles, looks);
  readLooks(xml, looks);
  const { written, annotations } = writeDocument(xml, looks, readChanges(xml), parts);
  const marks = [...annotationMarks(written, annotations), ...marksOfChanges(written)];
  marks.sort((x, y) => x.at - y.at);
  return {
    kind: 'odt',
    pages: [],
    pageStarts: [],
    paper: written.paper,
    layout: written.layout,
    marks: marks.map(({ mark }) => mark),
    unknownKinds: [],
    attached: [],
  };
}

type Parts = ReturnType<typeof readZip>;

function unpack(bytes: Uint8Array): Parts {
  return refusedAs('damaged OpenDocument text', () =>
    readZip(bytes, (name) => /^(content|styles)\.xml$|^Pictures\/[^/]+$/.test(name)),
  );
}

/** Which text styles are bold or italic, by name. */
function readLooks(xml: string, looks: Map<string, TextStyle>): void {
  let style: string | null = null;
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'style:style' && attributes['style:family'] === 'text')
        style = attributes['style:name'] ?? null;
      if (name !== 'style:text-properties' || style === null) return;
      looks.set(style, {
        bold: /^(bold|[6-9]00)$/.test(attributes['fo:font-weight'] ?? ''),
        italic: /^(italic|oblique)$/.test(attributes['fo:font-style'] ?? ''),
      });
    },
    close: (name) => {
      if (name === 'style:style') style = null;
    },
  });
}

interface ChangedRegion {
  readonly change: TrackedChange;
  /** The words that a deletion took out. */
  readonly words: string;
}

const REGION_KINDS: Readonly<Record<string, TrackedChange['kind']>> = {
  'text:insertion': 'insertion',
  'text:deletion': 'deletion',
  'text:format-change': 'format',
};

/** The tracked changes that the text refers to, by their id. */
function readChanges(xml: string): Map<string, ChangedRegion> {
  const regions = new Map<string, ChangedRegion>();
  let id: string | null = null;
  let kind: TrackedChange['kind'] | null = null;
  let author = '';
  let at = '';
  let words: string[] = [];
  let listening: 'author' | 'date' | 'words' | null = null;
  let inRegions = false;
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'text:tracked-changes') inRegions = true;
      if (!inRegions) return;
      if (name === 'text:changed-region') {
        id = attributes['text:id'] ?? attributes['xml:id'] ?? null;
        [kind, author, at, words] = [null, '', '', []];
      }
      kind = REGION_KINDS[name] ?? kind;
      if (name === 'dc:creator') listening = 'author';
      else if (name === 'dc:date') listening = 'date';
      else if (name === 'text:p' || name === 'text:h') {
        words.push('');
        listening = 'words';
      } else if (name === 'text:s' && words.length > 0)
        words[words.length - 1] += ' '.repeat(spacesOf(attributes));
    },
    text: (text) => {
      if (listening === 'author') author += text;
      if (listening === 'date') at += text;
      if (listening === 'words') words[words.length - 1] += text;
    },
    close: (name) => {
      if (name === 'text:tracked-changes') inRegions = false;
      if (['dc:creator', 'dc:date', 'text:p', 'text:h'].includes(name)) listening = null;
      if (name !== 'text:changed-region' || id === null || kind === null) return;
      regions.set(id, { change: { kind, author, at: instantOfIso(at) }, words: words.join(' ') });
    },
  });
  return regions;
}

/** Spaces written by number; a file can ask for any number of them. */
function spacesOf(attributes: Attributes): number {
  return Math.min(100, Math.max(1, Number(attributes['text:c'] ?? 1) || 1));
}

interface OdtAnnotation {
  readonly id: string;
  readonly parent: string | null;
  readonly resolved: boolean;
  author: string;
  date: string;
  paragraphs: string[];
  from: number;
  to: number;
}

function writeDocument(
  xml: string,
  looks: ReadonlyMap<string, TextStyle>,
  regions: ReadonlyMap<string, ChangedRegion>,
  parts: Parts,
): { written: WrittenText; annotations: OdtAnnotation[] } {
  const writer = new LayoutWriter();
  const annotations: OdtAnnotation[] = [];
  const footnotes: { number: number; text: string }[] = [];
  const spans: TextStyle[] = [];
  const active: { id: string; change: TrackedChange }[] = [];
  const tables: { table: number; row: number; column: number }[] = [];
  let tableCount = 0;
  let lists = 0;
  let skipping = 0;
  let noteCount = 0;
  let inBody = false;
  let inCitation = false;
  let inFootnote = false;
  let note: OdtAnnotation | null = null;
  /** A picture's bytes in Base64, while they are read. */
  let inline: string | null = null;
  let listening: 'author' | 'date' | 'words' | null = null;

  const begin = (kind: 'heading' | 'paragraph' | 'item', level: number) => {
    const cell = tables.at(-1);
    writer.beginBlock({ kind, level, cell: cell === undefined ? null : { ...cell } });
  };
  const append = (text: string) => {
    if (inFootnote) {
      const footnote = footnotes.at(-1);
      if (footnote !== undefined) footnote.text += text;
    } else if (!inCitation)
      writer.append(
        text,
        spans.at(-1) ?? PLAIN,
        active.map(({ change }) => change),
      );
  };
  const beginAnnotation = (attributes: Attributes) => {
    const parent = Object.entries(attributes).find(([name]) => name.endsWith(':parent-name'))?.[1] ?? null;
    const resolved = Object.entries(attributes).find(([name]) => name.endsWith(':resolved'))?.[1];
    note = {
      id: attributes['office:name'] ?? `annotation ${annotations.length}`,
      parent,
      resolved: resolved === 'true',
      author: '',
      date: '',
      paragraphs: [],
      from: writer.position,
      to: writer.position,
    };
    annotations.push(note);
  };
  const openInAnnotation = (name: string, inside: OdtAnnotation) => {
    if (name === 'dc:creator') listening = 'author';
    else if (name === 'dc:date') listening = 'date';
    else if (name === 'text:p') {
      inside.paragraphs.push('');
      listening = 'words';
    } else if (name === 'text:s' || name === 'text:tab')
      inside.paragraphs[inside.paragraphs.length - 1] += ' ';
    else if (name === 'text:line-break') inside.paragraphs[inside.paragraphs.length - 1] += '\n';
  };

  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'office:text') inBody = true;
      if (name === 'text:tracked-changes') skipping++;
      if (!inBody || skipping > 0) return;
      if (note !== null) {
        openInAnnotation(name, note);
        return;
      }
      switch (name) {
        case 'text:h':
          if (!inFootnote)
            begin('heading', Math.min(6, Math.max(1, Number(attributes['text:outline-level'] ?? 1))));
          break;
        case 'text:p':
          if (inFootnote) append(' ');
          else if (attributes['text:style-name'] === 'Title') begin('heading', 1);
          else
            begin(lists > 0 || /^List/.test(attributes['text:style-name'] ?? '') ? 'item' : 'paragraph', 0);
          break;
        case 'text:span':
          spans.push(looks.get(attributes['text:style-name'] ?? '') ?? spans.at(-1) ?? PLAIN);
          break;
        case 'text:list':
          lists++;
          break;
        case 'text:s':
          append(' '.repeat(spacesOf(attributes)));
          break;
        case 'text:tab':
        case 'text:line-break':
          append(' ');
          break;
        case 'table:table':
          tables.push({ table: tableCount++, row: -1, column: -1 });
          break;
        case 'table:table-row': {
          const table = tables.at(-1);
          if (table !== undefined) Object.assign(table, { row: table.row + 1, column: -1 });
          break;
        }
        case 'table:table-cell': {
          const table = tables.at(-1);
          if (table !== undefined) table.column++;
          break;
        }
        case 'office:annotation':
          beginAnnotation(attributes);
          break;
        case 'office:annotation-end': {
          const ended = annotations.find(({ id }) => id === attributes['office:name']);
          if (ended !== undefined) ended.to = writer.position;
          break;
        }
        case 'text:change-start': {
          const region = regions.get(attributes['text:change-id'] ?? '');
          if (region !== undefined)
            active.push({ id: attributes['text:change-id'] ?? '', change: region.change });
          break;
        }
        case 'text:change-end':
          active.splice(0, active.length, ...active.filter(({ id }) => id !== attributes['text:change-id']));
          break;
        case 'text:change': {
          const region = regions.get(attributes['text:change-id'] ?? '');
          if (region !== undefined && writer.isOpen) writer.append(region.words, PLAIN, [region.change]);
          break;
        }
        case 'text:note':
          noteCount++;
          writer.note(noteCount);
          break;
        case 'text:note-citation':
          inCitation = true;
          break;
        case 'text:note-body':
          inFootnote = true;
          footnotes.push({ number: noteCount, text: '' });
          break;
        case 'draw:image':
          putPicture(writer, parts, attributes['xlink:href'] ?? '');
          break;
        case 'office:binary-data':
          inline = '';
          break;
      }
    },
    text: (text) => {
      if (!inBody || skipping > 0) return;
      if (inline !== null) inline += text;
      else if (note === null) append(text);
      else if (listening === 'author') note.author += text;
      else if (listening === 'date') note.date += text;
      else if (listening === 'words') note.paragraphs[note.paragraphs.length - 1] += text;
    },
    close: (name) => {
      if (name === 'office:text') inBody = false;
      if (name === 'text:tracked-changes') skipping--;
      if (!inBody || skipping > 0) return;
      if (name === 'office:binary-data' && inline !== null) {
        putInline(writer, inline);
        inline = null;
        return;
      }
      if (note !== null) {
        if (name === 'office:annotation') note = null;
        else if (['dc:creator', 'dc:date', 'text:p'].includes(name)) listening = null;
        return;
      }
      if ((name === 'text:p' || name === 'text:h') && !inFootnote) writer.endBlock();
      if (name === 'text:span') spans.pop();
      if (name === 'text:list') lists--;
      if (name === 'table:table') tables.pop();
      if (name === 'text:note-citation') inCitation = false;
      if (name === 'text:note-body') inFootnote = false;
    },
  });
  for (const { number, text } of footnotes) {
    writer.beginBlock({ kind: 'footnote', level: number, cell: null });
    writer.append(text, PLAIN, []);
  }
  return { written: writer.finish(), annotations };
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

function annotationMarks(
  written: WrittenText,
  annotations: readonly OdtAnnotation[],
): { mark: Mark; at: number }[] {
  const byId = new Map(annotations.map((annotation) => [annotation.id, annotation]));
  const isAnswer = (annotation: OdtAnnotation) => {
    const seen = new Set<string>();
    for (let at: OdtAnnotation | undefined = annotation; at !== undefined; at = byId.get(at.parent ?? '')) {
      if (seen.has(at.id)) return false;
      seen.add(at.id);
    }
    return byId.has(annotation.parent ?? '');
  };
  const textOf = ({ paragraphs }: OdtAnnotation) => paragraphs.join('\n').trim();
  const answers = annotations.filter(isAnswer).map((annotation) => ({
    id: annotation.id,
    answers: annotation.parent ?? '',
    author: annotation.author,
    at: instantOfIso(annotation.date),
    text: textOf(annotation),
  }));
  return annotations
    .filter((annotation) => !isAnswer(annotation))
    .map((annotation) => {
      const { target, anchor } = targetOfSpan(written, annotation);
      return {
        at: annotation.from,
        mark: {
          sourceId: annotation.id,
          kind: 'comment',
          author: annotation.author,
          byMachine: isMachine(annotation.author),
          at: instantOfIso(annotation.date),
          color: null,
          text: textOf(annotation),
          subject: null,
          targets: [target],
          anchor,
          replies: repliesTo(annotation.id, answers),
          state: annotation.resolved ? 'resolved' : null,
          change: null,
        },
      };
    });
}

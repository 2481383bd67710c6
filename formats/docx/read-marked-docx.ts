import { instantOfIso } from '../dates.ts';
import { isMachine } from '../machine.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import {
  LayoutWriter,
  marksOfChanges,
  targetOfSpan,
  type TrackedChange,
  type WrittenText,
} from '../text/layout-writer.ts';
import { repliesTo } from '../threads.ts';
import { refusedAs } from '../malformed.ts';
import { parseXml, type Attributes } from '../xml/parse-xml.ts';
import {
  openDocx,
  readCommentExtensions,
  readComments,
  readRelations,
  readStyles,
  statedPagesOf,
  type DocxParts,
  type Styles,
  type WordComment,
} from './docx-parts.ts';

export interface MarkedDocx extends MarkedPaper {
  /** The number of pages that the file itself states; null where it states none. */
  readonly statedPages: number | null;
}

/**
 * Reads a Word file (.docx, ECMA-376): its text with headings, lists, tables, pictures and footnotes; its comments with
 * the exact words they are about, their answers and whether they are done; its tracked changes.
 * @throws UnreadableFile
 */
export function readMarkedDocx(bytes: Uint8Array): MarkedDocx {
  const parts = openDocx(bytes);
  return refusedAs('damaged Word file', () => {
    const ranges = new Map<string, Range>();
    const written = writeDocument(parts, ranges);
    const marks = [...commentMarks(parts, written, ranges), ...marksOfChanges(written)];
    marks.sort((x, y) => x.at - y.at);
    return {
      kind: 'docx',
      pages: [],
      pageStarts: [],
      paper: written.paper,
      layout: written.layout,
      marks: marks.map(({ mark }) => mark),
      unknownKinds: [],
      attached: [],
      statedPages: statedPagesOf(parts.app),
    };
  });
}

interface Range {
  from: number;
  to: number;
}

/** Elements whose words are under a tracked change, and of which kind. */
const CHANGES: Readonly<Record<string, TrackedChange['kind']>> = {
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

function isOn(value: string | undefined): boolean {
  return value !== '0' && value !== 'false' && value !== 'none';
}

function writeDocument(parts: DocxParts, ranges: Map<string, Range>): WrittenText {
  const writer = new LayoutWriter();
  const styles = readStyles(parts.part('styles.xml'));
  const relations = readRelations(parts.part('_rels/document.xml.rels'));
  const called: { part: string; id: string }[] = [];
  const context: BodyContext = {
    writer,
    styles,
    range: (id) => {
      const range = ranges.get(id) ?? { from: writer.position, to: writer.position };
      ranges.set(id, range);
      return range;
    },
    picture: (id, description) => {
      const media = parts.media(relations.get(id) ?? '');
      if (media !== null) writer.picture({ ...media, description });
    },
    call: (part, id) => {
      writer.note(called.push({ part, id }));
    },
  };
  writeBody(parts.document, context);
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
}

/** Writes the paragraphs of the document, or of one note of a part of notes. */
function writeBody(
  xml: string,
  { writer, styles, range, picture, call }: BodyContext,
  note?: { id: string; number: number },
): void {
  const changes: TrackedChange[] = [];
  const tables: { table: number; row: number; column: number }[] = [];
  const moves: { id: string; name: string }[] = [];
  const paragraphs: { format: TrackedChange | null }[] = [];
  let tableCount = 0;
  let run = { bold: false, italic: false, format: null as TrackedChange | null };
  let inText = false;
  let inParagraphProperties = false;
  let inRunProperties = false;
  let inOldProperties = 0;
  let fallbacks = 0;
  let description = '';
  let listening = note === undefined;

  const begin = () => {
    const cell = tables.at(-1);
    writer.beginBlock({
      kind: note === undefined ? 'paragraph' : 'footnote',
      level: note?.number ?? 0,
      cell: cell === undefined ? null : { ...cell },
    });
  };
  const style = (id: string) => {
    const level = styles.levels.get(id) ?? 0;
    if (note !== undefined) return;
    if (level > 0) writer.restyle({ kind: 'heading', level: Math.min(6, level) });
    else if (styles.lists.has(id)) writer.restyle({ kind: 'item', level: 0 });
  };
  const append = (text: string) => {
    if (!writer.isOpen) begin();
    const above = changes.at(-1);
    const under = [...(above === undefined ? [] : [above]), ...(run.format === null ? [] : [run.format])];
    writer.append(text, run, under);
  };

  parseXml(xml, {
    open: (name, attributes) => {
      if (note !== undefined && (name === 'w:footnote' || name === 'w:endnote'))
        listening = attributes['w:id'] === note.id;
      // A text box is written twice, the second time for old readers.
      if (name === 'mc:Fallback') fallbacks++;
      if (!listening || fallbacks > 0) return;
      if (/^w:[a-zA-Z]+Change$/.test(name)) {
        inOldProperties++;
        if (name === 'w:rPrChange' && inRunProperties && !inParagraphProperties)
          run.format = changeOf('format', name, attributes, null);
        const paragraph = paragraphs.at(-1);
        if (name === 'w:pPrChange' && paragraph !== undefined)
          paragraph.format = changeOf('format', name, attributes, null);
        return;
      }
      if (inOldProperties > 0) return;
      const kind = CHANGES[name] as TrackedChange['kind'] | undefined;
      if (kind !== undefined && !inRunProperties && !inParagraphProperties) {
        changes.push(changeOf(kind, name, attributes, moves.at(-1)?.name ?? null));
        return;
      }
      switch (name) {
        case 'w:p':
          paragraphs.push({ format: null });
          begin();
          break;
        case 'w:pPr':
          inParagraphProperties = true;
          break;
        case 'w:pStyle':
          style(attributes['w:val'] ?? '');
          break;
        case 'w:outlineLvl':
          if (note === undefined && Number(attributes['w:val']) < 6)
            writer.restyle({ kind: 'heading', level: Number(attributes['w:val']) + 1 });
          break;
        case 'w:numPr':
          if (note === undefined && inParagraphProperties) writer.restyle({ kind: 'item', level: 0 });
          break;
        case 'w:r':
          run = { bold: false, italic: false, format: null };
          break;
        case 'w:rPr':
          inRunProperties = true;
          break;
        case 'w:b':
          if (inRunProperties && !inParagraphProperties) run.bold = isOn(attributes['w:val']);
          break;
        case 'w:i':
          if (inRunProperties && !inParagraphProperties) run.italic = isOn(attributes['w:val']);
          break;
        case 'w:t':
        case 'w:delText':
          inText = true;
          break;
        case 'w:tab':
          if (!inParagraphProperties) append(' ');
          break;
        case 'w:br':
        case 'w:cr':
          append(' ');
          break;
        case 'w:noBreakHyphen':
          append('-');
          break;
        case 'w:tbl':
          tables.push({ table: tableCount++, row: -1, column: -1 });
          break;
        case 'w:tr':
          nextRow(tables);
          break;
        case 'w:tc':
          nextColumn(tables);
          break;
        case 'w:commentRangeStart':
          range(attributes['w:id'] ?? '').from = writer.position;
          break;
        case 'w:commentRangeEnd':
          range(attributes['w:id'] ?? '').to = writer.position;
          break;
        case 'w:commentReference':
          range(attributes['w:id'] ?? '');
          break;
        case 'w:moveFromRangeStart':
        case 'w:moveToRangeStart':
          moves.push({ id: attributes['w:id'] ?? '', name: attributes['w:name'] ?? '' });
          break;
        case 'w:moveFromRangeEnd':
        case 'w:moveToRangeEnd':
          moves.splice(0, moves.length, ...moves.filter((move) => move.id !== attributes['w:id']));
          break;
        case 'w:footnoteReference':
          call('footnotes.xml', attributes['w:id'] ?? '');
          break;
        case 'w:endnoteReference':
          call('endnotes.xml', attributes['w:id'] ?? '');
          break;
        case 'wp:docPr':
          description = attributes.descr ?? '';
          break;
        case 'a:blip':
          picture(attributes['r:embed'] ?? '', description);
          break;
      }
    },
    text: (text) => {
      if (inText && listening && fallbacks === 0 && inOldProperties === 0) append(text);
    },
    close: (name) => {
      if (name === 'mc:Fallback') fallbacks--;
      if (!listening || fallbacks > 0) return;
      if (/^w:[a-zA-Z]+Change$/.test(name)) {
        inOldProperties--;
        return;
      }
      if (inOldProperties > 0) return;
      if (name in CHANGES && !inRunProperties && !inParagraphProperties) changes.pop();
      if (name === 'w:t' || name === 'w:delText') inText = false;
      if (name === 'w:rPr') inRunProperties = false;
      if (name === 'w:pPr') inParagraphProperties = false;
      if (name === 'w:tbl') tables.pop();
      if (name === 'w:p') {
        const format = paragraphs.pop()?.format ?? null;
        if (format !== null) writer.trackBlock(format);
        writer.endBlock();
      }
    },
  });
}

function nextRow(tables: { row: number; column: number }[]): void {
  const table = tables.at(-1);
  if (table === undefined) return;
  table.row++;
  table.column = -1;
}

function nextColumn(tables: { column: number }[]): void {
  const table = tables.at(-1);
  if (table !== undefined) table.column++;
}

function commentMarks(
  parts: DocxParts,
  written: WrittenText,
  ranges: ReadonlyMap<string, Range>,
): { mark: Mark; at: number }[] {
  const comments = readComments(parts.part('comments.xml'));
  const extensions = readCommentExtensions(parts.part('commentsExtended.xml'));
  const extensionOf = (comment: WordComment) => extensions.get(comment.paragraphIds.at(-1) ?? '');
  const byParagraph = new Map(
    comments.flatMap((comment) => comment.paragraphIds.filter(Boolean).map((id) => [id, comment])),
  );
  const parentOf = (comment: WordComment) => {
    const parent = byParagraph.get(extensionOf(comment)?.parent ?? '');
    return parent === undefined || goesRound(comment, byParagraph, extensionOf) ? undefined : parent;
  };
  const answers = comments.flatMap((comment) => {
    const parent = parentOf(comment);
    return parent === undefined ? [] : [{ ...comment, answers: parent.id }];
  });
  return comments
    .filter((comment) => parentOf(comment) === undefined)
    .map((comment) => {
      const range = ranges.get(comment.id);
      const placed =
        range === undefined
          ? null
          : targetOfSpan(written, { from: range.from, to: Math.max(range.from, range.to) });
      return {
        at: range?.from ?? Infinity,
        mark: {
          sourceId: comment.id,
          kind: 'comment',
          author: comment.author,
          byMachine: isMachine(comment.author),
          at: comment.at,
          color: null,
          text: comment.text,
          subject: null,
          targets: [placed?.target ?? { kind: 'whole' }],
          anchor: placed?.anchor ?? null,
          replies: repliesTo(comment.id, answers),
          state: extensionOf(comment)?.done === true ? 'done' : null,
          change: null,
        },
      };
    });
}

function goesRound(
  comment: WordComment,
  byParagraph: ReadonlyMap<string, WordComment>,
  extensionOf: (comment: WordComment) => { parent: string | null } | undefined,
): boolean {
  const seen = new Set<string>();
  for (
    let at: WordComment | undefined = comment;
    at !== undefined;
    at = byParagraph.get(extensionOf(at)?.parent ?? '')
  ) {
    if (seen.has(at.id)) return true;
    seen.add(at.id);
  }
  return false;
}

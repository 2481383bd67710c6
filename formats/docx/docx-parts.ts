import { refusedAs } from '../malformed.ts';
import { pictureTypeOf } from '../picture/picture-type.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '../unreadable.ts';
import { readZip } from '../zip/read-zip.ts';
import { parseXml, textOfPart } from '../xml/parse-xml.ts';
import { instantOfIso } from '../dates.ts';
import type { Instant } from '#core/model/ids.ts';

/** The parts of a Word file (ECMA-376) that are read here. */
export interface DocxParts {
  readonly document: string;
  /** Other XML parts by their name within word/, where there are any. */
  part(name: string): string | null;
  readonly app: string | null;
  media(name: string): { readonly bytes: Uint8Array<ArrayBuffer>; readonly mediaType: string } | null;
}

/** @throws UnreadableFile */
export function openDocx(bytes: Uint8Array): DocxParts {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new UnreadableFile('not a Word file');
  const parts = unpack(bytes);
  const part = (name: string) => {
    const found = parts[name] as Uint8Array | undefined;
    return found === undefined ? null : textOfPart(found);
  };
  const document = part('word/document.xml');
  if (document === null) throw new UnreadableFile('not a Word file');
  return {
    document,
    part: (name) => part(`word/${name}`),
    app: part('docProps/app.xml'),
    media(name) {
      const found = parts[`word/${name}`] as Uint8Array<ArrayBuffer> | undefined;
      const mediaType = pictureTypeOf(name);
      return found === undefined || mediaType === undefined ? null : { bytes: found, mediaType };
    },
  };
}

function unpack(bytes: Uint8Array) {
  return refusedAs('damaged Word file', () =>
    readZip(bytes, (name) =>
      /^word\/([^/]+\.xml|_rels\/document\.xml\.rels|media\/[^/]+)$|^docProps\/app\.xml$/.test(name),
    ),
  );
}

/** What a style makes of a paragraph: heading levels by style id, and which styles number their paragraphs. */
export interface Styles {
  readonly levels: ReadonlyMap<string, number>;
  readonly lists: ReadonlySet<string>;
}

/** Heading levels come from the outline level, else from the built-in name "heading n" or "Title". */
export function readStyles(xml: string | null): Styles {
  const levels = new Map<string, number>();
  const lists = new Set<string>();
  if (xml === null) return { levels, lists };
  let style: string | null = null;
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'w:style') style = attributes['w:styleId'] ?? null;
      if (style === null) return;
      const value = attributes['w:val'] ?? '';
      const named = /^heading (\d)$/i.exec(value);
      if (name === 'w:name' && named !== null) levels.set(style, Number(named[1]));
      if (name === 'w:name' && value.toLowerCase() === 'title') levels.set(style, 1);
      if (name === 'w:name' && /^list( |$)/i.test(value)) lists.add(style);
      if (name === 'w:outlineLvl' && Number(value) < 9) levels.set(style, Number(value) + 1);
      if (name === 'w:numPr') lists.add(style);
    },
    close: (name) => {
      if (name === 'w:style') style = null;
    },
  });
  return { levels, lists };
}

/** The numberings whose items are counted and not only marked, each as id and depth with a space between. */
export function readNumberings(xml: string | null): ReadonlySet<string> {
  const counted = new Set<string>();
  if (xml === null) return counted;
  const abstract = new Set<string>();
  let of = '';
  let depth = '';
  let number = '';
  parseXml(xml, {
    open: (name, attributes) => {
      const value = attributes['w:val'] ?? '';
      if (name === 'w:abstractNum') of = attributes['w:abstractNumId'] ?? '';
      if (name === 'w:lvl') depth = attributes['w:ilvl'] ?? '';
      if (name === 'w:numFmt' && value !== 'bullet' && value !== 'none') abstract.add(`${of} ${depth}`);
      if (name === 'w:num') number = attributes['w:numId'] ?? '';
      if (name === 'w:abstractNumId' && number !== '')
        for (let level = 0; level < 9; level++)
          if (abstract.has(`${value} ${level}`)) counted.add(`${number} ${level}`);
    },
    close: (name) => {
      if (name === 'w:num') number = '';
    },
  });
  return counted;
}

/** Where relations of the document lead, by their id. */
export function readRelations(xml: string | null): ReadonlyMap<string, string> {
  const targets = new Map<string, string>();
  if (xml === null) return targets;
  parseXml(xml, {
    open: (name, { Id, Target }) => {
      if (name === 'Relationship' && Id !== undefined && Target !== undefined)
        targets.set(Id, Target.replace(/^\/?word\//, ''));
    },
  });
  return targets;
}

/** A comment's own words; where it hangs is in the document. */
export interface WordComment {
  readonly id: string;
  readonly author: string;
  readonly at: Instant | null;
  readonly text: string;
  /** Of its paragraphs: another comment says by the last of them that it answers this one. */
  readonly paragraphIds: readonly string[];
}

/** The comments of comments.xml; none where the file has no such part. */
export function readComments(xml: string | null): WordComment[] {
  const comments: {
    id: string;
    author: string;
    at: Instant | null;
    paragraphs: string[];
    paragraphIds: string[];
  }[] = [];
  if (xml === null) return [];
  let inText = false;
  parseXml(xml, {
    open: (name, attributes) => {
      const comment = comments.at(-1);
      if (name === 'w:comment')
        comments.push({
          id: attributes['w:id'] ?? '',
          author: attributes['w:author'] ?? '',
          at: instantOfIso(attributes['w:date'] ?? null),
          paragraphs: [],
          paragraphIds: [],
        });
      else if (comment === undefined) return;
      else if (name === 'w:p') {
        comment.paragraphs.push('');
        comment.paragraphIds.push(attributes['w14:paraId'] ?? '');
      } else if (name === 'w:t') inText = true;
      else if (name === 'w:br' || name === 'w:cr') comment.paragraphs[comment.paragraphs.length - 1] += '\n';
      else if (name === 'w:tab') comment.paragraphs[comment.paragraphs.length - 1] += ' ';
    },
    text: (text) => {
      const comment = comments.at(-1);
      if (inText && comment !== undefined && comment.paragraphs.length > 0)
        comment.paragraphs[comment.paragraphs.length - 1] += text;
    },
    close: (name) => {
      if (name === 'w:t') inText = false;
    },
  });
  return comments.map(({ paragraphs, ...comment }) => ({ ...comment, text: paragraphs.join('\n').trim() }));
}

/** What commentsExtended says of comments, by the id of their last paragraph. */
export interface CommentExtension {
  readonly parent: string | null;
  readonly done: boolean;
}

/** By the id of a comment's last paragraph: what it answers and whether it is done (commentsExtended.xml). */
export function readCommentExtensions(xml: string | null): ReadonlyMap<string, CommentExtension> {
  const extensions = new Map<string, CommentExtension>();
  if (xml === null) return extensions;
  parseXml(xml, {
    open: (name, attributes) => {
      const id = attributes['w15:paraId'];
      if (name !== 'w15:commentEx' || id === undefined) return;
      const done = attributes['w15:done'] ?? '0';
      extensions.set(id, {
        parent: attributes['w15:paraIdParent'] ?? null,
        done: done === '1' || done === 'true',
      });
    },
  });
  return extensions;
}

/** The number of pages that docProps/app.xml states; null for none. */
export function statedPagesOf(app: string | null): number | null {
  const pages = Number(/<Pages>(\d+)<\/Pages>/.exec(app ?? '')?.[1]);
  return Number.isInteger(pages) && pages > 0 ? pages : null;
}

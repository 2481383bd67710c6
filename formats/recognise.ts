import { formats, type FileKind, type FormatRow, type Looked } from './formats.ts';
import { UnreadableFile, type UnreadableReason } from './unreadable.ts';

const HEAD_BYTES = 1024;
/** So much of a text is looked at to tell what it is. */
const TEXT_BYTES = 4096;
/** The parts of an archive are named at its end; so much of it, and of its beginning, is looked at. */
const ARCHIVE_END_BYTES = 65_536;
const ARCHIVE_START_BYTES = 200;

/** What a file is. */
export interface Recognised {
  readonly kind: FileKind;
  readonly mediaType: string;
}

function look(bytes: Uint8Array): Looked {
  const latin = (part: Uint8Array) => new TextDecoder('latin1').decode(part);
  // Latin-1 in browsers is Windows-1252: bytes are compared one by one instead.
  const begins = (at: number, wanted: string) =>
    Array.from(wanted).every((c, i) => bytes[at + i] === c.charCodeAt(0));
  return {
    bytes,
    begins,
    head: latin(bytes.subarray(0, HEAD_BYTES)),
    parts: begins(0, 'PK\x03\x04')
      ? latin(bytes.subarray(0, ARCHIVE_START_BYTES)) +
        latin(bytes.subarray(Math.max(0, bytes.length - ARCHIVE_END_BYTES)))
      : '',
    text: textAtStart(bytes),
  };
}

function textAtStart(bytes: Uint8Array): string | null {
  const looked = bytes.subarray(0, TEXT_BYTES);
  const wide = (looked[0] === 0xff && looked[1] === 0xfe) || (looked[0] === 0xfe && looked[1] === 0xff);
  if (!wide && looked.includes(0)) return null;
  const encoding = !wide ? 'utf-8' : looked[0] === 0xff ? 'utf-16le' : 'utf-16be';
  return new TextDecoder(encoding)
    .decode(looked)
    .replace(/^\uFEFF/, '')
    .trimStart();
}

/** The row of the table of formats (formats.ts) that a file fits; the same errors as `recognise`. */
export function formatOf(bytes: Uint8Array): FormatRow {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  const looked = look(bytes);
  const row = formats.find(({ is }) => is(looked));
  if (row === undefined) throw new UnreadableFile('unknown kind');
  if ('refused' in row) throw new UnreadableFile(row.refused);
  return row;
}

/**
 * Tells what a file is by its content.
 * @throws UnreadableFile for an empty file, for one of a kind that is known and not read, and for what is none of the kinds
 */
export function recognise(bytes: Uint8Array): Recognised {
  const { kind, mediaType } = formatOf(bytes);
  return { kind, mediaType };
}

/** What a file's name says it is, where its content is no more than text, or nothing that is known. */
const CLAIMS: readonly (readonly [RegExp, UnreadableReason])[] = [
  [/\.pdf$/i, 'not a PDF'],
  [/\.docx?$/i, 'not a Word file'],
  [/\.f?odt$/i, 'not an OpenDocument text'],
];
/** What its name says of a file that nothing is known of. */
const UNKNOWN_OF: readonly (readonly [RegExp, UnreadableReason])[] = [
  [/\.(wma|amr|aiff?|au|mid|ra|mov|avi|mkv|mp4|m4v|wmv)$/i, 'unknown recording'],
  [/\.(tiff?|bmp|psd|raw|dng|cr2|nef|svg|ico|jxl|jp2)$/i, 'unknown picture'],
  [/\.(pptx?|odp|key)$/i, 'slides'],
  [/\.(xlsx?|ods|numbers)$/i, 'a table of figures'],
];

/**
 * Tells what a file is by its content. The name is heard only where the content is no more than text, or nothing that is
 * known: a page that was saved as a PDF by mistake is not taken for a paper.
 * @throws UnreadableFile as recognise, and for what only claims to be a PDF, Word file or OpenDocument text
 */
export function recogniseNamed(bytes: Uint8Array, name: string): Recognised {
  const claimed = CLAIMS.find(([ending]) => ending.test(name))?.[1];
  try {
    const found = recognise(bytes);
    if (claimed !== undefined && (found.kind === 'text' || found.kind === 'zip'))
      throw new UnreadableFile(claimed);
    return found;
  } catch (error) {
    if (!(error instanceof UnreadableFile) || error.reason !== 'unknown kind') throw error;
    const said = claimed ?? UNKNOWN_OF.find(([ending]) => ending.test(name))?.[1];
    throw said === undefined ? error : new UnreadableFile(said);
  }
}

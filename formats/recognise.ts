import { UnreadableFile, type UnreadableReason } from './unreadable.ts';

/** What a file is, by what it holds and never by its name. */
type FileKind =
  | 'pdf'
  | 'docx'
  | 'odt'
  | 'picture'
  | 'recording'
  | 'xfdf'
  | 'web annotation'
  | 'transcript'
  | 'quiz'
  | 'posts'
  | 'zip'
  | 'text';

/** What each kind of picture or recording begins with, and its media type. */
const MAGIC: readonly {
  readonly at: number;
  readonly bytes: string;
  readonly kind: FileKind;
  readonly mediaType: string;
}[] = [
  { at: 0, bytes: '\x89PNG\r\n\x1a\n', kind: 'picture', mediaType: 'image/png' },
  { at: 0, bytes: '\xff\xd8\xff', kind: 'picture', mediaType: 'image/jpeg' },
  { at: 8, bytes: 'WEBP', kind: 'picture', mediaType: 'image/webp' },
  { at: 8, bytes: 'WAVE', kind: 'recording', mediaType: 'audio/wav' },
  { at: 0, bytes: 'ID3', kind: 'recording', mediaType: 'audio/mpeg' },
  { at: 0, bytes: 'OggS', kind: 'recording', mediaType: 'audio/ogg' },
  { at: 4, bytes: 'ftypM4A', kind: 'recording', mediaType: 'audio/mp4' },
  { at: 4, bytes: 'ftypisom', kind: 'recording', mediaType: 'audio/mp4' },
  { at: 4, bytes: 'ftypmp42', kind: 'recording', mediaType: 'audio/mp4' },
  { at: 0, bytes: '\x1a\x45\xdf\xa3', kind: 'recording', mediaType: 'audio/webm' },
];
const HEIC = /^ftyp(heic|heix|hevc|hevx|mif1|msf1|heim|heis)/;
const PDF_HEADER_WITHIN = 1024;
/** So much of a text is looked at to tell what it is. */
const TEXT_LOOKED_AT = 4096;

export interface Recognised {
  readonly kind: FileKind;
  readonly mediaType: string;
}

/**
 * Tells what a file is by its content.
 * @throws UnreadableFile for an empty file, a HEIC picture, and what is none of the kinds
 */
export function recognise(bytes: Uint8Array): Recognised {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, PDF_HEADER_WITHIN));
  // Latin-1 in browsers is Windows-1252: bytes are compared one by one instead.
  const begins = (at: number, wanted: string) =>
    Array.from(wanted).every((c, i) => bytes[at + i] === c.charCodeAt(0));
  const known = MAGIC.find(({ at, bytes: wanted }) => begins(at, wanted));
  if (known !== undefined) return known;
  if (HEIC.test(head.slice(4, 12))) throw new UnreadableFile('HEIC picture');
  if (bytes[0] === 0xff && (bytes[1] & 0xe6) === 0xe2) return { kind: 'recording', mediaType: 'audio/mpeg' };
  if (head.includes('%PDF-')) return { kind: 'pdf', mediaType: 'application/pdf' };
  if (begins(0, 'PK\x03\x04')) return archiveKind(bytes);
  return textKind(bytes);
}

/** What a file's name says it is, where plain text under that name is something that went wrong on the way. */
const CLAIMS: readonly (readonly [RegExp, UnreadableReason])[] = [
  [/\.pdf$/i, 'not a PDF'],
  [/\.docx?$/i, 'not a Word file'],
  [/\.odt$/i, 'not an OpenDocument text'],
];

/**
 * Tells what a file is by its content. The name is heard only where the content is no more than text, or nothing that is
 * known: a page that was saved as a PDF by mistake is not taken for a paper.
 * @throws UnreadableFile as recognise, and for what only claims to be a PDF, Word file or OpenDocument text
 */
export function recogniseNamed(bytes: Uint8Array, name: string): Recognised {
  const claimed = CLAIMS.find(([ending]) => ending.test(name))?.[1];
  if (claimed === undefined) return recognise(bytes);
  try {
    const found = recognise(bytes);
    if (found.kind === 'text' || found.kind === 'zip') throw new UnreadableFile(claimed);
    return found;
  } catch (error) {
    const unknown = error instanceof UnreadableFile && error.reason === 'unknown kind';
    throw unknown ? new UnreadableFile(claimed) : error;
  }
}

/** Word and OpenDocument files are ZIP archives; the names of their parts tell them apart. */
function archiveKind(bytes: Uint8Array): Recognised {
  const latin = new TextDecoder('latin1');
  const start = latin.decode(bytes.subarray(0, 200));
  const end = latin.decode(bytes.subarray(Math.max(0, bytes.length - 65_536)));
  if (start.includes('mimetypeapplication/vnd.oasis.opendocument.text'))
    return { kind: 'odt', mediaType: 'application/vnd.oasis.opendocument.text' };
  if (end.includes('word/document.xml'))
    return {
      kind: 'docx',
      mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    };
  if (end.includes('content.xml'))
    return { kind: 'odt', mediaType: 'application/vnd.oasis.opendocument.text' };
  if (end.includes('assessmentResult.xml')) return { kind: 'quiz', mediaType: 'application/zip' };
  return { kind: 'zip', mediaType: 'application/zip' };
}

function textKind(bytes: Uint8Array): Recognised {
  const looked = bytes.subarray(0, TEXT_LOOKED_AT);
  const wide = (looked[0] === 0xff && looked[1] === 0xfe) || (looked[0] === 0xfe && looked[1] === 0xff);
  if (!wide && looked.includes(0)) throw new UnreadableFile('unknown kind');
  const text = new TextDecoder(wide ? (looked[0] === 0xff ? 'utf-16le' : 'utf-16be') : 'utf-8')
    .decode(looked)
    .replace(/^\uFEFF/, '')
    .trimStart();
  if (/^<(\?xml|!--|xfdf)/i.test(text) && /<xfdf[\s>]/.test(text))
    return { kind: 'xfdf', mediaType: 'application/vnd.adobe.xfdf' };
  if (/^<(\?xml|!--|(\w+:)?assessmentResult)/.test(text) && /<(\w+:)?assessmentResult[\s>]/.test(text))
    return { kind: 'quiz', mediaType: 'application/xml' };
  if (/^\{/.test(text) && /"type"\s*:\s*"discussion"/.test(text))
    return { kind: 'posts', mediaType: 'application/json' };
  if (/^WEBVTT([ \t\r\n]|$)/.test(text)) return { kind: 'transcript', mediaType: 'text/vtt' };
  if (/^[[{]/.test(text) && /"@?(type|context)"/.test(text) && /[Aa]nno/.test(text))
    return { kind: 'web annotation', mediaType: 'application/ld+json' };
  if (/^(<!doctype html|<html|<\?xml|\{\\rtf|[[{]\s*["[{])/i.test(text) || wide)
    throw new UnreadableFile('unknown kind');
  return { kind: 'text', mediaType: 'text/plain' };
}

import { paperOf } from '#core/paper/paper.ts';
import { readMarkedDocx } from './docx/read-marked-docx.ts';
import type { MarkedPaper } from './marked-paper.ts';
import { readMarkedFodt, readMarkedOdt } from './odt/read-marked-odt.ts';
import type { PdfAssets } from './pdf/open-pdf.ts';
import { readMarkedPdf, type PdfReading } from './pdf/read-marked-pdf.ts';
import { readPicture } from './picture/read-picture.ts';
import { readPosts } from './posts/read-posts.ts';
import { readQuizPaper } from './qti/quiz-paper.ts';
import { readText } from './text/read-text.ts';
import { UnreadableFile, type UnreadableReason } from './unreadable.ts';

/** What a file is, by what it holds and never by its name. */
export type FileKind =
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

/** A file as it is looked at to tell what it is. */
export interface Looked {
  readonly bytes: Uint8Array;
  /** Whether these bytes, written as Latin-1 characters, stand at an offset. */
  readonly begins: (at: number, wanted: string) => boolean;
  /** The first kilobyte, a character a byte. */
  readonly head: string;
  /** Of an archive the names of its parts, as far as they stand where they are looked for; else ''. */
  readonly parts: string;
  /** The beginning as text; null for what is none. */
  readonly text: string | null;
}

/** What a kind of file is told by, and how it is read. The first row that fits is it. */
export interface FormatRow {
  readonly kind: FileKind;
  readonly mediaType: string;
  readonly is: (file: Looked) => boolean;
  /** Reads it as a paper; none for what is no paper. */
  readonly paper?: (
    bytes: Uint8Array,
    assets: PdfAssets | null,
    options: PdfReading,
  ) => MarkedPaper | Promise<MarkedPaper>;
}

/** Kinds that are known and not read here, each with what is said of them. */
interface RefusedRow {
  readonly refused: UnreadableReason;
  readonly is: (file: Looked) => boolean;
}

const starts =
  (wanted: string, at = 0) =>
  ({ begins }: Looked) =>
    begins(at, wanted);
const says =
  (...patterns: readonly RegExp[]) =>
  ({ text }: Looked) =>
    text !== null && patterns.every((pattern) => pattern.test(text));
const holds =
  (pattern: RegExp) =>
  ({ parts }: Looked) =>
    pattern.test(parts);
/** The brands of an ISO media file: the first is its own, those after it that it goes with too. */
const brands = ({ head }: Looked) => (head.slice(4, 8) === 'ftyp' ? head.slice(8, 64) : '');

const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const OPEN_TEXT = 'application/vnd.oasis.opendocument.text';

const picture = (mediaType: string, is: FormatRow['is']): FormatRow => ({
  kind: 'picture',
  mediaType,
  is,
  paper: (bytes) => ({
    kind: 'picture',
    pages: [{ ...readPicture(bytes), transform: [1, 0, 0, 1, 0, 0] }],
    pageStarts: [0],
    paper: paperOf([]),
    layout: null,
    marks: [],
    unknownKinds: [],
    attached: [],
  }),
});
const recording = (mediaType: string, is: FormatRow['is']): FormatRow => ({
  kind: 'recording',
  mediaType,
  is,
});

/** Every kind of file that is told apart, in the order in which they are tried. */
export const formats: readonly (FormatRow | RefusedRow)[] = [
  picture('image/png', starts('\x89PNG\r\n\x1a\n')),
  picture('image/jpeg', starts('\xff\xd8\xff')),
  picture('image/webp', starts('WEBP', 8)),
  picture('image/gif', (file) => file.begins(0, 'GIF87a') || file.begins(0, 'GIF89a')),
  picture('image/avif', (file) => /^avi[fs]|^.{8,}?avi[fs]/s.test(brands(file))),
  { refused: 'HEIC picture', is: (file) => /^(heic|heix|hevc|hevx|mif1|msf1|heim|heis)/.test(brands(file)) },
  { refused: 'unknown picture', is: (file) => file.begins(0, 'II*\0') || file.begins(0, 'MM\0*') },
  { refused: 'unknown picture', is: (file) => file.begins(0, 'BM') && file.begins(6, '\0\0\0\0') },
  recording('audio/wav', starts('WAVE', 8)),
  recording('audio/ogg', starts('OggS')),
  recording('audio/flac', starts('fLaC')),
  recording('audio/mp4', (file) => /^(M4A|M4B|isom|mp42)/.test(brands(file))),
  recording('audio/webm', starts('\x1a\x45\xdf\xa3')),
  recording('audio/mpeg', starts('ID3')),
  // MPEG audio frames: layer III; and ADTS, in which the bits of the layer are 0 (ISO 13818-7, 6.2).
  recording('audio/mpeg', ({ bytes }) => bytes[0] === 0xff && (bytes[1] & 0xe6) === 0xe2),
  recording('audio/aac', ({ bytes }) => bytes[0] === 0xff && (bytes[1] & 0xf6) === 0xf0),
  {
    refused: 'unknown recording',
    is: (file) =>
      ['#!AMR', 'FORM', 'MThd', '.snd', '\x30\x26\xb2\x75'].some((magic) => file.begins(0, magic)) ||
      file.begins(8, 'AVI ') ||
      brands(file) !== '',
  },
  {
    kind: 'pdf',
    mediaType: 'application/pdf',
    is: ({ head }) => head.includes('%PDF-'),
    paper: readMarkedPdf,
  },
  {
    kind: 'odt',
    mediaType: OPEN_TEXT,
    is: holds(/mimetypeapplication\/vnd\.oasis\.opendocument\.text/),
    paper: readMarkedOdt,
  },
  { kind: 'docx', mediaType: WORD, is: holds(/word\/document\.xml/), paper: readMarkedDocx },
  { refused: 'slides', is: holds(/ppt\/presentation\.xml|opendocument\.presentation/) },
  { refused: 'a table of figures', is: holds(/xl\/workbook\.xml|opendocument\.spreadsheet/) },
  { kind: 'odt', mediaType: OPEN_TEXT, is: holds(/content\.xml/), paper: readMarkedOdt },
  { kind: 'quiz', mediaType: 'application/zip', is: holds(/assessmentResult\.xml/), paper: readQuizPaper },
  { refused: 'unknown quiz', is: holds(/imsmanifest\.xml/) },
  { kind: 'zip', mediaType: 'application/zip', is: starts('PK\x03\x04') },
  {
    kind: 'odt',
    mediaType: 'application/vnd.oasis.opendocument.text-flat-xml',
    is: says(/^<(\?xml|office:document)/, /<office:document[\s>]/, /opendocument\.text/),
    paper: readMarkedFodt,
  },
  { kind: 'xfdf', mediaType: 'application/vnd.adobe.xfdf', is: says(/^<(\?xml|!--|xfdf)/i, /<xfdf[\s>]/) },
  {
    kind: 'quiz',
    mediaType: 'application/xml',
    is: says(/^<(\?xml|!--|(\w+:)?assessmentResult)/, /<(\w+:)?assessmentResult[\s>]/),
    paper: readQuizPaper,
  },
  {
    refused: 'unknown quiz',
    is: says(/^<(\?xml|!--|\w)/, /<(\w+:)?(questestinterop|assessmentTest|assessmentItem|quiz)[\s>]/),
  },
  {
    kind: 'posts',
    mediaType: 'application/json',
    is: says(/^\{/, /"type"\s*:\s*"discussion"/),
    paper: readPosts,
  },
  { kind: 'transcript', mediaType: 'text/vtt', is: says(/^WEBVTT([ \t\r\n]|$)/) },
  {
    kind: 'web annotation',
    mediaType: 'application/ld+json',
    is: says(/^[[{]/, /"@?(type|context)"/, /[Aa]nno/),
  },
  { refused: 'unknown kind', is: says(/^(<!doctype html|<html|<\?xml|\{\\rtf|[[{]\s*["[{])/i) },
  {
    kind: 'text',
    mediaType: 'text/plain',
    is: ({ text, begins }) => text !== null && !begins(0, '\xff\xfe') && !begins(0, '\xfe\xff'),
    paper: readText,
  },
];

/**
 * Reads a marked paper of any kind that is one.
 * @throws UnreadableFile
 */
export async function readPaperAs(
  row: FormatRow,
  bytes: Uint8Array,
  assets: PdfAssets | null,
  options: PdfReading,
): Promise<MarkedPaper> {
  if (row.paper === undefined) throw new UnreadableFile('unknown kind');
  return row.paper(bytes, assets, options);
}

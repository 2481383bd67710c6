import type { WorkKind } from '../model/work-kind.ts';

/** A file that tells what kind of work it is of. */
export interface KindSign {
  readonly role: string;
  readonly mediaType: string;
}

/**
 * What kind of work an assignment asks for, where nobody says: a quiz or posts that came back tell it; work of which
 * pictures, recordings and other files came back or were sent, and no text, is files; all else is a paper.
 * @param papers what there is to read of it, and what was sent
 * @param fileTypes what the assignment takes, as endings of names; none where it doesn't say
 */
export function kindByFiles(papers: readonly KindSign[], fileTypes: readonly string[]): WorkKind {
  if (papers.some(({ role }) => role === 'quiz')) return 'quiz';
  if (papers.some(({ role }) => role === 'posts')) return 'posts';
  const work = papers.filter(({ role }) => role === 'marked' || role === 'sent' || role === 'paper');
  if (work.length > 0) return work.some(isText) ? 'paper' : 'files';
  return fileTypes.length > 0 && !fileTypes.some((type) => TEXT_ENDINGS.has(type.toLowerCase()))
    ? 'files'
    : 'paper';
}

const TEXT_ENDINGS: ReadonlySet<string> = new Set([
  'docx',
  'doc',
  'odt',
  'fodt',
  'pdf',
  'txt',
  'md',
  'html',
  'rtf',
]);
/** The first part of media types that hold no text to be rewritten. */
const NO_TEXT = /^(?:image|audio|video|model|font)\//;

function isText({ mediaType }: KindSign): boolean {
  return !NO_TEXT.test(mediaType);
}

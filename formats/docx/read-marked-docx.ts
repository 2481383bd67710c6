import { isMachine } from '../machine.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import { marksOfChanges, targetOfSpan, type WrittenText } from '../text/layout-writer.ts';
import { repliesTo } from '../threads.ts';
import { refusedAs } from '../malformed.ts';
import {
  openDocx,
  readCommentExtensions,
  readComments,
  statedPagesOf,
  type DocxParts,
  type WordComment,
} from './docx-parts.ts';
import { writeDocument, type Range } from './write-document.ts';

/** A marked Word file. */
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

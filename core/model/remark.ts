import * as v from 'valibot';
import { Author } from './facts.ts';
import { AssignmentId, AttemptId, CriterionId, FileHash, Instant, MarkingId, RemarkId } from './ids.ts';

/** Where a remark came from. The order is the one in which channels are shown. */
export const channels = [
  'overall',
  'criterion',
  'passage',
  'region',
  'recording',
  'question',
  'post',
  'overlap',
] as const;
export const Channel = v.picklist(channels);
export type Channel = v.InferOutput<typeof Channel>;

/**
 * A four-cornered area on a page: x and y of top-left, top-right, bottom-left, bottom-right,
 * in PDF points from the lower left corner of the page's media box, unrotated.
 */
const Quad = v.pipe(v.array(v.number()), v.length(8));

/** The lower left and the upper right corner, in the same units as a quad. */
const Rect = v.pipe(v.array(v.number()), v.length(4));

export const TextQuote = v.object({ exact: v.string(), prefix: v.string(), suffix: v.string() });
export type TextQuote = v.InferOutput<typeof TextQuote>;

/** What a remark is about, as the source says it; offsets into the text are derived from it. */
export const Target = v.variant('kind', [
  v.object({
    kind: v.literal('words'),
    page: v.number(),
    quads: v.array(Quad),
    rect: Rect,
    quote: TextQuote,
  }),
  v.object({ kind: v.literal('point'), page: v.number(), rect: Rect }),
  v.object({ kind: v.literal('criterion'), criterionId: CriterionId }),
  v.object({ kind: v.literal('whole') }),
]);
export type Target = v.InferOutput<typeof Target>;

export const Remark = v.object({
  id: RemarkId,
  assignmentId: AssignmentId,
  attemptId: AttemptId,
  markingId: MarkingId,
  channel: Channel,
  author: Author,
  at: v.nullable(Instant),
  /** The source's own name for what it is, in lower case: highlight, strikeout, text ... */
  kind: v.string(),
  color: v.nullable(v.string()),
  text: v.string(),
  /** Given by the source; null where it gives none. */
  criterionId: v.nullable(CriterionId),
  target: Target,
  /** The file it was read from; null for what the desk said itself. */
  fileHash: v.nullable(FileHash),
});
export type Remark = v.InferOutput<typeof Remark>;

/** The page a remark is on, from 1; null for one that is on none. */
export function pageOf(target: Target): number | null {
  return target.kind === 'words' || target.kind === 'point' ? target.page : null;
}

/** The words a remark is about; null where it hangs on none. */
export function quotedWords(remark: Remark): string | null {
  return remark.target.kind === 'words' && remark.target.quote.exact !== ''
    ? remark.target.quote.exact
    : null;
}

function placeInWork(remark: Remark): readonly [number, number, number, number] {
  const { target } = remark;
  switch (target.kind) {
    case 'words':
    case 'point':
      return [0, target.page, -target.rect[3], target.rect[0]];
    case 'criterion':
      return [1, 0, 0, 0];
    case 'whole':
      return [2, 0, 0, 0];
  }
}

/** Remarks in reading order: down the pages of the paper, then the criteria, then the words about the whole. */
export function inReadingOrder(remarks: readonly Remark[]): Remark[] {
  const placed = remarks.map((remark) => ({ remark, place: placeInWork(remark) }));
  placed.sort((x, y) => {
    for (let i = 0; i < 4; i++) if (x.place[i] !== y.place[i]) return x.place[i] - y.place[i];
    return x.remark.id < y.remark.id ? -1 : 1;
  });
  return placed.map((p) => p.remark);
}

import * as v from 'valibot';
import { Channel } from './channels.ts';
import { Author } from './facts.ts';
import {
  AssignmentId,
  AttemptId,
  CriterionId,
  DecimalString,
  FileHash,
  Instant,
  MarkingId,
  RemarkId,
} from './ids.ts';

/**
 * A four-cornered area on a page: x and y of top-left, top-right, bottom-left, bottom-right,
 * in PDF points from the lower left corner of the page's media box, unrotated.
 */
const Quad = v.pipe(v.array(v.number()), v.length(8));

/** The lower left and the upper right corner, in the same units as a quad. */
const Rect = v.pipe(v.array(v.number()), v.length(4));

/** Words of a text, with some of those before and after, so that they are found again (W3C Web Annotation, 4.2.4). */
export const TextQuote = v.object({ exact: v.string(), prefix: v.string(), suffix: v.string() });
export type TextQuote = v.InferOutput<typeof TextQuote>;

const shape = v.array(v.array(v.number()));

/** What a remark is about, as the source says it; offsets into the text are derived from it. */
export const Target = v.variant('kind', [
  /** Words of a paper, or with an empty quotation a gap between two. `page` is null where a paper has no pages. */
  v.object({
    kind: v.literal('words'),
    page: v.nullable(v.number()),
    quads: v.array(Quad),
    rect: v.nullable(Rect),
    quote: TextQuote,
  }),
  /** A place on a page: a note, ink, a shape around nothing. `shape` holds strokes or corners as x y x y ... */
  v.object({
    kind: v.literal('point'),
    page: v.number(),
    rect: Rect,
    shape,
    /** Whether the page itself shows something there; where not, the interface draws a sign. */
    drawn: v.boolean(),
  }),
  /** A part of a picture, in pixels of the picture as it is shown upright. `outline`: an SVG path, if it is no box. */
  v.object({
    kind: v.literal('region'),
    x: v.number(),
    y: v.number(),
    width: v.number(),
    height: v.number(),
    outline: v.nullable(v.string()),
  }),
  /** A stretch of a recording, in seconds. */
  v.object({ kind: v.literal('time'), fromS: v.number(), toS: v.nullable(v.number()) }),
  /** A question of a quiz, by its number from 1. */
  v.object({ kind: v.literal('question'), questionId: v.string(), number: v.number() }),
  v.object({ kind: v.literal('criterion'), criterionId: CriterionId }),
  v.object({ kind: v.literal('whole') }),
  /** It names a place that was not found; what it says about it, in the source's words. */
  v.object({ kind: v.literal('unplaced'), said: v.string() }),
]);
export type Target = v.InferOutput<typeof Target>;

/** An answer to a remark, within its file. */
export interface Reply {
  readonly author: Author;
  readonly at: Instant | null;
  readonly text: string;
  readonly replies: readonly Reply[];
}
export const Reply: v.GenericSchema<unknown, Reply> = v.object({
  author: Author,
  at: v.nullable(Instant),
  text: v.string(),
  replies: v.array(v.lazy(() => Reply)),
});

/** A change that the remark proposes: the words there were and those to come, "" where there are none. */
export const Change = v.object({
  kind: v.picklist(['insertion', 'deletion', 'move', 'format']),
  before: v.string(),
  after: v.string(),
});
export type Change = v.InferOutput<typeof Change>;

/** One thing that was said about the work. What the student makes of it is kept apart, in judgements and readings. */
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
  /** At least one; the first is where the remark is shown. */
  targets: v.pipe(v.array(Target), v.minLength(1)),
  replies: v.array(Reply),
  /** The last state that the source gives it, in the source's own word. */
  state: v.nullable(v.string()),
  change: v.nullable(Change),
  /** The rule that a machine's remark goes by, by its code or name; null for what no rule stands behind. */
  rule: v.optional(v.nullable(v.string()), null),
  /** What it was marked with, for a criterion, a question or the whole; null where no points stand beside it. */
  points: v.optional(v.nullable(DecimalString), null),
  /** What stood here before the school changed it; null where it never did. */
  before: v.optional(
    v.nullable(v.object({ text: v.string(), points: v.nullable(DecimalString), at: v.nullable(Instant) })),
    null,
  ),
  /** Whether its source still has it. */
  withdrawn: v.optional(v.boolean(), false),
  /** It was found here, by comparing, and not said by anybody: it can be decided about, and is not counted. */
  computed: v.optional(v.boolean()),
  /** Its place among the remarks of its source, as the source lists them. */
  order: v.number(),
  /** Where it hangs in the paper's text, in UTF-16 units; null where that is not known, or it hangs on none. */
  textAt: v.optional(v.nullable(v.number()), null),
  /** The file it was read from; null for what the desk said itself. */
  fileHash: v.nullable(FileHash),
  /** The paper, picture or recording that it is shown on; the same file where that holds its own remarks. */
  paperHash: v.nullable(FileHash),
});
export type Remark = v.InferOutput<typeof Remark>;

/** What is about something; the first of it is where it is shown. */
interface OnTargets {
  readonly targets: readonly Target[];
}

/** Where a remark is shown. */
export function placeOf(remark: OnTargets): Target {
  return remark.targets[0];
}

/** The page a remark is on, from 1; null for one that is on none. */
export function pageOf(remark: OnTargets): number | null {
  const target = placeOf(remark);
  return target.kind === 'words' || target.kind === 'point' ? target.page : null;
}

/** The words a remark is about; null where it hangs on none. */
export function quotedWords({ targets }: OnTargets): string | null {
  const quoted = targets.flatMap((target) =>
    target.kind === 'words' && target.quote.exact !== '' ? [target.quote.exact] : [],
  );
  return quoted.length === 0 ? null : quoted.join(' … ');
}

type Place = readonly [number, number, number, number, number];

/** @param byText whether the text's order tells that of the remarks on a page */
function placeInWork(remark: Remark, byText: (page: number) => boolean): Place {
  const target = placeOf(remark);
  const onPage = (page: number, top: number, left: number): Place => [
    0,
    page,
    byText(page) ? (remark.textAt ?? 0) : 0,
    -top,
    left,
  ];
  switch (target.kind) {
    case 'words':
      return onPage(target.page ?? 0, target.rect?.[3] ?? 0, target.rect?.[0] ?? 0);
    case 'point':
      return onPage(target.page, target.rect[3], target.rect[0]);
    case 'region':
      return [0, 0, 0, target.y, target.x];
    case 'time':
      return [0, 0, 0, target.fromS, 0];
    case 'unplaced':
      return [1, 0, 0, 0, 0];
    case 'question':
      return [0, 0, 0, target.number, 0];
    case 'criterion':
      return [2, 0, 0, 0, 0];
    case 'whole':
      return [3, 0, 0, 0, 0];
  }
}

/**
 * Remarks in reading order: through the pages of the paper, then the criteria, then the words about the whole. On a page
 * they go by where they hang in its text, so that one column comes after the other; by height where that is not known of
 * all of them. Those of a paper without pages keep the order in which its file has them.
 */
export function inReadingOrder(remarks: readonly Remark[]): Remark[] {
  const unknown = new Set(remarks.flatMap((remark) => (remark.textAt === null ? [pageOf(remark) ?? 0] : [])));
  const byText = (page: number) => page > 0 && !unknown.has(page);
  const placed = remarks.map((remark) => ({ remark, place: placeInWork(remark, byText) }));
  placed.sort((x, y) => {
    const differs = x.place.findIndex((one, i) => one !== y.place[i]);
    if (differs >= 0) return x.place[differs] - y.place[differs];
    return x.remark.order - y.remark.order || (x.remark.id < y.remark.id ? -1 : 1);
  });
  return placed.map((p) => p.remark);
}

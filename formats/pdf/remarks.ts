import type { Author, Rubric } from '#core/model/facts.ts';
import {
  asId,
  type AssignmentId,
  type AttemptId,
  type FileHash,
  type MarkingId,
  RemarkId,
} from '#core/model/ids.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Anchor, Mark, MarkedPdf } from './marked-pdf.ts';

export interface MarkedPaperContext {
  readonly assignmentId: AssignmentId;
  readonly attemptId: AttemptId;
  readonly markingId: MarkingId;
  readonly fileHash: FileHash;
  /** Who marked it, as the school says; null for a file that came by itself. */
  readonly marker: Author | null;
  readonly rubric: Rubric | null;
}

/** Remark ids come from attempt, author and the annotation's own name; where it has none, from what and where it is. */
function remarkIdOf(context: MarkedPaperContext, mark: Mark, seen: Map<string, number>): RemarkId {
  const place = mark.rect.map((x) => Math.round(x)).join(' ');
  const own = mark.sourceId ?? `${mark.kind} ${mark.page} ${place} ${mark.text.slice(0, 40)}`;
  const base = `${context.attemptId}/${mark.author}/${own}`.slice(0, 180);
  const ordinal = seen.get(base) ?? 0;
  seen.set(base, ordinal + 1);
  return asId(RemarkId, ordinal === 0 ? base : `${base}/${ordinal}`);
}

/** Whoever the school says marked it, unless the mark names another. */
function authorOf(mark: Mark, marker: Author | null): Author {
  const isMarker = marker !== null && (mark.author === '' || mark.author === marker.name);
  return isMarker ? marker : { name: mark.author, role: 'instructor' };
}

/** The remarks of a marked PDF, and where each hangs in its text. A subject that names a criterion links to it. */
export function remarksOfMarkedPdf(
  pdf: MarkedPdf,
  context: MarkedPaperContext,
): { remarks: Remark[]; anchors: Record<string, Anchor> } {
  const seen = new Map<string, number>();
  const anchors: Record<string, Anchor> = {};
  const remarks = pdf.marks.map((mark): Remark => {
    const id = remarkIdOf(context, mark, seen);
    if (mark.anchor !== null) anchors[id] = mark.anchor;
    const subject = mark.subject?.trim().toLowerCase();
    const criterion = context.rubric?.criteria.find((c) => c.title.toLowerCase() === subject);
    const rect = [...mark.rect];
    return {
      id,
      assignmentId: context.assignmentId,
      attemptId: context.attemptId,
      markingId: context.markingId,
      channel: 'passage',
      author: authorOf(mark, context.marker),
      at: mark.at,
      kind: mark.kind,
      color: mark.color,
      text: mark.text,
      criterionId: criterion?.id ?? null,
      target:
        mark.quote === null
          ? { kind: 'point', page: mark.page, rect }
          : {
              kind: 'words',
              page: mark.page,
              quads: mark.quads.map((quad) => [...quad]),
              rect,
              quote: mark.quote,
            },
      fileHash: context.fileHash,
    };
  });
  return { remarks, anchors };
}

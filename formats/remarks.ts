import { isMachine } from './machine.ts';
import type { Author, AuthorRole, FileFact, Rubric } from '#core/model/facts.ts';
import {
  asId,
  type AssignmentId,
  type AttemptId,
  type FileHash,
  type MarkingId,
  RemarkId,
} from '#core/model/ids.ts';
import type { Channel } from '#core/model/channels.ts';
import type { Remark, Reply, Target } from '#core/model/remark.ts';
import type { FileRole } from '#core/model/work.ts';
import type { Anchor, Mark, MarkReply } from './marked-paper.ts';

/** To what marks belong that become remarks. */
export interface MarkContext {
  readonly assignmentId: AssignmentId;
  readonly attemptId: AttemptId;
  readonly markingId: MarkingId;
  /** The file that the marks were read from. */
  readonly fileHash: FileHash;
  /** The paper, picture or recording that they are shown on. */
  readonly paperHash: FileHash;
  /** Who marked it, as the school says; null for a file that came by itself. */
  readonly marker: Author | null;
  /** Anything on a document is in the paper, whatever its shape; regions are on pictures, seconds of recordings. */
  readonly channel: Exclude<Channel, 'overall' | 'criterion'>;
  /** Others of the course who may have written, with their roles. */
  readonly people: readonly Author[];
  readonly rubric: Rubric | null;
  /** What somebody is whom nobody knows; not said: an instructor. */
  readonly strangers?: AuthorRole;
}

function placeMark(target: Target): string {
  switch (target.kind) {
    case 'words':
      return target.rect === null
        ? target.quote.prefix.slice(-12) + target.quote.exact.slice(0, 40)
        : `${target.page} ${target.rect.map((x) => Math.round(x)).join(' ')}`;
    case 'point':
      return `${target.page} ${target.rect.map((x) => Math.round(x)).join(' ')}`;
    case 'region':
      return [target.x, target.y, target.width, target.height].map((x) => Math.round(x)).join(' ');
    case 'time':
      return String(target.fromS);
    case 'question':
      return target.questionId;
    case 'unplaced':
      return target.said.slice(0, 40);
    case 'criterion':
    case 'whole':
      return '';
  }
}

/** Remark ids come from attempt, author and the source's own id; where it has none, from what and where it is. */
function remarkIdOf(context: MarkContext, mark: Mark, seen: Map<string, number>): RemarkId {
  const own = mark.sourceId ?? `${mark.kind} ${placeMark(mark.targets[0])} ${mark.text.slice(0, 40)}`;
  const base = `${context.attemptId}/${mark.author}/${own}`.slice(0, 180);
  const ordinal = seen.get(base) ?? 0;
  seen.set(base, ordinal + 1);
  return asId(RemarkId, ordinal === 0 ? base : `${base}/${ordinal}`);
}

/** Whoever the school says marked it, unless the mark names another. */
function authorOf(
  name: string,
  byMachine: boolean,
  { marker, people, strangers = 'instructor' }: Pick<MarkContext, 'marker' | 'people' | 'strangers'>,
): Author {
  if (byMachine) return { name, role: 'machine' };
  const isMarker = marker !== null && (name === '' || name === marker.name);
  if (isMarker) return marker;
  return people.find((person) => person.name === name) ?? { name, role: strangers };
}

function replyOf({ author, at, text, replies }: MarkReply, context: MarkContext): Reply {
  return {
    author: authorOf(author, false, { ...context, marker: author === '' ? null : context.marker }),
    at,
    text,
    replies: replies.map((reply) => replyOf(reply, context)),
  };
}

/** The channel of remarks on a file of this kind, and of this role where the school gave it one. */
export function channelOn(
  mediaType: string,
  role: FileRole | FileFact['role'] | null,
): MarkContext['channel'] {
  if (role === 'quiz') return 'question';
  if (role === 'posts') return 'post';
  if (role === 'report') return 'overlap';
  return mediaType.startsWith('image/') ? 'region' : mediaType.startsWith('audio/') ? 'recording' : 'passage';
}

/** The marks of a file as remarks, and where each hangs in the text. A subject that names a criterion links to it. */
export function remarksOfMarks(
  marks: readonly Mark[],
  context: MarkContext,
): { remarks: Remark[]; anchors: Record<string, Anchor> } {
  const seen = new Map<string, number>();
  const anchors: Record<string, Anchor> = {};
  const remarks = marks.map((mark, order): Remark => {
    const id = remarkIdOf(context, mark, seen);
    if (mark.anchor !== null) anchors[id] = mark.anchor;
    const subject = mark.subject?.trim().toLowerCase();
    const criterion = context.rubric?.criteria.find((c) => c.title.toLowerCase() === subject);
    const byMachine = mark.byMachine || isMachine(subject ?? '') || codeIn(mark.text) !== null;
    return {
      id,
      assignmentId: context.assignmentId,
      attemptId: context.attemptId,
      markingId: context.markingId,
      channel: context.channel,
      author: authorOf(mark.author, byMachine, context),
      at: mark.at,
      kind: mark.kind,
      color: mark.color,
      text: mark.text,
      criterionId: criterion?.id ?? null,
      targets: [...mark.targets],
      replies: mark.replies.map((reply) => replyOf(reply, context)),
      state: mark.state,
      change: mark.change,
      rule: byMachine ? ruleOf(mark, criterion !== undefined) : null,
      points: mark.points ?? null,
      before: null,
      withdrawn: false,
      order,
      textAt: mark.textAt ?? mark.anchor?.from ?? null,
      fileHash: context.fileHash,
      paperHash: context.paperHash,
    };
  });
  return { remarks, anchors };
}

/** A rule's code at the beginning of what a machine says: "[E203] ...", "COMMA_SPLICE: ...", "W605: ...". */
const CODE =
  /^\s*(?:\[([A-Z]+[\w.-]*\d|[A-Z]+(?:[_-][A-Z0-9]+)+)\]|([A-Z][A-Z0-9]*(?:_[A-Z0-9]+)+|[A-Z]{1,4}\d{2,5}(?=:)))/;

function codeIn(text: string): string | null {
  const found = CODE.exec(text);
  return found?.[1] ?? found?.[2] ?? null;
}

/** The rule that a machine's mark goes by: the code at its beginning, else what it calls its subject. */
function ruleOf({ text, subject }: Mark, isCriterion: boolean): string | null {
  const named = codeIn(text) ?? (isCriterion ? null : (subject?.trim() ?? null));
  return named === '' ? null : named;
}

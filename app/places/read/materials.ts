import { scoreOfAttempt, type MarkedAttempt } from '#core/assignment/attempts.ts';
import { countedAttempt } from '#core/assignment/points.ts';
import { shownPoints } from '../../shared/shown/figures.ts';
import type { Channel } from '#core/model/channels.ts';
import { placeOf, type Remark } from '#core/model/remark.ts';
import type { FileRole } from '#core/model/work.ts';
import { MATERIAL_BY_CHANNEL } from '../../shared/line/TallyChips.tsx';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { PaperFile } from '#core/assignment/papers.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

/** What there is to read of an assignment, each with the remarks that are read with it. */
export const materials = [
  'brief',
  'paper',
  'quiz',
  'posts',
  'criteria',
  'overall',
  'recordings',
  'overlap',
] as const;
export type Material = (typeof materials)[number];

const LABELS: Readonly<Record<Material, string>> = {
  brief: words.reading.brief,
  paper: words.reading.paper,
  quiz: words.reading.quiz,
  posts: words.reading.posts,
  criteria: words.reading.rubric,
  overall: words.reading.overall,
  recordings: words.reading.recordings,
  overlap: words.reading.overlap,
};

/** What a material is called: a picture is no paper. */
export function labelOf(view: AssignmentView, material: Material): string {
  const channels = view.tally.byChannel.map(({ channel }) => channel);
  const isPicture = channels.includes('region') && !channels.includes('passage');
  return material === 'paper' && isPicture ? words.reading.region : LABELS[material];
}

const ROLES: Partial<Record<Material, readonly FileRole[]>> = {
  brief: ['brief'],
  paper: ['marked', 'sent'],
  quiz: ['quiz'],
  posts: ['posts'],
  overlap: ['sent', 'marked'],
};

/** Whether a material is a paper with remarks in their places; the brief is its words first. */
export function isPaperMaterial(material: Material): boolean {
  return material !== 'brief' && ROLES[material] !== undefined;
}

export function materialOf({ channel }: Remark): Material {
  return materials.find((one) => one === MATERIAL_BY_CHANNEL[channel]) ?? 'paper';
}

function channelsOf(material: Material): Channel[] {
  return (Object.keys(MATERIAL_BY_CHANNEL) as Channel[]).filter(
    (channel) => MATERIAL_BY_CHANNEL[channel] === material,
  );
}

/** The papers of a material, in order; overlap is shown on what was sent. */
export function papersIn(view: AssignmentView, material: Material): PaperFile[] {
  const roles = ROLES[material] ?? [];
  const papers = view.papers.filter(({ role }) => roles.includes(role));
  // Of a quiz the attempt that the score goes by comes first, then the others, latest first.
  if (material === 'quiz') return papers.toSorted((x, y) => quizRank(view, x) - quizRank(view, y));
  if (material !== 'overlap') return papers.toSorted((x, y) => paperRank(view, x) - paperRank(view, y));
  const matched = new Set(
    view.remarks.flatMap(({ channel, paperHash }) => (channel === 'overlap' ? [paperHash] : [])),
  );
  return papers.filter(({ hash }) => matched.has(hash));
}

/** The attempt that a paper was sent as or came back for; null where it is not known. */
function attemptOf({ attempts }: AssignmentView, { hash }: PaperFile): MarkedAttempt | null {
  return (
    attempts.find(({ attempt, markings }) =>
      [attempt, ...markings].some(({ files }) => files.some((f) => f.hash === hash)),
    ) ?? null
  );
}

/** What came back last comes first, and the student's own account of what was done after all. */
function paperRank(view: AssignmentView, paper: PaperFile): number {
  const own = attemptOf(view, paper);
  const isResponse = own?.attempt.files.some((file) => file.hash === paper.hash && file.role === 'response');
  if (isResponse === true) return 1;
  // A marking that brought points alone says nothing on a paper.
  const isSpokenOn = own?.markings.some(({ files }) => files.length > 0) === true;
  return own === null || !isSpokenOn ? 0 : -own.attempt.number;
}

function quizRank(view: AssignmentView, paper: PaperFile): number {
  const own = attemptOf(view, paper);
  const counted = countedAttempt(view.attempts, view.assignment, view.course);
  if (own === null) return 0;
  return own.attempt.id === counted?.attempt.id ? -1000 : -own.attempt.number;
}

/** What a paper is called among others: a quiz by its attempt and what that got, else by the name of its file. */
export function paperLabel(view: AssignmentView, paper: PaperFile): string {
  const own = paper.role === 'quiz' ? attemptOf(view, paper) : null;
  if (own === null) return paper.name;
  const score = scoreOfAttempt(own, view.assignment, view.course);
  const { possible } = view.assignment;
  return words.reading.quizAttempt(
    own.attempt.number,
    score === null || possible === null ? null : words.assignment.of(shownPoints(score), possible),
  );
}

/** A remark as it is shown on one paper. */
export interface ShownRemark {
  /** The remark that counts, with the place that it has on this paper. */
  readonly remark: Remark;
  /** Under which id its anchor is kept with the paper. */
  readonly anchorId: string;
}

/** The remarks that are read with a material, on one of its papers where it has any. */
export function remarksIn(
  view: AssignmentView,
  material: Material,
  file: PaperFile | null,
): readonly ShownRemark[] {
  const channels = channelsOf(material);
  if (!isPaperMaterial(material) || file === null)
    return view.remarks
      .filter(({ channel }) => channels.includes(channel))
      .map((remark) => ({ remark, anchorId: remark.id }));
  const belongs = (remark: Remark) =>
    remark.paperHash === file.hash &&
    (channels.includes(remark.channel) ||
      // One about the whole that the student gave a place stands there too.
      (material === 'paper' &&
        (remark.channel === 'overall' || remark.channel === 'criterion') &&
        placeOf(remark).kind === 'words'));
  return view.remarks.flatMap((remark): ShownRemark[] => {
    if (belongs(remark)) return [{ remark, anchorId: remark.id }];
    // The same words in another copy of the paper: one remark with a place in each.
    const double = view.doubles.get(remark.id)?.find(belongs);
    if (double === undefined) return [];
    return [{ remark: { ...remark, targets: double.targets, paperHash: file.hash }, anchorId: double.id }];
  });
}

/** A paper whose anchors go by the remarks that are shown on it. */
export function paperShowing(paper: ReadPaper | null, shown: readonly ShownRemark[]): ReadPaper | null {
  const renamed = shown.filter(({ remark, anchorId }) => remark.id !== anchorId);
  if (paper === null || renamed.length === 0) return paper;
  const anchors = { ...paper.anchors };
  for (const { remark, anchorId } of renamed)
    if (anchorId in paper.anchors) anchors[remark.id] = paper.anchors[anchorId];
  return { ...paper, anchors };
}

/** Read and received of a material; null where nothing came in it. */
export function countIn(
  view: AssignmentView,
  material: Material,
): { readonly read: number; readonly received: number } | null {
  const channels = channelsOf(material);
  const counts = view.tally.byChannel.filter(({ channel }) => channels.includes(channel));
  if (counts.length === 0) return null;
  return {
    read: counts.reduce((sum, { read }) => sum + read, 0),
    received: counts.reduce((sum, { received, announced }) => sum + received + announced, 0),
  };
}

/** The materials an assignment has; brief and overall words are always asked for. */
export function materialsOf(view: AssignmentView): Material[] {
  return materials.filter((material) => {
    if (material === 'brief' || material === 'overall') return true;
    if (material === 'criteria') return view.rubric !== null || countIn(view, material) !== null;
    if (material === 'recordings') return view.recordings.length > 0 || countIn(view, material) !== null;
    if (material === 'overlap') return countIn(view, material) !== null;
    return papersIn(view, material).length > 0 || countIn(view, material) !== null;
  });
}

/** What opens first: the paper, else what came back, else the words. */
export function firstMaterial(view: AssignmentView): Material {
  const order: readonly Material[] = ['paper', 'quiz', 'posts', 'recordings'];
  const has = materialsOf(view);
  return order.find((material) => has.includes(material)) ?? 'overall';
}

import { useMemo } from 'react';
import type { Assignment, Attempt, Course, FileFact, Marking, Rubric } from '#core/model/facts.ts';
import { inReadingOrder, type Remark } from '#core/model/remark.ts';
import type { FileHash } from '#core/model/ids.ts';
import type {
  Decision,
  Draft,
  FileRole,
  Judgement,
  Person,
  Query,
  Reading,
  StoredFile,
  Submission,
} from '#core/model/work.ts';
import { assignmentState, type AssignmentState } from '#core/line/stations.ts';
import { planOrder, type PlannedTask } from '#core/plan/tasks.ts';
import { criterionLosses, pointsBehind, type CriterionLoss } from '#core/scores/behind.ts';
import { fromDecimal, toShown } from '#core/scores/fraction.ts';
import { bestReachable, scoreOf } from '#core/scores/policy.ts';
import { tallyOf, type Tally } from '#core/tally/tally.ts';
import type { RecordMaps } from './records.ts';
import { nowMs, useWorkspace } from './workspace.ts';

/** A paper to read, as far as it is known: announced ones are not here yet. */
export interface PaperFile {
  readonly hash: FileHash;
  readonly name: string;
  readonly role: FileRole;
}

export interface MarkedAttempt {
  readonly attempt: Attempt;
  readonly marking: Marking | null;
}

/** All that is known of an assignment, computed from the records. */
export interface AssignmentView {
  readonly assignment: Assignment;
  readonly course: Course | null;
  readonly rubric: Rubric | null;
  /** By number; each with its latest marking. */
  readonly attempts: readonly MarkedAttempt[];
  readonly latestMarking: Marking | null;
  /** What the attempts make by the policy, as shown; null while nothing is marked with a score. */
  readonly score: string | null;
  /** The most that one more attempt can make of it, as shown. */
  readonly reachable: string | null;
  readonly state: AssignmentState;
  readonly remarks: readonly Remark[];
  readonly numberByRemark: ReadonlyMap<string, number>;
  readonly readings: ReadonlyMap<string, Reading>;
  readonly judgements: ReadonlyMap<string, Judgement>;
  readonly tally: Tally;
  readonly countByDecision: Readonly<Record<Decision | 'carry', number>>;
  readonly losses: readonly CriterionLoss[];
  readonly tasks: readonly PlannedTask[];
  readonly queries: readonly Query[];
  /** The marked paper that a new draft starts from. */
  readonly markedFile: FileFact | null;
  /** Everything that remarks are shown on: marked papers, pictures, what was sent; the marked file first. */
  readonly papers: readonly PaperFile[];
  readonly recordings: readonly StoredFile[];
  readonly draft: Draft | null;
  /** The handing-in of the draft, unless the desk refused it. */
  readonly submission: Submission | null;
  readonly refusal: Submission | null;
}

function own<T extends { readonly assignmentId: string }>(records: ReadonlyMap<string, T>, id: string): T[] {
  return [...records.values()].filter((record) => record.assignmentId === id);
}

function latestOf(markings: readonly Marking[]): Marking | null {
  return markings.reduce<Marking | null>((last, m) => (last === null || m.at >= last.at ? m : last), null);
}

/** Criterion comments in the order of the rubric; the others stay where they are. */
function byCriterion(remarks: readonly Remark[], rubric: Rubric | null): Remark[] {
  const place = (remark: Remark) => rubric?.criteria.findIndex((c) => c.id === remark.criterionId) ?? 0;
  return remarks.toSorted((x, y) =>
    x.channel === 'criterion' && y.channel === 'criterion' ? place(x) - place(y) : 0,
  );
}

/** Remarks paper by paper, the main one first; then those on anything else, then those about no file. */
function byPaper(remarks: readonly Remark[], papers: readonly PaperFile[]): Remark[] {
  const rank = ({ paperHash }: Remark) => {
    const at = papers.findIndex(({ hash }) => hash === paperHash);
    return at >= 0 ? at : papers.length + Number(paperHash === null);
  };
  return remarks.toSorted((x, y) => rank(x) - rank(y));
}

const PAPER_ROLES: readonly FileRole[] = ['marked', 'sent'];

/** Papers that came back with a marking or were taken in, each once. */
function papersOf(
  markings: readonly Marking[],
  files: readonly StoredFile[],
  movedAway: (hash: string) => boolean,
): PaperFile[] {
  const byHash = new Map<string, PaperFile>();
  for (const marking of markings)
    for (const { hash, name, role } of marking.files)
      if (role === 'marked' && !movedAway(hash)) byHash.set(hash, { hash, name, role });
  for (const { hash, name, role, origin } of files)
    if (PAPER_ROLES.includes(role) && origin !== 'written') byHash.set(hash, { hash, name, role });
    else if (origin === 'dropped') byHash.delete(hash);
  return [...byHash.values()].sort((x, y) => Number(y.role === 'marked') - Number(x.role === 'marked'));
}

/** The first marked paper among files that the student took in. */
function ownMarked(files: readonly StoredFile[]): FileFact | null {
  const file = files
    .filter(({ role }) => role === 'marked')
    .sort((x, y) => (x.cameAt < y.cameAt ? -1 : 1))
    .at(0);
  if (file === undefined) return null;
  const { name, mediaType, size, hash } = file;
  return { role: 'marked', name, mediaType, size, hash };
}

/** A remark with its author as the student knows them: one person under one name, in the right role. */
function asKnown(remark: Remark, people: ReadonlyMap<string, Person>): Remark {
  const known = people.get(remark.author.name);
  if (known === undefined) return remark;
  const name = known.sameAs ?? remark.author.name;
  const role = people.get(name)?.role ?? known.role ?? remark.author.role;
  return { ...remark, author: { name, role } };
}

export function viewOf(records: RecordMaps, id: string, atMs: number): AssignmentView | null {
  const assignment = records.assignments.get(id);
  if (assignment === undefined) return null;
  const markings = own(records.markings, id);
  const attempts = own(records.attempts, id)
    .sort((x, y) => x.number - y.number)
    .map((attempt) => ({ attempt, marking: latestOf(markings.filter((m) => m.attemptId === attempt.id)) }));
  const rubric = records.rubrics.get(assignment.rubricId ?? '') ?? null;
  const tasks = own(records.tasks, id);
  const files = own(records.files as ReadonlyMap<string, StoredFile & { assignmentId: string }>, id);
  const firstMarking =
    attempts.find(({ marking }) => marking !== null && marking.files.length > 0)?.marking ?? null;
  const latestMarking = latestOf(markings);
  const returned = new Set(markings.flatMap((m) => m.files.map((file) => file.hash)));
  const movedAway = (hash: string) => (records.files.get(hash)?.assignmentId ?? id) !== id;
  const markedFile =
    firstMarking?.files.find((file) => file.role === 'marked' && !movedAway(file.hash)) ?? ownMarked(files);
  const found = papersOf(markings, files, movedAway);
  const papers = [
    ...found.filter(({ hash }) => hash === markedFile?.hash),
    ...found.filter(({ hash }) => hash !== markedFile?.hash),
  ];
  const remarks = byCriterion(
    byPaper(
      inReadingOrder(own(records.remarks, id).map((remark) => asKnown(remark, records.people))),
      papers,
    ),
    rubric,
  );
  const passages = remarks.filter(
    (remark) => remark.channel === 'passage' && remark.fileHash !== null && returned.has(remark.fileHash),
  ).length;
  const announced = markings.reduce((sum, m) => sum + m.announced.passage, 0);
  const plannedFor = firstMarking ?? latestMarking;
  const losses =
    rubric === null || plannedFor === null
      ? []
      : criterionLosses(
          rubric,
          plannedFor.criteria,
          remarks.filter((remark) => remark.markingId === plannedFor.id),
          records.judgements,
        );
  const behind = new Map(remarks.map((remark) => [remark.id as string, pointsBehind(losses, remark.id)]));
  const behindByRemark = new Map(
    [...behind].flatMap(([key, value]) => (value === null ? [] : [[key, value] as const])),
  );
  const judgements = own(records.judgements, id);
  const count = (decision: Decision) => judgements.filter((j) => j.decision === decision).length;
  const submissions = own(records.submissions, id).sort((x, y) => (x.at < y.at ? -1 : 1));
  const drafts = own(records.drafts, id).sort((x, y) => y.attemptNumber - x.attemptNumber);
  const latest = submissions.at(-1) ?? null;
  return {
    assignment,
    course: records.courses.get(assignment.courseId ?? '') ?? null,
    rubric,
    attempts,
    latestMarking,
    score: scoreShown(assignment, attempts),
    reachable: reachableShown(assignment, attempts),
    state: assignmentState({
      opensAt: assignment.opensAt === null ? null : Date.parse(assignment.opensAt),
      closesAt: assignment.closesAt === null ? null : Date.parse(assignment.closesAt),
      attemptsAllowed: assignment.attemptsAllowed,
      attempts: attempts.map(({ attempt, marking }) => ({
        number: attempt.number,
        marked: marking !== null,
      })),
      now: atMs,
    }),
    remarks,
    numberByRemark: new Map(remarks.map((remark, index) => [remark.id, index + 1])),
    readings: records.readings,
    judgements: records.judgements,
    tally: tallyOf(remarks, records.readings, records.judgements, {
      passage: Math.max(0, announced - passages),
    }),
    countByDecision: {
      act: count('act'),
      ask: count('ask'),
      keep: count('keep'),
      decline: count('decline'),
      carry: judgements.filter((j) => j.carry).length,
    },
    losses,
    tasks: planOrder(tasks, behindByRemark),
    queries: own(records.queries, id),
    markedFile,
    papers,
    recordings: files.filter(({ role }) => role === 'recording'),
    draft: drafts.at(0) ?? null,
    submission: latest !== null && latest.state.kind !== 'refused' ? latest : null,
    refusal: latest !== null && latest.state.kind === 'refused' ? latest : null,
  };
}

function markedScores(attempts: readonly MarkedAttempt[]) {
  return attempts.flatMap(({ marking }) =>
    marking === null || marking.score === null ? [] : [marking.score],
  );
}

function scoreShown({ policy, possible }: Assignment, attempts: readonly MarkedAttempt[]): string | null {
  if (possible === null) return null;
  const score = scoreOf(policy, markedScores(attempts).map(fromDecimal), fromDecimal(possible));
  return score === null ? null : toShown(score, 2);
}

function reachableShown({ policy, possible }: Assignment, attempts: readonly MarkedAttempt[]): string | null {
  if (possible === null) return null;
  const best = bestReachable(policy, markedScores(attempts), possible);
  return best === null ? null : toShown(best, 2);
}

/** The view of an assignment, computed again when a record changes. */
export function useAssignmentView(id: string): AssignmentView | null {
  const records = useWorkspace((state) => state.records);
  return useMemo(() => viewOf(records, id, nowMs()), [records, id]);
}

export function useAllViews(): AssignmentView[] {
  const records = useWorkspace((state) => state.records);
  return useMemo(
    () => [...records.assignments.keys()].flatMap((id) => viewOf(records, id, nowMs()) ?? []),
    [records],
  );
}

/** The points behind a remark as shown, of what its criterion lost; null where it has none. */
export function pointsOf(view: AssignmentView, remarkId: string): { behind: string; lost: string } | null {
  const loss = view.losses.find((l) => l.shareByRemark.has(remarkId));
  const share = loss?.shareByRemark.get(remarkId);
  if (loss === undefined || share === undefined) return null;
  return { behind: hundredths(share), lost: hundredths(loss.lost) };
}

/** Hundredths of a point with two decimals, as they stand in columns. */
export function hundredths(value: number): string {
  return (value / 100).toFixed(2);
}

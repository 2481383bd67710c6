import type { Assignment, Course, Criterion, Marking, Rubric } from '../model/facts.ts';
import type { Channel } from '../model/channels.ts';
import type { Remark } from '../model/remark.ts';
import type { Instant } from '../model/ids.ts';
import type { Aim, Decision, Draft, Judgement, Query, Submission } from '../model/work.ts';
import {
  assignmentState,
  contradictionsIn,
  type AssignmentState,
  type Contradiction,
  type StateFacts,
} from '../line/assignment-state.ts';
import { planOrder, type PlannedTask } from '../plan/tasks.ts';
import { addsUp, scaledResults, type AddsUp, type ScaledResult } from '../rubric/result.ts';
import { criterionOf } from '../rubric/link.ts';
import { importanceOf, pointsBehind, type Loss } from '../rubric/behind.ts';
import type { Fraction } from '../scores/fraction.ts';
import { promisesOf, type Promised } from '../tally/promises.ts';
import { isRead, tallyOf, type Tally } from '../tally/tally.ts';
import {
  attemptsOf,
  countedAttempt,
  givenFor,
  lossesIn,
  reachableScore,
  rubricOf,
  scoreOf,
  workedOn,
} from './points.ts';
import {
  criteriaGiven,
  latenessOf,
  scoreChangeIn,
  standing,
  type Lateness,
  type MarkedAttempt,
  type ScoreChange,
} from './attempts.ts';
import { papersOf, type AwaitedFile, type PapersOf } from './papers.ts';
import type { AssignmentRecords } from './records.ts';
import { remarksOf, type RemarksOf } from './remarks.ts';
import { scoreReadingId } from '../model/own-ids.ts';

/** All that is known of an assignment, computed from the records. */
export interface AssignmentView extends PapersOf, RemarksOf {
  readonly assignment: Assignment;
  readonly course: Course | null;
  readonly rubric: Rubric | null;
  /** By number, each with its markings; those taken back too. */
  readonly attempts: readonly MarkedAttempt[];
  readonly latestMarking: Marking | null;
  /** When the latest marking was first seen here. */
  readonly arrivedAt: Instant | null;
  /** What the attempts make by the policy, in points; null while nothing is marked with a score. */
  readonly score: Fraction | null;
  /** The most that one more attempt can make of it, in points. */
  readonly reachable: Fraction | null;
  readonly state: AssignmentState;
  readonly contradictions: readonly Contradiction[];
  /** Of the latest attempt; null: in time. */
  readonly lateness: Lateness | null;
  /** A score that was changed after it was given. */
  readonly scoreChange: (ScoreChange & { readonly seen: boolean }) | null;
  readonly tally: Tally;
  readonly promised: readonly Promised[];
  readonly countByDecision: Readonly<Record<Decision | 'carry', number>>;
  /** Where points were lost, or on a draft stage are at stake, and which remarks they lie behind. */
  readonly losses: readonly Loss[];
  /** Each criterion of the rubric with what the attempt that is worked on got, in the assignment's points. */
  readonly criteria: readonly ScaledResult[];
  /** The same of the attempt that the score goes by, where it has criteria. */
  readonly countedCriteria: readonly ScaledResult[];
  /** Whether the criteria make the score that was given; null where that can't be told. */
  readonly addsUp: AddsUp | null;
  readonly aims: ReadonlyMap<string, Aim>;
  readonly tasks: readonly PlannedTask[];
  readonly queries: readonly Query[];
  readonly draft: Draft | null;
  /** The handing-in of the draft, unless the desk refused it. */
  readonly submission: Submission | null;
  readonly refusal: Submission | null;
  /** For a draft stage its final, for a final its draft stage. */
  readonly stages: { readonly draft: Assignment | null; readonly final: Assignment | null };
}

function stateFactsOf(
  assignment: Assignment,
  attempts: readonly MarkedAttempt[],
  draftBegun: boolean,
  atMs: number,
): StateFacts {
  const ms = (at: Instant | null) => (at === null ? null : Date.parse(at));
  return {
    opensAt: ms(assignment.opensAt),
    dueAt: ms(assignment.extendedTo ?? assignment.dueAt),
    closesAt: ms(assignment.closesAt),
    attemptsAllowed: assignment.attemptsAllowed,
    excused: assignment.excused,
    draftBegun,
    attempts: standing(attempts)
      .filter(({ missing }) => !missing)
      .map(({ attempt, marking }) => ({
        number: attempt.number,
        at: Date.parse(attempt.at),
        marking: marking === null ? null : { at: Date.parse(marking.at), complete: marking.complete },
      })),
    markedUnsent: attempts.some(({ missing }) => missing),
    now: atMs,
  };
}

/** Remarks that files which are not here are said to hold. */
function announcedIn(awaited: readonly AwaitedFile[]): Partial<Record<Channel, number>> {
  const sum: Partial<Record<Channel, number>> = {};
  for (const { fact } of awaited)
    for (const [channel, count] of Object.entries(fact.announced) as [Channel, number][])
      sum[channel] = (sum[channel] ?? 0) + count;
  return sum;
}

/** All that is known of an assignment at a time, ms since 1970; null where there is none of that id. */
export function viewOf(records: AssignmentRecords, id: string, atMs: number): AssignmentView | null {
  const assignment = records.find('assignments', id);
  if (assignment === null) return null;
  const course = records.find('courses', assignment.courseId ?? '');
  const rubric = rubricOf(records, assignment);
  const attempts = attemptsOf(records, id);
  const papers = papersOf(records, id, attempts);
  const known = remarksOf(records, id, papers.papers, rubric);
  const { remarks, readings, judgements } = known;
  const announced = announcedIn(papers.awaited);
  const marks = marksOf(records, { assignment, course, rubric, attempts, remarks, judgements });
  const importance = new Map(
    remarks.map((remark) => [remark.id as string, importanceOf(remark, judgements.get(remark.id))]),
  );
  const writing = writingOf(records, id, attempts);
  const stateFacts = stateFactsOf(assignment, attempts, writing.draft !== null, atMs);
  const last = standing(attempts).at(-1);
  return {
    assignment,
    course,
    rubric,
    attempts,
    ...papers,
    ...known,
    ...marks,
    ...writing,
    state: assignmentState(stateFacts),
    contradictions: contradictionsIn(stateFacts),
    lateness: last === undefined ? null : latenessOf(last, assignment, course),
    tally: tallyOf(remarks, readings, judgements, announced),
    promised: promisesOf(remarks, records.of('promises', id), announced),
    countByDecision: countByDecision(remarks.flatMap((remark) => judgements.get(remark.id) ?? [])),
    aims: new Map(records.of('aims', id).map((aim) => [aim.criterionId as string, aim])),
    tasks: planOrder(records.of('tasks', id), behindRemarks(remarks, marks.losses), importance),
    queries: records.of('queries', id),
    stages: stagesOf(records, assignment),
  };
}

/** What was given for the attempts, and where points were lost. */
function marksOf(
  records: AssignmentRecords,
  known: Pick<AssignmentView, 'assignment' | 'course' | 'rubric' | 'attempts' | 'remarks' | 'judgements'>,
) {
  const { assignment, course, rubric, attempts, remarks, judgements } = known;
  const latestMarking = latestOf(records.of('markings', assignment.id));
  const worked = workedOn(attempts);
  const given = worked === null ? null : givenFor(worked, assignment, course);
  const counted = countedAttempt(attempts, assignment, course);
  const resultsOf = (attempt: MarkedAttempt | null) =>
    rubric === null
      ? []
      : scaledResults(rubric, attempt === null ? [] : criteriaGiven(attempt), assignment.possible);
  const criteria = resultsOf(worked);
  const change = scoreChangeIn(attempts);
  const isSeen = (id: Marking['id']) => records.find('readings', scoreReadingId(id))?.read === true;
  return {
    latestMarking,
    arrivedAt: latestMarking === null ? null : (records.find('arrivals', latestMarking.id)?.at ?? null),
    score: scoreOf(assignment, attempts, course),
    reachable: reachableScore(assignment, attempts, course),
    scoreChange: change === null ? null : { ...change, seen: isSeen(change.after.id) },
    losses: lossesIn(records, { assignment, rubric, worked, given, remarks, judgements }),
    criteria,
    countedCriteria: counted === null ? [] : resultsOf(counted),
    addsUp: addsUp(criteria, given),
  };
}

/** The last marking: the school's word before the student's own note of it. */
function latestOf(markings: readonly Marking[]): Marking | null {
  const told = markings.filter(({ byHand }) => !byHand);
  return (told.length > 0 ? told : markings).reduce<Marking | null>(
    (last, marking) => (last === null || marking.at >= last.at ? marking : last),
    null,
  );
}

/** The draft, and what became of sending it. */
function writingOf(records: AssignmentRecords, id: string, attempts: readonly MarkedAttempt[]) {
  const submissions = records.of('submissions', id).toSorted((x, y) => (x.at < y.at ? -1 : 1));
  const drafts = records.of('drafts', id).toSorted((x, y) => y.attemptNumber - x.attemptNumber);
  const withdrawn = new Set(attempts.flatMap((one) => (one.withdrawn === null ? [] : [one.attempt.id])));
  // One that was taken back is no longer on its way: the draft can be written on and sent again.
  const latest =
    submissions.findLast(({ state }) => state.kind !== 'received' || !withdrawn.has(state.attemptId)) ?? null;
  const refused = latest?.state.kind === 'refused';
  return {
    draft: drafts.at(0) ?? null,
    submission: refused ? null : latest,
    refusal: refused ? latest : null,
  };
}

/** What of the losses lies behind each remark, for those behind which some does. */
function behindRemarks(remarks: readonly Remark[], losses: readonly Loss[]): Map<Remark['id'], number> {
  return new Map(
    remarks.flatMap((remark) => {
      const points = pointsBehind(losses, remark.id);
      return points === null ? [] : [[remark.id, points] as const];
    }),
  );
}

function countByDecision(decided: readonly Judgement[]): AssignmentView['countByDecision'] {
  const count = (decision: Decision) => decided.filter((judgement) => judgement.decision === decision).length;
  return {
    act: count('act'),
    ask: count('ask'),
    keep: count('keep'),
    decline: count('decline'),
    carry: decided.filter(({ carry }) => carry).length,
  };
}

function stagesOf(records: AssignmentRecords, assignment: Assignment): AssignmentView['stages'] {
  const final = assignment.draftOf === null ? null : records.find('assignments', assignment.draftOf);
  return { draft: records.stagesOf(assignment.id).at(0) ?? null, final };
}

/** How many remarks are not read, announced ones that are not here yet among them: what the tally shows, added up. */
export function unreadIn({ tally }: AssignmentView): number {
  return tally.byChannel.reduce((sum, c) => sum + c.received - c.read + c.announced, 0);
}

/** Whether an assignment is gone through: all its remarks are read (decisions.md, Read), and a changed score was seen. */
export function isGoneThrough(view: AssignmentView): boolean {
  return unreadIn(view) === 0 && (view.scoreChange === null || view.scoreChange.seen);
}

/** Remarks whose words or points the school changed after they were read. */
export function changedUnread(view: AssignmentView): Remark[] {
  return view.remarks.filter(
    (remark) => remark.before !== null && !isRead(remark, view.readings.get(remark.id)),
  );
}

/** What of a loss lies behind a remark, in hundredths of the assignment's points; null where no points do. */
export function behindOf(view: AssignmentView, remarkId: string): { share: number; loss: Loss } | null {
  for (const loss of view.losses) {
    const share = loss.shareByRemark.get(remarkId);
    if (share !== undefined) return { share, loss };
  }
  return null;
}

/** The criterion of the assignment's rubric that a remark counts towards. */
export function criterionFor(view: AssignmentView, remark: Remark): Criterion | null {
  const id = criterionOf(remark, view.judgements.get(remark.id));
  return view.rubric?.criteria.find((criterion) => criterion.id === id) ?? null;
}

/** Hundredths of a point with two decimals, as they stand in columns. */
export function hundredths(value: number): string {
  return (value / 100).toFixed(2);
}

import type { Assignment, Course, Criterion, Marking, Rubric } from '../model/facts.ts';
import type { Remark } from '../model/remark.ts';
import type { Instant, PartId } from '../model/ids.ts';
import type { Aim, GivenAnswer, Query, StoredFile } from '../model/work.ts';
import {
  assignmentState,
  contradictionsIn,
  type AssignmentState,
  type Contradiction,
  type StateFacts,
} from '../line/assignment-state.ts';
import { planOrder, type Behind, type PlannedTask } from '../plan/tasks.ts';
import { addsUp, scaledResults, type AddsUp, type ScaledResult } from '../rubric/result.ts';
import { criterionOf } from '../rubric/link.ts';
import { importanceOf, importanceOfPart, pointsBehind, sharesOfParts, type Loss } from '../rubric/behind.ts';
import { partsOf } from '../saying/remark-parts.ts';
import { kindByFiles, type KindSign } from '../line/kind.ts';
import { stationFacts, type Stage, type StationFact } from '../line/station-facts.ts';
import type { WorkKind } from '../model/work-kind.ts';
import { subtract, toHundredths, type Fraction } from '../scores/fraction.ts';
import { promisesOf, type Promised } from '../tally/promises.ts';
import { isRead, tallyOf, type Tally } from '../tally/tally.ts';
import {
  attemptsOf,
  countedAttempt,
  givenFor,
  lossesIn,
  reachableScore,
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
import {
  aboutOf,
  announcedIn,
  countByDecision,
  type About,
  type CountByDecision,
  type Own,
} from './about.ts';
import { papersOf, type PapersOf } from './papers.ts';
import type { AssignmentRecords } from './records.ts';
import { remarksOf, type RemarksOf } from './remarks.ts';
import { rubricOf } from './rubric-of.ts';
import { stageOf, stagesTo, workedInOf } from './stages.ts';
import { isBegun, writingNext, writingOf, type Writing } from './writing.ts';
import { answerKey, scoreReadingId } from '../model/own-ids.ts';

/** All that is known of an assignment, computed from the records. */
export interface AssignmentView extends PapersOf, RemarksOf, Writing {
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
  readonly countByDecision: CountByDecision;
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
  readonly kind: WorkKind;
  /** Whether the course desk takes it: not work of the student's own, nor a file that is in no course. */
  readonly byDesk: boolean;
  readonly stage: Stage;
  /** For a draft stage its final, for a final its draft stage. */
  readonly stages: { readonly draft: Assignment | null; readonly final: Assignment | null };
  /** What the next attempt answers: remarks that came back here and, to a final, on its draft stages. */
  readonly about: About;
  readonly stations: readonly StationFact[];
  /** What the student says was done, by remark. */
  readonly given: ReadonlyMap<string, GivenAnswer>;
  /** Every file that is kept for it. */
  readonly files: readonly StoredFile[];
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

/** All that is known of an assignment at a time, ms since 1970; null where there is none of that id. */
export function viewOf(records: AssignmentRecords, id: string, atMs: number): AssignmentView | null {
  // A stage by itself: all that lead to the final are in the list, and two that lead to each other would never end.
  const stages = stagesTo(records, id).flatMap((stage) => viewAmong(records, stage.id, [], atMs) ?? []);
  return viewAmong(records, id, stages, atMs);
}

/** The same, with the views of the draft stages that lead to it. */
function viewAmong(
  records: AssignmentRecords,
  id: string,
  stages: readonly AssignmentView[],
  atMs: number,
): AssignmentView | null {
  const assignment = records.find('assignments', id);
  if (assignment === null) return null;
  const course = records.find('courses', assignment.courseId ?? '');
  const rubric = rubricOf(records, assignment);
  const attempts = attemptsOf(records, id);
  const papers = papersOf(records, id, attempts);
  const known = remarksOf(records, id, papers.papers, rubric);
  const { remarks, readings, judgements, sayings } = known;
  const announced = announcedIn(papers.awaited);
  const marks = marksOf(records, { assignment, course, rubric, attempts, remarks, judgements, sayings });
  const written = writingOf(records, id, attempts);
  const stateFacts = stateFactsOf(assignment, attempts, written.draft !== null, atMs);
  const state = assignmentState(stateFacts);
  const writing = state.kind === 'open for another attempt' ? writingNext(written, attempts) : written;
  const last = standing(attempts).at(-1);
  const own: Own = {
    ...known,
    ...papers,
    assignment,
    rubric,
    attempts,
    losses: marks.losses,
    queries: records.of('queries', id),
    tally: tallyOf(remarks, readings, judgements, announced),
    countByDecision: countByDecision(remarks.flatMap((remark) => judgements.get(remark.id) ?? [])),
  };
  const about = aboutOf(records, own, stages);
  const kind = kindOf(assignment, signsOf(papers, attempts), stages);
  const stage = stageOf(records, assignment);
  const tasks = tasksOf(records, assignment, stage, about);
  const byDesk = course !== null && !assignment.byHand;
  return {
    assignment,
    course,
    rubric,
    attempts,
    ...papers,
    ...known,
    ...marks,
    ...writing,
    state,
    contradictions: contradictionsIn(stateFacts),
    lateness: last === undefined ? null : latenessOf(last, assignment, course),
    tally: own.tally,
    promised: promisesOf(remarks, records.of('promises', id), announced, sayings),
    countByDecision: own.countByDecision,
    aims: new Map(records.of('aims', id).map((aim) => [aim.criterionId as string, aim])),
    tasks,
    queries: own.queries,
    kind,
    byDesk,
    stage,
    stages: stagesOf(records, assignment),
    about,
    files: records.of('files', id),
    given: new Map(records.of('answers', id).map((one) => [answerKey(one), one])),
    stations: stationFacts({
      kind,
      state: state.kind,
      stage,
      received: remarks.length,
      receivedOnStage: about.remarks.length - remarks.length,
      tasks: tasks.length,
      draftBegun: writing.draft !== null && isBegun(writing.draft),
      sent: attempts.length > 0 || writing.submission !== null,
      byDesk,
    }),
  };
}

/** As it is said; else by what there is of it, or of the draft stage that leads to it. */
function kindOf(
  { kind, requirements }: Assignment,
  signs: readonly KindSign[],
  stages: readonly AssignmentView[],
): WorkKind {
  const before = signs.length === 0 ? stages.at(-1)?.kind : undefined;
  return kind ?? before ?? kindByFiles(signs, requirements.fileTypes);
}

/** Files by which the kind of work is known: what came back, and what was sent. */
function signsOf({ papers, recordings }: PapersOf, attempts: readonly MarkedAttempt[]): KindSign[] {
  return [...papers, ...recordings, ...attempts.flatMap(({ attempt }) => attempt.files)].filter(
    ({ role }) => role !== 'brief',
  );
}

/** The tasks of an assignment in the order to do them; a stage whose final is gone has those that were the final's. */
function tasksOf(
  records: AssignmentRecords,
  assignment: Assignment,
  stage: Stage,
  about: About,
): PlannedTask[] {
  const left =
    stage === 'draft stage without its final' && assignment.draftOf !== null
      ? records.of('tasks', assignment.draftOf)
      : [];
  const remarks = new Map(about.remarks.map((remark) => [remark.id as string, remark]));
  return planOrder([...records.of('tasks', assignment.id), ...left], ({ remarkId, partId }) => {
    const remark = remarks.get(remarkId);
    return remark === undefined ? NOTHING_BEHIND : behindPart(remark, partId, about);
  });
}

const NOTHING_BEHIND: Behind = { points: null, importance: 0 };

/** What lies behind a remark, or behind a part of it: that is its share of the remark's. */
export function behindPart(
  remark: Remark,
  partId: PartId | null,
  about: Pick<About, 'losses' | 'sayings' | 'judgements'>,
): Behind {
  const points = pointsBehind(about.losses, remark.id);
  const parts = partId === null ? [] : partsOf(remark, about);
  const at = parts.findIndex(({ id }) => id === partId);
  if (at < 0) return { points, importance: importanceOf(remark.id, about) ?? 0 };
  return {
    points: points === null ? null : sharesOfParts(points, parts)[at],
    importance: importanceOfPart(parts[at]),
  };
}

/** What was given for the attempts, and where points were lost. */
function marksOf(
  records: AssignmentRecords,
  known: Pick<
    AssignmentView,
    'assignment' | 'course' | 'rubric' | 'attempts' | 'remarks' | 'judgements' | 'sayings'
  >,
) {
  const { assignment, course, rubric, attempts, remarks } = known;
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
    losses: lossesIn(records, { assignment, rubric, worked, given, remarks, understood: known }),
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

function stagesOf(records: AssignmentRecords, assignment: Assignment): AssignmentView['stages'] {
  const final = workedInOf((id) => records.find('assignments', id), assignment);
  return {
    draft: stagesTo(records, assignment.id).at(-1) ?? null,
    final: final.id === assignment.id ? null : final,
  };
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

/** Hundredths as tenths, as a share is told on a slip: "0.4". */
export function tenths(value: number): string {
  return (Math.round(value / 10) / 10).toFixed(1);
}

/** What may still be gained under the rules, in hundredths of a point; null where it is not known. */
export function mostGain({ score, reachable }: Pick<AssignmentView, 'score' | 'reachable'>): number | null {
  if (score === null || reachable === null) return null;
  return Math.max(0, toHundredths(subtract(reachable, score)));
}

/** Hundredths to two places. */
export function hundredths(value: number): string {
  return (value / 100).toFixed(2);
}

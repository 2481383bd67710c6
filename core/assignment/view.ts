import type { Assignment, Course, Criterion, FileFact, Marking, Rubric } from '../model/facts.ts';
import type { Channel } from '../model/channels.ts';
import { inReadingOrder, type Remark } from '../model/remark.ts';
import type { FileHash, Instant } from '../model/ids.ts';
import type {
  Aim,
  Decision,
  Draft,
  FileRole,
  Judgement,
  Person,
  Query,
  Reading,
  StoredFile,
  Submission,
} from '../model/work.ts';
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
import { doublesOf } from '../tally/doubled.ts';
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
  returnedFiles,
  scoreChangeIn,
  standing,
  type Lateness,
  type MarkedAttempt,
  type ScoreChange,
} from './attempts.ts';
import type { AssignmentRecords } from './records.ts';
import { scoreReadingId } from '../model/own-ids.ts';

/** A paper to read, as far as it is known: announced ones are not here yet. */
export interface PaperFile {
  readonly hash: FileHash;
  readonly name: string;
  readonly role: FileRole;
}

/** A file that came back and isn't here yet. */
export interface AwaitedFile {
  readonly marking: Marking;
  readonly fact: FileFact;
}

/** All that is known of an assignment, computed from the records. */
export interface AssignmentView {
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
  /** Each remark once, in reading order; doubles and what was withdrawn are left out. */
  readonly remarks: readonly Remark[];
  /** The same words said elsewhere, by the remark that counts. */
  readonly doubles: ReadonlyMap<string, readonly Remark[]>;
  readonly withdrawn: readonly Remark[];
  readonly numberByRemark: ReadonlyMap<string, number>;
  readonly readings: ReadonlyMap<string, Reading>;
  readonly judgements: ReadonlyMap<string, Judgement>;
  readonly tally: Tally;
  readonly promised: readonly Promised[];
  readonly awaited: readonly AwaitedFile[];
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
  /** The marked paper that a new draft starts from. */
  readonly markedFile: FileFact | null;
  /** Everything that remarks are shown on: marked papers, pictures, posts, quizzes, what was sent; the marked file first. */
  readonly papers: readonly PaperFile[];
  readonly recordings: readonly StoredFile[];
  readonly draft: Draft | null;
  /** The handing-in of the draft, unless the desk refused it. */
  readonly submission: Submission | null;
  readonly refusal: Submission | null;
  /** For a draft stage its final, for a final its draft stage. */
  readonly stages: { readonly draft: Assignment | null; readonly final: Assignment | null };
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

const PAPER_ROLES: readonly FileRole[] = ['marked', 'quiz', 'posts', 'sent', 'brief'];

/** Papers that came back with a marking or were taken in, each once. */
function papersOf(
  returned: readonly AwaitedFile[],
  files: readonly StoredFile[],
  movedAway: (hash: string) => boolean,
  sent: ReadonlySet<string>,
): PaperFile[] {
  const byHash = new Map<string, PaperFile>();
  for (const { fact } of returned)
    if ((fact.role === 'marked' || fact.role === 'quiz' || fact.role === 'posts') && !movedAway(fact.hash))
      byHash.set(fact.hash, { hash: fact.hash, name: fact.name, role: fact.role });
  const standing = new Set(returned.map(({ fact }) => fact.hash as string));
  for (const { hash, name, role, origin } of files) {
    // An older form of a returned file is kept, and is no paper to read any more.
    const superseded = origin === 'desk' && role !== 'sent' && role !== 'brief' && !standing.has(hash);
    // What was written here is a paper to read once it was sent.
    const isPaper = PAPER_ROLES.includes(role) && (origin !== 'written' || sent.has(hash));
    if (isPaper && !superseded) byHash.set(hash, { hash, name, role });
    else if (origin === 'dropped') byHash.delete(hash);
  }
  const rank = ({ role }: PaperFile) => PAPER_ROLES.indexOf(role);
  return [...byHash.values()].sort((x, y) => rank(x) - rank(y));
}

/** The first marked paper among files that the student took in. */
function ownMarked(files: readonly StoredFile[]): FileFact | null {
  const file = files
    .filter(({ role }) => role === 'marked')
    .toSorted((x, y) => (x.cameAt < y.cameAt ? -1 : 1))
    .at(0);
  if (file === undefined) return null;
  const { name, mediaType, size, hash } = file;
  return { role: 'marked', name, mediaType, size, hash, aboutHash: null, announced: {} };
}

/** A remark with its author as the student knows them: one person under one name, in the right role. */
function asKnown(remark: Remark, personOf: (name: string) => Person | null): Remark {
  const known = personOf(remark.author.name);
  if (known === null) return remark;
  const name = known.sameAs ?? remark.author.name;
  const role = personOf(name)?.role ?? known.role ?? remark.author.role;
  return { ...remark, author: { name, role } };
}

/** Remarks that files which are not here are said to hold. */
function announcedIn(awaited: readonly AwaitedFile[]): Partial<Record<Channel, number>> {
  const sum: Partial<Record<Channel, number>> = {};
  for (const { fact } of awaited)
    for (const [channel, count] of Object.entries(fact.announced) as [Channel, number][])
      sum[channel] = (sum[channel] ?? 0) + count;
  return sum;
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

/** What is kept for each of some remarks. */
function byRemark<Kept>(
  remarks: readonly Remark[],
  find: (key: string) => Kept | null,
): ReadonlyMap<string, Kept> {
  return new Map(
    remarks.flatMap(({ id }) => {
      const kept = find(id);
      return kept === null ? [] : [[id, kept] as const];
    }),
  );
}

/** All that is known of an assignment at a time, ms since 1970; null where there is none of that id. */
export function viewOf(records: AssignmentRecords, id: string, atMs: number): AssignmentView | null {
  const assignment = records.find('assignments', id);
  if (assignment === null) return null;
  const markings = records.of('markings', id);
  const attempts = attemptsOf(records, id);
  const course = records.find('courses', assignment.courseId ?? '');
  const rubric = rubricOf(records, assignment);
  const files = records.of('files', id);
  const returned = returnedFiles(attempts);
  const movedAway = (hash: string) => (records.find('files', hash)?.assignmentId ?? id) !== id;
  const firstMarking =
    attempts.find(({ marking }) => marking?.files.some(({ role }) => role === 'marked') === true)?.marking ??
    null;
  // The school's word before the student's own note of it.
  const told = markings.filter(({ byHand }) => !byHand);
  const latestMarking = (told.length > 0 ? told : markings).reduce<Marking | null>(
    (last, m) => (last === null || m.at >= last.at ? m : last),
    null,
  );
  const markedFile =
    firstMarking?.files.find((file) => file.role === 'marked' && !movedAway(file.hash)) ?? ownMarked(files);
  const sent = new Set(attempts.flatMap(({ attempt }) => attempt.files.map(({ hash }) => hash as string)));
  const found = papersOf(returned, files, movedAway, sent);
  const papers = [
    ...found.filter(({ hash }) => hash === markedFile?.hash),
    ...found.filter(({ hash }) => hash !== markedFile?.hash),
  ];
  const personOf = (name: string) => records.find('people', name);
  // In reading order, so that of the same words in two papers those in the main one count.
  const known = byPaper(
    inReadingOrder(records.of('remarks', id).map((remark) => asKnown(remark, personOf))),
    papers,
  );
  const judgements = byRemark(known, (key) => records.find('judgements', key));
  const readings = byRemark(known, (key) => records.find('readings', key));
  const doubles = doublesOf(known, judgements);
  const doubled = new Set([...doubles.values()].flat().map((remark) => remark.id as string));
  const remarks = byCriterion(
    known.filter((remark) => !remark.withdrawn && !doubled.has(remark.id)),
    rubric,
  );
  const awaited = returned.filter(({ fact }) => records.find('files', fact.hash) === null);
  const announced = announcedIn(awaited);
  const worked = workedOn(attempts);
  const criteria =
    rubric === null
      ? []
      : scaledResults(rubric, worked === null ? [] : criteriaGiven(worked), assignment.possible);
  const counted = countedAttempt(attempts, assignment, course);
  const given = worked === null ? null : givenFor(worked, assignment, course);
  const losses = lossesIn(records, { assignment, rubric, worked, given, remarks, judgements });
  const behind = new Map(
    remarks.flatMap((remark) => {
      const points = pointsBehind(losses, remark.id);
      return points === null ? [] : [[remark.id, points] as const];
    }),
  );
  const importance = new Map(
    remarks.map((remark) => [remark.id as string, importanceOf(remark, judgements.get(remark.id))]),
  );
  const decided = remarks.flatMap((remark) => judgements.get(remark.id) ?? []);
  const count = (decision: Decision) => decided.filter((j) => j.decision === decision).length;
  const submissions = records.of('submissions', id).toSorted((x, y) => (x.at < y.at ? -1 : 1));
  const drafts = records.of('drafts', id).toSorted((x, y) => y.attemptNumber - x.attemptNumber);
  const withdrawn = new Set(attempts.flatMap((one) => (one.withdrawn === null ? [] : [one.attempt.id])));
  // One that was taken back is no longer on its way: the draft can be written on and sent again.
  const latest =
    submissions.findLast(({ state }) => state.kind !== 'received' || !withdrawn.has(state.attemptId)) ?? null;
  const stateFacts = stateFactsOf(assignment, attempts, drafts.length > 0, atMs);
  const change = scoreChangeIn(attempts);
  const last = standing(attempts).at(-1);
  return {
    assignment,
    course,
    rubric,
    attempts,
    latestMarking,
    arrivedAt: latestMarking === null ? null : (records.find('arrivals', latestMarking.id)?.at ?? null),
    score: scoreOf(assignment, attempts, course),
    reachable: reachableScore(assignment, attempts, course),
    state: assignmentState(stateFacts),
    contradictions: contradictionsIn(stateFacts),
    lateness: last === undefined ? null : latenessOf(last, assignment, course),
    scoreChange:
      change === null
        ? null
        : { ...change, seen: records.find('readings', scoreReadingId(change.after.id))?.read === true },
    remarks,
    doubles,
    withdrawn: known.filter((one) => one.withdrawn),
    numberByRemark: new Map(remarks.map((remark, index) => [remark.id, index + 1])),
    readings,
    judgements,
    tally: tallyOf(remarks, readings, judgements, announced),
    promised: promisesOf(remarks, records.of('promises', id), announced),
    awaited,
    countByDecision: {
      act: count('act'),
      ask: count('ask'),
      keep: count('keep'),
      decline: count('decline'),
      carry: decided.filter((j) => j.carry).length,
    },
    losses,
    criteria,
    countedCriteria:
      rubric === null || counted === null
        ? []
        : scaledResults(rubric, criteriaGiven(counted), assignment.possible),
    addsUp: addsUp(criteria, given),
    aims: new Map(records.of('aims', id).map((aim) => [aim.criterionId as string, aim])),
    tasks: planOrder(records.of('tasks', id), behind, importance),
    queries: records.of('queries', id),
    markedFile,
    papers,
    recordings: files.filter(({ role }) => role === 'recording'),
    draft: drafts.at(0) ?? null,
    submission: latest !== null && latest.state.kind !== 'refused' ? latest : null,
    refusal: latest !== null && latest.state.kind === 'refused' ? latest : null,
    stages: stagesOf(records, assignment),
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

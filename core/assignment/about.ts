import type { Channel } from '../model/channels.ts';
import type { Assignment, FileFact, Rubric } from '../model/facts.ts';
import type { Remark } from '../model/remark.ts';
import type { Decision, Judgement, Query } from '../model/work.ts';
import { criterionLosses, lossesAtStake, type Loss } from '../rubric/behind.ts';
import type { Understood } from '../saying/saying-of.ts';
import { decidedThings } from '../tally/decided.ts';
import { tallyOf, type Tally } from '../tally/tally.ts';
import { criteriaGiven, type MarkedAttempt } from './attempts.ts';
import type { AwaitedFile } from './papers.ts';
import { workedOn } from './points.ts';
import type { AssignmentRecords } from './records.ts';
import { proposedLinks, suggestedCriteria } from './suggested.ts';
import type { RemarksOf } from './remarks.ts';

/** How many remarks or parts of remarks there are of each decision, and how many are carried. */
export type CountByDecision = Readonly<Record<Decision | 'carry', number>>;

/** Remarks to be answered, and what is known of them; a final's are those of its draft stages too. */
export interface About extends Omit<RemarksOf, 'withdrawn'> {
  readonly losses: readonly Loss[];
  readonly queries: readonly Query[];
  readonly markedFile: FileFact | null;
  readonly countByDecision: CountByDecision;
  readonly tally: Tally;
}

/** What is known of an assignment by itself, as far as it matters to what the next attempt answers. */
export interface Own extends About {
  readonly assignment: Assignment;
  readonly rubric: Rubric | null;
  readonly attempts: readonly MarkedAttempt[];
  readonly awaited: readonly AwaitedFile[];
}

/** How many remarks of each channel files which are not here are said to hold. */
export function announcedIn(awaited: readonly AwaitedFile[]): Partial<Record<Channel, number>> {
  const sum: Partial<Record<Channel, number>> = {};
  for (const { fact } of awaited)
    for (const [channel, count] of Object.entries(fact.announced) as [Channel, number][])
      sum[channel] = (sum[channel] ?? 0) + count;
  return sum;
}

/** What an assignment's next attempt answers: its own remarks first, then those on its draft stages. */
export function aboutOf(records: AssignmentRecords, own: Own, stages: readonly Own[]): About {
  if (stages.length === 0) return own;
  const all = [own, ...stages];
  const remarks = all.flatMap((one) => one.remarks);
  const readings = joinedMaps(all.map((one) => one.readings));
  const judgements = joinedMaps(all.map((one) => one.judgements));
  const sayings = joinedMaps(all.map((one) => one.sayings));
  return {
    remarks,
    readings,
    judgements,
    sayings,
    markKeys: [...new Set(all.flatMap((one) => one.markKeys))],
    doubles: joinedMaps(all.map(({ doubles }) => doubles)),
    numberByRemark: new Map(remarks.map((remark, index) => [remark.id, index + 1])),
    losses: lossesAbout(records, own, remarks, { judgements, sayings }),
    queries: all.flatMap(({ queries }) => queries),
    markedFile:
      own.markedFile ?? stages.findLast(({ markedFile }) => markedFile !== null)?.markedFile ?? null,
    tally: tallyOf(remarks, readings, judgements, announcedIn(all.flatMap(({ awaited }) => awaited))),
    countByDecision: countByDecision(remarks.flatMap((remark) => judgements.get(remark.id) ?? [])),
  };
}

/** Where points of a final went, or are at stake while it isn't marked, and which remarks of all stages they lie behind. */
function lossesAbout(
  records: AssignmentRecords,
  { assignment, rubric, attempts, losses }: Own,
  remarks: readonly Remark[],
  understood: Understood,
): readonly Loss[] {
  if (rubric === null) return losses;
  const worked = workedOn(attempts);
  const links = proposedLinks(suggestedCriteria(records, rubric, remarks, understood));
  if (worked === null) return lossesAtStake(rubric, [], assignment.possible, remarks, understood, links);
  const given = criteriaGiven(worked);
  const lost = criterionLosses(rubric, given, assignment.possible, remarks, understood, links);
  return lost.length > 0 ? lost : losses;
}

function joinedMaps<Value>(maps: readonly ReadonlyMap<string, Value>[]): ReadonlyMap<string, Value> {
  return new Map(maps.flatMap((map) => [...map]));
}

/** How much of some remarks was decided about, and how; parts that were decided by themselves count each. */
export function countByDecision(decided: readonly Judgement[]): CountByDecision {
  const things = decided.flatMap(decidedThings);
  const count = (decision: Decision) => things.filter((thing) => thing.decision === decision).length;
  const wholly = decided.filter(({ carry }) => carry).length;
  return {
    act: count('act'),
    ask: count('ask'),
    keep: count('keep'),
    decline: count('decline'),
    carry: wholly + things.filter(({ partId, carry }) => partId !== null && carry).length,
  };
}

import { isGiven } from '../answers/given.ts';
import type { Criterion, CriterionResult, Marking } from '../model/facts.ts';
import type { DecimalString } from '../model/ids.ts';
import { quotedWords, type Remark } from '../model/remark.ts';
import { lostIn } from '../quiz/practice.ts';
import type { QuizQuestion, QuizResults } from '../quiz/question.ts';
import { compare, fromDecimal, subtract, type Fraction } from '../scores/fraction.ts';
import { stanceOf } from '../saying/saying-of.ts';
import { standing, type MarkedAttempt } from '../assignment/attempts.ts';
import type { EstimateOf } from '../plan/tasks.ts';
import { gainsOf, plannedOf } from './gains.ts';
import { answerWords, comesBackTo } from './said-again.ts';
import { criterionFor, type AssignmentView } from '../assignment/view.ts';

/** A passage, a place or an answer as it was, and what came in its place. */
export interface Changed {
  /** The remark that it answers; null where it is an answer to an item as a whole. */
  readonly remark: Remark | null;
  readonly before: string;
  readonly after: readonly string[];
  /** Places that were shown in the new picture, and files that were brought as the answer. */
  readonly shown: number;
  /** The later remark that comes back to it; null where none does. */
  readonly again: Remark | null;
}

/** What a criterion got before and got now. */
export interface CriterionChange {
  /** null: all of the assignment, where there are no criteria. */
  readonly criterion: Criterion | null;
  readonly before: CriterionResult | null;
  readonly after: CriterionResult | null;
  /** Points more than before; null where one of them has none. */
  readonly change: Fraction | null;
  /** What the changes that were made for it were expected to win, in hundredths; null where none was made. */
  readonly planned: number | null;
  readonly changed: readonly Changed[];
}

/** The attempt that was worked on and the newest, criterion by criterion. */
export interface BeforeAfter {
  readonly first: Marking;
  readonly last: Marking;
  readonly criteria: readonly CriterionChange[];
  /** Points more than before in all; null where one of them has no score. */
  readonly change: Fraction | null;
  /** Expected of all changes that were made, in hundredths; null where none was made. */
  readonly planned: number | null;
  /** Earlier remarks that were answered, and those of them of which nothing is said again. */
  readonly answered: number;
  readonly taken: number;
  /** Later remarks that come back to an earlier one, by the later one's id. */
  readonly again: ReadonlyMap<string, Remark>;
}

/**
 * Sets the first marked attempt beside the newest; null with fewer than two of them.
 * @param estimateOf what changes were taken to be good for when they were planned
 */
export function beforeAndAfter(view: AssignmentView, estimateOf: EstimateOf): BeforeAfter | null {
  const { attempts, rubric } = view;
  const marked = standing(attempts).flatMap((each) =>
    each.marking === null ? [] : [{ each, marking: each.marking }],
  );
  const [first, last] = [marked.at(0), marked.at(-1)];
  if (first === undefined || last === undefined || marked.length < 2) return null;
  const again = saidAgainIn(view);
  const gains = gainsOf(view);
  const plannedFor = (criterionId: string | null): number | null => {
    const made = gains?.places.find(({ loss }) => loss.criterionId === criterionId)?.made ?? [];
    return made.length === 0 ? null : plannedOf(made, estimateOf);
  };
  const criteria: CriterionChange[] = (rubric?.criteria ?? []).map((criterion) => {
    const [before, after] = [resultIn(first.marking, criterion), resultIn(last.marking, criterion)];
    return {
      criterion,
      before,
      after,
      change: changeOf(before?.points ?? null, after?.points ?? null),
      planned: plannedFor(criterion.id),
      changed: [
        ...answersIn(criterion, first.each, last.each),
        ...changedIn(view, again, (remark) => criterionFor(view, remark)?.id === criterion.id),
      ],
    };
  });
  const rest = changedIn(view, again, (remark) => criterionFor(view, remark) === null);
  const planned = [...criteria.map((one) => one.planned), plannedFor(null)].filter((one) => one !== null);
  const answered = view.remarks.filter(({ id }) => {
    const given = view.given.get(id);
    return given !== undefined && isGiven(given);
  });
  const earlierAgain = new Set([...again.values()].map(({ id }) => id));
  return {
    first: first.marking,
    last: last.marking,
    criteria:
      rest.length === 0
        ? criteria
        : [
            ...criteria,
            {
              criterion: null,
              before: null,
              after: null,
              change: null,
              planned: plannedFor(null),
              changed: rest,
            },
          ],
    change: changeOf(first.marking.score, last.marking.score),
    planned: planned.length === 0 ? null : planned.reduce((x, y) => x + y, 0),
    answered: answered.length,
    taken: answered.filter(({ id }) => !earlierAgain.has(id)).length,
    again,
  };
}

const resultIn = ({ criteria }: Marking, { id }: Criterion) =>
  criteria.find(({ criterionId }) => criterionId === id) ?? null;

/** What of later markings comes back, of views that it was asked of. */
const known = new WeakMap<AssignmentView, ReadonlyMap<string, Remark>>();

/** Remarks of later markings that come back to one of the first that was marked, by the later one's id. */
export function saidAgainIn(view: AssignmentView): ReadonlyMap<string, Remark> {
  const before = known.get(view);
  if (before !== undefined) return before;
  const found = findSaidAgain(view);
  known.set(view, found);
  return found;
}

/** The number of the attempt that a remark of a later marking is about; null for the first that was marked. */
export function laterAttemptOf({ attempts }: AssignmentView, remark: Remark): number | null {
  const first = standing(attempts).find(({ marking }) => marking !== null);
  const own = attempts.find(({ attempt }) => attempt.id === remark.attemptId);
  if (first === undefined || own === undefined || own.attempt.number <= first.attempt.number) return null;
  return own.attempt.number;
}

function findSaidAgain({
  attempts,
  remarks,
  given,
  sayings,
  judgements,
}: AssignmentView): Map<string, Remark> {
  const order = new Map(attempts.map(({ attempt }) => [attempt.id as string, attempt.number]));
  const firstMarked = standing(attempts).find(({ marking }) => marking !== null);
  if (firstMarked === undefined) return new Map();
  const numberOf = ({ attemptId }: Remark) => order.get(attemptId) ?? 0;
  const asks = (remark: Remark) => {
    const stance = stanceOf(remark.id, { sayings, judgements });
    return stance !== 'praise' && stance !== 'note';
  };
  const earlier = remarks.filter((remark) => remark.attemptId === firstMarked.attempt.id);
  const later = remarks.filter(
    (remark) => numberOf(remark) > firstMarked.attempt.number && remark.text !== '' && asks(remark),
  );
  const found = comesBackTo(later, earlier, ({ id }) => answerWords(given.get(id)));
  return new Map(found.map(({ remark, earlier: one }) => [remark.id, one]));
}

/** What was changed for the remarks of a criterion: their words, and what the student gave as the answer. */
function changedIn(
  { remarks, given }: AssignmentView,
  again: ReadonlyMap<string, Remark>,
  isOfIt: (remark: Remark) => boolean,
): Changed[] {
  const byId = new Map(remarks.map((remark) => [remark.id as string, remark]));
  const againBy = new Map(
    [...again].map(([later, earlier]) => [earlier.id as string, byId.get(later) ?? null]),
  );
  return remarks.filter(isOfIt).flatMap((remark): Changed[] => {
    const after = answerWords(given.get(remark.id));
    const { regions = [], files = [] } = given.get(remark.id) ?? {};
    const shown = regions.length + files.length;
    const saidAgain = againBy.get(remark.id) ?? null;
    return after.length === 0 && shown === 0 && saidAgain === null
      ? []
      : [{ remark, before: quotedWords(remark) ?? '', after, shown, again: saidAgain }];
  });
}

/** For an activity by items the answers to the criterion's item, where they differ. */
function answersIn({ id }: Criterion, first: MarkedAttempt, last: MarkedAttempt): Changed[] {
  const [before, after] = [first, last].map(
    ({ attempt }) => Object.entries(attempt.items).find(([item]) => item === id)?.[1] ?? '',
  );
  return after === '' || after === before
    ? []
    : [{ remark: null, before, after: [after], shown: 0, again: null }];
}

function changeOf(before: DecimalString | null, after: DecimalString | null): Fraction | null {
  return before === null || after === null ? null : subtract(fromDecimal(after), fromDecimal(before));
}

/** A question in two takings of its quiz. */
export interface QuestionChange {
  /** What became of it. */
  readonly kind: 'gained' | 'still lost' | 'newly lost' | 'kept';
  readonly before: QuizQuestion;
  readonly after: QuizQuestion;
  readonly change: Fraction;
}

/** The questions that two takings have in common and that are marked in both, in the order of the quiz. */
export function questionsChanged(first: QuizResults, last: QuizResults): QuestionChange[] {
  return last.questions.flatMap((after): QuestionChange[] => {
    const before = first.questions.find(({ id }) => id === after.id);
    if (before === undefined || before.score === null || after.score === null) return [];
    const change = subtract(fromDecimal(after.score), fromDecimal(before.score));
    const isLost = lostIn(after).n > 0n;
    const wasLost = compare(lostIn(before), { n: 0n, d: 1n }) > 0;
    const kind =
      change.n > 0n ? 'gained' : change.n < 0n ? 'newly lost' : isLost && wasLost ? 'still lost' : 'kept';
    return [{ kind, before, after, change }];
  });
}

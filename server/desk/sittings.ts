import { randomUUID } from 'node:crypto';
import type { Assignment, Attempt } from '#core/model/facts.ts';
import { asId, AttemptId, instantOf } from '#core/model/ids.ts';
import type { DeskFolder } from './desk-folder.ts';
import { withFact, type DeskState } from './desk-state.ts';
import type { KeptQuestion, KeptQuiz, Sitting } from './quiz.ts';
import { assignmentIn, closingFor, countingAttempts, ownAttempts, ruleAgainst } from './record.ts';
import { receiptFor } from './take-attempt.ts';

type Begun =
  | { readonly kind: 'sitting'; readonly sitting: Sitting }
  | { readonly kind: 'refused'; readonly status: 404 | 409; readonly why: string };

/** The sitting of an assignment that is going on. */
export function openSitting({ sittings }: DeskState, assignmentId: string): Sitting | undefined {
  return sittings.find((one) => one.assignmentId === assignmentId && one.endedAt === null);
}

/** Begins a sitting within the rules, or goes on with the one that is open: two tabs have one. */
export function beginSitting(desk: DeskFolder, nowMs: number, assignmentId: string): Begun {
  endOverdue(desk, nowMs);
  const assignment = assignmentIn(desk.state, assignmentId);
  const quiz = quizOf(desk.state, assignmentId);
  if (assignment === undefined || quiz === undefined)
    return { kind: 'refused', status: 404, why: 'There is no such quiz at this course desk.' };
  const open = openSitting(desk.state, assignmentId);
  if (open !== undefined) return { kind: 'sitting', sitting: open };
  const sent = countingAttempts(desk.state, assignment).length;
  const barred =
    assignment.opensAt !== null && Date.parse(assignment.opensAt) > nowMs
      ? 'This quiz is not open yet.'
      : ruleAgainst(assignment, sent, nowMs);
  if (barred !== null) return { kind: 'refused', status: 409, why: barred };
  const closes = Date.parse(closingFor(assignment, sent) ?? instantOf(nowMs));
  const sitting: Sitting = {
    id: randomUUID(),
    assignmentId,
    begunAt: instantOf(nowMs),
    endsAt: instantOf(quiz.minutes === null ? closes : Math.min(closes, nowMs + quiz.minutes * 60_000)),
    endedAt: null,
    answers: {},
  };
  desk.update((state) => ({ ...state, sittings: [...state.sittings, sitting] }));
  return { kind: 'sitting', sitting };
}

export function quizOf(state: DeskState, assignmentId: string): KeptQuiz | undefined {
  return (state.quizzes as Readonly<Partial<Record<string, KeptQuiz>>>)[assignmentId];
}

/** Keeps an answer; what became of it. After the end of the sitting nothing is taken. */
export function answerInSitting(
  desk: DeskFolder,
  nowMs: number,
  sittingId: string,
  question: string,
  answer: readonly string[],
): 'kept' | 'over' {
  endOverdue(desk, nowMs);
  const sitting = desk.state.sittings.find(({ id }) => id === sittingId);
  if (sitting === undefined || sitting.endedAt !== null) return 'over';
  const answers = { ...sitting.answers, [question]: answer.map((one) => one.slice(0, 10_000)) };
  change(desk, sittingId, { answers });
  return 'kept';
}

function change(desk: DeskFolder, sittingId: string, to: Partial<Sitting>): void {
  desk.update((state) => ({
    ...state,
    sittings: state.sittings.map((one) => (one.id === sittingId ? { ...one, ...to } : one)),
  }));
}

/** Ends a sitting: it becomes an attempt, once. A sitting that ended before is left as it is. */
export function endSitting(desk: DeskFolder, atMs: number, sittingId: string): void {
  const sitting = desk.state.sittings.find(({ id }) => id === sittingId);
  const assignment = sitting && assignmentIn(desk.state, sitting.assignmentId);
  if (sitting === undefined || assignment === undefined || sitting.endedAt !== null) return;
  const attempt = attemptOf(desk.state, sitting, assignment, atMs);
  desk.update((state) =>
    withFact(
      {
        ...state,
        sittings: state.sittings.map((one) => (one.id === sittingId ? { ...one, endedAt: attempt.at } : one)),
      },
      { kind: 'attempt', value: attempt },
    ),
  );
}

/** Ends every sitting whose time is over, at that time; returns how many. */
export function endOverdue(desk: DeskFolder, nowMs: number): number {
  const over = desk.state.sittings.filter(
    ({ endedAt, endsAt }) => endedAt === null && Date.parse(endsAt) <= nowMs,
  );
  for (const { id, endsAt } of over) endSitting(desk, Date.parse(endsAt), id);
  return over.length;
}

function attemptOf(state: DeskState, sitting: Sitting, assignment: Assignment, atMs: number): Attempt {
  const number = ownAttempts(state, assignment).length + 1;
  return {
    id: attemptIdOf(sitting),
    assignmentId: assignment.id,
    number,
    at: instantOf(atMs),
    files: [],
    note: '',
    receipt: receiptFor(assignment, number, sitting.id, atMs, []),
    dueAt: null,
    outside: false,
    atKnown: true,
    post: null,
    items: {},
  };
}

/** The attempt that a sitting becomes. */
export function attemptIdOf({ id }: Sitting): Attempt['id'] {
  return asId(AttemptId, `sitting-${id}`);
}

/** What was answered, as a response of the question: an order is told by its choices. */
export function responseIn({ answers }: Sitting, { id, kind, choices }: KeptQuestion): string[] {
  const given = (answers as Readonly<Partial<Record<string, string[]>>>)[id] ?? [];
  if (kind !== 'order') return given.filter((one) => one.trim() !== '');
  const places = placesIn(given);
  return choices
    .map((choice) => choice.id)
    .filter((choice) => places.has(choice))
    .sort((x, y) => (places.get(x) ?? 0) - (places.get(y) ?? 0));
}

/** The place that was given to each choice, from 1. */
export function placesIn(given: readonly string[]): Map<string, number> {
  return new Map(
    given.flatMap((one): [string, number][] => {
      const [choice, place] = one.split(' ');
      return Number(place) > 0 ? [[choice, Number(place)]] : [];
    }),
  );
}

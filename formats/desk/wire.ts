import * as v from 'valibot';
import {
  Assignment,
  Attempt,
  Author,
  Category,
  Course,
  Fact,
  FileFact,
  Marking,
  Withdrawal,
} from '#core/model/facts.ts';
import { Instant } from '#core/model/ids.ts';
import {
  decimalOf,
  numberOf,
  OrAcademicSession,
  OrCategory,
  OrClass,
  OrLineItem,
  OrResult,
} from '../oneroster/records.ts';

/**
 * The course desk's record as it goes over the wire (docs/course-desk.md): what OneRoster 1.2 has a record for is that
 * record; what it has none for (`rules`, `words`) stands beside it under the same sourcedId.
 */

const WireCourse = v.object({
  academicSession: OrAcademicSession,
  class: OrClass,
  categories: v.array(OrCategory),
  rules: v.object({
    scheme: Course.entries.scheme,
    instructor: Author,
    handingIn: Course.entries.handingIn,
    people: v.optional(v.array(Author), []),
    zone: Course.entries.zone,
    termEndsAt: v.nullable(Instant),
    categories: v.record(v.string(), v.pick(Category, ['drop', 'extraCredit'])),
    policy: Course.entries.policy,
    late: Course.entries.late,
    scales: Course.entries.scales,
    gradeScaleId: Course.entries.gradeScaleId,
  }),
});

const WireAssignment = v.object({
  lineItem: OrLineItem,
  rules: v.object({
    counts: Assignment.entries.counts,
    closesAt: Assignment.entries.closesAt,
    extendedTo: Assignment.entries.extendedTo,
    attemptsAllowed: Assignment.entries.attemptsAllowed,
    policy: Assignment.entries.policy,
    late: Assignment.entries.late,
    rubricId: Assignment.entries.rubricId,
    extraCredit: Assignment.entries.extraCredit,
    excused: Assignment.entries.excused,
    scaleId: Assignment.entries.scaleId,
    group: Assignment.entries.group,
    kind: Assignment.entries.kind,
    draftOf: Assignment.entries.draftOf,
    withdrawableUntil: Assignment.entries.withdrawableUntil,
    requirements: Assignment.entries.requirements,
    materials: Assignment.entries.materials,
  }),
});

const WireMarking = v.object({
  result: OrResult,
  words: v.object({
    attemptId: Marking.entries.attemptId,
    at: Instant,
    marker: Author,
    groupScore: Marking.entries.groupScore,
    result: Marking.entries.result,
    criteria: Marking.entries.criteria,
    files: v.array(FileFact),
  }),
});

const WireFact = v.variant('kind', [
  v.object({ seq: v.number(), kind: v.literal('course'), value: WireCourse }),
  v.object({ seq: v.number(), kind: v.literal('assignment'), value: WireAssignment }),
  v.object({ seq: v.number(), kind: v.literal('attempt'), value: Attempt }),
  v.object({ seq: v.number(), kind: v.literal('marking'), value: WireMarking }),
  v.object({ seq: v.number(), kind: v.literal('withdrawal'), value: Withdrawal }),
]);
type WireFact = v.InferOutput<typeof WireFact>;

/** A page of the desk's record; its facts are read one by one, so that one that can't be read spoils no other. */
export const WirePage = v.object({ now: Instant, cursor: v.number(), facts: v.array(v.unknown()) });
export type WirePage = v.InferOutput<typeof WirePage>;

/** A fact that could not be read: which one, and what is wrong where. */
export interface UnreadFact {
  readonly seq: number | null;
  readonly kind: string;
  readonly problem: string;
}

function dayOf(instant: Instant): string {
  return instant.slice(0, 10);
}

function wireCourse(course: Course): v.InferOutput<typeof WireCourse> {
  const { id, code, title, term, termEndsAt, scheme, categories, instructor, people, zone } = course;
  const { policy, late, scales, gradeScaleId, handingIn } = course;
  const end = termEndsAt === null ? '2099-12-31' : dayOf(termEndsAt);
  const session = `${term.toLowerCase().replaceAll(/\W+/g, '-')}-${end.slice(0, 4)}`;
  return {
    academicSession: {
      sourcedId: session,
      status: 'active',
      title: term,
      type: 'term',
      // OneRoster wants both ends; a term's beginning is used nowhere.
      startDate: `${end.slice(0, 4)}-01-01`,
      endDate: end,
      schoolYear: end.slice(0, 4),
    },
    class: {
      sourcedId: id,
      status: 'active',
      title,
      classCode: code,
      classType: 'scheduled',
      terms: [{ sourcedId: session }],
    },
    categories: categories.map((category) => ({
      sourcedId: category.id,
      status: 'active',
      title: category.title,
      ...(category.weight !== null && { weight: numberOf(category.weight) }),
    })),
    rules: {
      scheme,
      instructor,
      ...(handingIn !== undefined && { handingIn }),
      people,
      zone,
      termEndsAt,
      categories: Object.fromEntries(
        categories.map(({ id: categoryId, drop, extraCredit }) => [categoryId, { drop, extraCredit }]),
      ),
      policy,
      late,
      scales,
      gradeScaleId,
    },
  };
}

function courseOf({ academicSession, class: given, categories, rules }: v.InferOutput<typeof WireCourse>) {
  const { scheme, instructor, handingIn, people, zone, termEndsAt, policy, late, scales, gradeScaleId } =
    rules;
  return {
    id: given.sourcedId,
    code: given.classCode,
    title: given.title,
    term: academicSession.title,
    termEndsAt,
    scheme,
    categories: categories.map(({ sourcedId, title, weight }) => ({
      id: sourcedId,
      title,
      weight: decimalOf(weight),
      ...(rules.categories[sourcedId] ?? { drop: 0, extraCredit: false }),
    })),
    instructor,
    ...(handingIn !== undefined && { handingIn }),
    people,
    zone,
    policy,
    late,
    scales,
    gradeScaleId,
  };
}

function wireAssignment(assignment: Assignment): v.InferOutput<typeof WireAssignment> {
  const { id, courseId, title, brief, opensAt, dueAt, categoryId, possible, ...rules } = assignment;
  return {
    lineItem: {
      sourcedId: id,
      status: 'active',
      title,
      description: brief,
      assignDate: opensAt,
      dueDate: dueAt,
      class: { sourcedId: courseId ?? 'none' },
      category: categoryId === null ? null : { sourcedId: categoryId },
      resultValueMin: possible === null ? null : 0,
      resultValueMax: possible === null ? null : numberOf(possible),
    },
    rules,
  };
}

function assignmentOf({ lineItem, rules }: v.InferOutput<typeof WireAssignment>) {
  return {
    ...rules,
    id: lineItem.sourcedId,
    courseId: lineItem.class.sourcedId,
    title: lineItem.title,
    brief: lineItem.description,
    opensAt: lineItem.assignDate ?? null,
    dueAt: lineItem.dueDate ?? null,
    categoryId: lineItem.category?.sourcedId ?? null,
    possible: decimalOf(lineItem.resultValueMax),
  };
}

function wireMarking(marking: Marking, studentId: string): v.InferOutput<typeof WireMarking> {
  const { id, attemptId, assignmentId, at, marker, score, overall, criteria, files, complete } = marking;
  const { groupScore, result } = marking;
  return {
    result: {
      sourcedId: id,
      status: 'active',
      lineItem: { sourcedId: assignmentId },
      student: { sourcedId: studentId },
      scoreStatus: complete ? 'fully graded' : 'partially graded',
      score: score === null ? null : numberOf(score),
      scoreDate: dayOf(at),
      comment: overall,
    },
    words: { attemptId, at, marker, groupScore, result, criteria, files },
  };
}

function markingOf({ result, words }: v.InferOutput<typeof WireMarking>) {
  return {
    ...words,
    id: result.sourcedId,
    assignmentId: result.lineItem.sourcedId,
    score: decimalOf(result.score),
    overall: result.comment,
    complete: result.scoreStatus !== 'partially graded',
  };
}

/** A fact of the desk as it goes over the wire. */
export function wireOfFact(fact: Fact, studentId: string): WireFact {
  const { seq } = fact;
  switch (fact.kind) {
    case 'course':
      return { seq, kind: fact.kind, value: wireCourse(fact.value) };
    case 'assignment':
      return { seq, kind: fact.kind, value: wireAssignment(fact.value) };
    case 'marking':
      return { seq, kind: fact.kind, value: wireMarking(fact.value, studentId) };
    case 'attempt':
      return { seq, kind: fact.kind, value: fact.value };
    case 'withdrawal':
      return { seq, kind: fact.kind, value: fact.value };
  }
}

function modelOf(wire: WireFact): unknown {
  switch (wire.kind) {
    case 'course':
      return courseOf(wire.value);
    case 'assignment':
      return assignmentOf(wire.value);
    case 'marking':
      return markingOf(wire.value);
    case 'attempt':
    case 'withdrawal':
      return wire.value;
  }
}

const Named = v.object({ seq: v.fallback(v.nullable(v.number()), null), kind: v.fallback(v.string(), '') });

function unread(raw: unknown, [issue]: readonly [v.BaseIssue<unknown>, ...unknown[]]): UnreadFact {
  const named = v.safeParse(Named, raw);
  const { seq, kind } = named.success ? named.output : { seq: null, kind: '' };
  return { seq, kind, problem: [v.getDotPath(issue), issue.message].filter(Boolean).join(': ') };
}

/** Reads one fact from the wire, or says what of it can't be read. */
export function factOfWire(raw: unknown): { readonly fact: Fact } | { readonly unread: UnreadFact } {
  const wire = v.safeParse(WireFact, raw);
  if (!wire.success) return { unread: unread(raw, wire.issues) };
  let value: unknown;
  try {
    value = modelOf(wire.output);
  } catch (error) {
    if (!(error instanceof v.ValiError)) throw error;
    return { unread: { seq: wire.output.seq, kind: wire.output.kind, problem: error.message } };
  }
  const { seq, kind } = wire.output;
  const fact = v.safeParse(Fact, { seq, kind, value });
  return fact.success ? { fact: fact.output } : { unread: unread(raw, fact.issues) };
}

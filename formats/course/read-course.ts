import * as v from 'valibot';
import type { AttemptPolicy } from '#core/model/facts.ts';
import type { DecimalString } from '#core/model/ids.ts';
import type { CourseGrade, GradedCourse } from '#core/scores/course-grade.ts';
import { fromDecimal, toNumber, ZERO, type Fraction } from '#core/scores/fraction.ts';

/** A course as JSON, to be computed without the application (docs/command-line.md), and what it comes to. */

/** What is wrong with a course, where: `assignments[2].late.pointsPerDay`. */
export class UnreadableCourse extends Error {}

const DECIMAL = /^-?\d+(?:\.\d+)?$/;

/** A number as its digits, without an exponent: what was written is computed, not its nearest float. */
function plainDigits(text: string): string {
  const match = /^(-?)(\d+)(?:\.(\d+))?e([+-]?\d+)$/i.exec(text);
  if (match === null) return text;
  const [, sign, whole, part = '', exponent] = match;
  const digits = whole + part;
  const point = whole.length + Number(exponent);
  if (point <= 0) return `${sign}0.${'0'.repeat(-point)}${digits}`;
  return point >= digits.length
    ? `${sign}${digits}${'0'.repeat(point - digits.length)}`
    : `${sign}${digits.slice(0, point)}.${digits.slice(point)}`;
}

const decimal = v.pipe(
  v.union(
    [v.pipe(v.number(), v.finite()), v.pipe(v.string(), v.regex(DECIMAL, 'a number is wanted'))],
    'a number is wanted',
  ),
  v.transform((given) => plainDigits(String(given)) as DecimalString),
);
const fraction = v.pipe(decimal, v.transform(fromDecimal));

const OFFSET = /^\d{4}-\d\d-\d\dT\d\d:\d\d(?::\d\d(?:\.\d+)?)?(?:Z|[+-]\d\d:?\d\d)$/;
const time = v.pipe(
  v.string('a time is wanted'),
  v.regex(OFFSET, 'a time in ISO 8601 with its offset is wanted, such as 2026-11-02T12:00:00+00:00'),
  v.transform((text) => Date.parse(text)),
  v.check((ms) => !Number.isNaN(ms), 'there is no such time'),
);
const id = v.string('an id is wanted');

const kinds = ['latest', 'best', 'mean', 'capped', 'recover'] as const;
const Policy = v.pipe(
  v.object({ kind: v.picklist(kinds, `one of ${kinds.join(', ')} is wanted`), value: v.nullish(decimal) }),
  v.check(
    ({ kind, value }) => (kind !== 'capped' && kind !== 'recover') || value != null,
    '“capped” and “recover” want a value',
  ),
  v.transform(({ kind, value }): AttemptPolicy => {
    if (kind === 'capped') return { kind, cap: value ?? ('1' as DecimalString) };
    return kind === 'recover' ? { kind, share: value ?? ('1' as DecimalString) } : { kind };
  }),
);

const Late = v.object({
  graceHours: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0)), 0),
  pointsPerDay: decimal,
  maxPoints: v.nullish(decimal),
});

const CourseGiven = v.object({
  scheme: v.picklist(['weighted', 'points'], '“weighted” or “points” is wanted'),
  categories: v.optional(
    v.array(
      v.object({
        id,
        weight: v.nullish(fraction),
        drop: v.nullish(v.pipe(v.number(), v.integer(), v.minValue(0))),
        extraCredit: v.nullish(v.boolean()),
      }),
    ),
    [],
  ),
  assignments: v.optional(
    v.array(
      v.object({
        id,
        category: v.nullish(id),
        possible: v.nullish(fraction),
        due: v.nullish(time),
        extraCredit: v.nullish(v.boolean()),
        excused: v.nullish(v.boolean()),
        policy: v.nullish(Policy),
        late: v.nullish(Late),
        attempts: v.nullish(
          v.array(v.object({ at: v.nullish(time), score: v.nullish(fraction), due: v.nullish(time) })),
        ),
      }),
    ),
    [],
  ),
});
type CourseGiven = v.InferOutput<typeof CourseGiven>;

/** Categories nobody can have named so; what stands in none counts in a course of points and not in a weighted one. */
const NO_CATEGORY = '\u0000none';

/** Reads a course from JSON. Throws UnreadableCourse with one sentence on what is wrong where. */
export function readCourse(json: string): GradedCourse {
  let raw: unknown;
  try {
    raw = JSON.parse(json);
  } catch (error) {
    throw new UnreadableCourse(`it is not JSON: ${error instanceof Error ? error.message : String(error)}`);
  }
  const parsed = v.safeParse(CourseGiven, raw);
  if (!parsed.success) {
    const [issue] = parsed.issues;
    const where = v.getDotPath(issue)?.replaceAll(/\.(\d+)/g, '[$1]') ?? 'the whole';
    const what = issue.received === 'undefined' ? 'it is missing' : issue.message;
    throw new UnreadableCourse(`${where}: ${what}`);
  }
  const given = parsed.output;
  refuseTwice('category', given.categories);
  refuseTwice('assignment', given.assignments);
  return {
    scheme: given.scheme,
    categories: [
      ...given.categories.map((category) => ({
        id: category.id,
        weight: category.weight ?? ZERO,
        drop: category.drop ?? 0,
        extraCredit: category.extraCredit === true,
      })),
      { id: NO_CATEGORY, weight: ZERO, drop: 0, extraCredit: false },
    ],
    assignments: given.assignments.map((assignment, i) => gradedAssignment(assignment, i, given)),
  };
}

function refuseTwice(what: string, list: readonly { readonly id: string }[]): void {
  const seen = new Set<string>();
  for (const { id: each } of list) {
    if (seen.has(each)) throw new UnreadableCourse(`two of its ${what} ids are “${each}”`);
    seen.add(each);
  }
}

function gradedAssignment(
  given: CourseGiven['assignments'][number],
  index: number,
  { categories }: CourseGiven,
): GradedCourse['assignments'][number] {
  const { category, attempts, late, due } = given;
  if (category != null && categories.every(({ id: each }) => each !== category))
    throw new UnreadableCourse(`assignments[${index}].category: there is no category “${category}”`);
  let before = 0;
  return {
    id: given.id,
    categoryId: category ?? NO_CATEGORY,
    possible: given.possible ?? ZERO,
    dueMs: due ?? null,
    extraCredit: given.extraCredit === true,
    excused: given.excused === true,
    policy: given.policy ?? { kind: 'latest' },
    late: late == null ? null : { ...late, maxPoints: late.maxPoints ?? null },
    attempts: (attempts ?? []).map(({ at, score, due: own }) => {
      // One without a time stays where it stands, and can't be late.
      before = at ?? before;
      return { atMs: before, score: score ?? null, dueMs: at == null ? null : (own ?? due ?? null) };
    }),
  };
}

/** What a course comes to, as `juncture grade` prints it: ratios of 1, scores in points. */
export interface CourseOut {
  readonly grade: number | null;
  readonly categories: readonly {
    readonly id: string;
    readonly ratio: number | null;
    readonly earned: number;
    readonly possible: number;
    readonly dropped: readonly string[];
  }[];
  readonly assignments: readonly { readonly id: string; readonly score: number | null }[];
}

/** What a course comes to, as numbers: ratios unrounded, 1 = 100 %. */
export function courseOut({ grade, categories, scoreByAssignment }: CourseGrade): CourseOut {
  const orNull = (x: Fraction | null) => (x === null ? null : toNumber(x));
  return {
    grade: orNull(grade),
    categories: categories
      .filter((category) => category.id !== NO_CATEGORY)
      .map((category) => ({
        id: category.id,
        ratio: orNull(category.ratio),
        earned: toNumber(category.earned),
        possible: toNumber(category.possible),
        dropped: category.dropped,
      })),
    assignments: [...scoreByAssignment].map(([each, score]) => ({ id: each, score: orNull(score) })),
  };
}

/** What of a course is odd and used as it is: weights that don't make 100, scores outside 0 and the points possible. */
export function odditiesOf({ scheme, categories, assignments }: GradedCourse): string[] {
  const weights = categories.flatMap(({ weight, extraCredit }) => (extraCredit ? [] : [toNumber(weight)]));
  const sum = Number(weights.reduce((x, y) => x + y, 0).toFixed(6));
  const counted = (id: string) =>
    assignments.filter((one) => one.categoryId === id && !one.excused && !one.extraCredit);
  return [
    ...(scheme === 'weighted' && sum !== 100
      ? [`the weights add up to ${sum}, not 100; they are used as they are`]
      : []),
    ...categories.flatMap(({ id: each, drop }) => {
      const marked = counted(each).filter(({ attempts }) =>
        attempts.some(({ score }) => score !== null),
      ).length;
      return drop > 0 && marked > 0 && drop >= marked
        ? [`“${each}” drops ${drop} of ${marked} marked; the best one stays`]
        : [];
    }),
    ...assignments.flatMap((one) =>
      one.attempts.flatMap(({ score }, i) => {
        const which = `attempt ${i + 1} of “${one.id}”`;
        if (score === null) return [];
        if (score.n < 0n) return [`${which} has a score below 0; it is used as it is`];
        return toNumber(score) > toNumber(one.possible)
          ? [`${which} has a score above the points possible; it is used as it is`]
          : [];
      }),
    ),
  ];
}

import * as v from 'valibot';
import { DecimalString, Instant } from '#core/model/ids.ts';

/**
 * Records of 1EdTech OneRoster 1.2 (rostering and gradebook services), as far as Juncture uses them. Unknown members are
 * left alone.
 */

const sourcedId = v.pipe(v.string(), v.minLength(1), v.maxLength(200));
const status = v.optional(v.picklist(['active', 'tobedeleted']), 'active');
const Reference = v.object({ sourcedId });
const date = v.pipe(v.string(), v.regex(/^\d{4}-\d\d-\d\d$/));

/** OneRoster 1.2: a term. */
export const OrAcademicSession = v.object({
  sourcedId,
  status,
  title: v.string(),
  type: v.picklist(['gradingPeriod', 'semester', 'schoolYear', 'term']),
  startDate: date,
  endDate: date,
  schoolYear: v.string(),
});
export type OrAcademicSession = v.InferOutput<typeof OrAcademicSession>;

/** OneRoster 1.2: a class, which is a course here. */
export const OrClass = v.object({
  sourcedId,
  status,
  title: v.string(),
  classCode: v.optional(v.string(), ''),
  classType: v.optional(v.picklist(['homeroom', 'scheduled']), 'scheduled'),
  terms: v.array(Reference),
});
export type OrClass = v.InferOutput<typeof OrClass>;

/** OneRoster 1.2: a category of line items. */
export const OrCategory = v.object({
  sourcedId,
  status,
  title: v.string(),
  weight: v.optional(v.number()),
});
export type OrCategory = v.InferOutput<typeof OrCategory>;

/** OneRoster 1.2: what is marked, an assignment here. Values are points. */
export const OrLineItem = v.object({
  sourcedId,
  status,
  title: v.string(),
  description: v.optional(v.string(), ''),
  assignDate: v.nullish(Instant),
  dueDate: v.nullish(Instant),
  class: Reference,
  category: v.nullish(Reference),
  resultValueMin: v.nullish(v.number()),
  resultValueMax: v.nullish(v.number()),
});
export type OrLineItem = v.InferOutput<typeof OrLineItem>;

/** OneRoster 1.2: what a student was given for a line item. */
export const OrResult = v.object({
  sourcedId,
  status,
  lineItem: Reference,
  student: Reference,
  scoreStatus: v.picklist(['exempt', 'fully graded', 'not submitted', 'partially graded', 'submitted']),
  score: v.nullish(v.number()),
  scoreDate: v.string(),
  comment: v.optional(v.string(), ''),
});
export type OrResult = v.InferOutput<typeof OrResult>;

/** Points as a JSON number. */
export function numberOf(points: DecimalString): number {
  return Number(points);
}
/**
 * Points from a JSON number; null for none.
 * @throws ValiError for a number that points can't be
 */
export function decimalOf(number: number | null | undefined): DecimalString | null {
  return number === null || number === undefined ? null : v.parse(DecimalString, String(number));
}

import * as v from 'valibot';

/** The longest an id may be, in UTF-16 units: what a school sends as one is longer nowhere. */
export const LONGEST_ID = 200;

/** A string that stands for one kind of thing and can't be taken for another. */
function idSchema<const Name extends string>(name: Name) {
  return v.pipe(v.string(), v.minLength(1), v.maxLength(LONGEST_ID), v.brand(name));
}

/** Of a course: the desk's own, or made here (own-ids.ts), as with the others. */
export const CourseId = idSchema('CourseId');
export type CourseId = v.InferOutput<typeof CourseId>;
/** Of a category, unique in its course. */
export const CategoryId = idSchema('CategoryId');
export type CategoryId = v.InferOutput<typeof CategoryId>;
/** Of an assignment. */
export const AssignmentId = idSchema('AssignmentId');
export type AssignmentId = v.InferOutput<typeof AssignmentId>;
/** Of a rubric. */
export const RubricId = idSchema('RubricId');
export type RubricId = v.InferOutput<typeof RubricId>;
/** Of a criterion, unique in its rubric. */
export const CriterionId = idSchema('CriterionId');
export type CriterionId = v.InferOutput<typeof CriterionId>;
/** Of an attempt. */
export const AttemptId = idSchema('AttemptId');
export type AttemptId = v.InferOutput<typeof AttemptId>;
/** Of a marking. */
export const MarkingId = idSchema('MarkingId');
export type MarkingId = v.InferOutput<typeof MarkingId>;
/** Of a remark: made of where it was read from, so that reading the same file again finds the same remark. */
export const RemarkId = idSchema('RemarkId');
export type RemarkId = v.InferOutput<typeof RemarkId>;
/** Of a part of a remark that the student decides about by itself; used once and never again. */
export const PartId = idSchema('PartId');
export type PartId = v.InferOutput<typeof PartId>;
/** Of a task of the plan. */
export const TaskId = idSchema('TaskId');
export type TaskId = v.InferOutput<typeof TaskId>;
/** Of something to be asked. */
export const QueryId = idSchema('QueryId');
export type QueryId = v.InferOutput<typeof QueryId>;
/** Of a draft. */
export const DraftId = idSchema('DraftId');
export type DraftId = v.InferOutput<typeof DraftId>;
/** Of a kept version of a draft. */
export const VersionId = idSchema('VersionId');
export type VersionId = v.InferOutput<typeof VersionId>;
/** Of what was made of a promise. */
export const PromiseId = idSchema('PromiseId');
export type PromiseId = v.InferOutput<typeof PromiseId>;
/** Of one sending of a draft; the key that keeps it from being taken twice. */
export const SubmissionId = idSchema('SubmissionId');
export type SubmissionId = v.InferOutput<typeof SubmissionId>;

/** The SHA-256 of a file's bytes, 64 lower-case hexadecimal digits. */
export const FileHash = v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/), v.brand('FileHash'));
export type FileHash = v.InferOutput<typeof FileHash>;

/** A moment in UTC, ISO 8601 with milliseconds and Z. */
export const Instant = v.pipe(
  v.string(),
  v.regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/),
  v.brand('Instant'),
);
export type Instant = v.InferOutput<typeof Instant>;

/** Points as the school wrote them: digits, perhaps a decimal point; never a float. */
export const DecimalString = v.pipe(
  v.string(),
  v.regex(/^-?\d{1,12}(\.\d{1,6})?$/),
  v.brand('DecimalString'),
);
export type DecimalString = v.InferOutput<typeof DecimalString>;

/** A number as it is typed, with a point or a decimal comma; null for anything else. */
export function decimalIn(text: string): DecimalString | null {
  const parsed = v.safeParse(DecimalString, text.trim().replace(',', '.'));
  return parsed.success ? parsed.output : null;
}

/** The moment `epochMs` milliseconds after 1970 began, UTC. */
export function instantOf(epochMs: number): Instant {
  return new Date(epochMs).toISOString() as Instant;
}

/** Makes an id of the wanted kind from a text; throws on one that can't be an id. */
export function asId<Schema extends v.GenericSchema<string, string>>(
  schema: Schema,
  text: string,
): v.InferOutput<Schema> {
  return v.parse(schema, text);
}

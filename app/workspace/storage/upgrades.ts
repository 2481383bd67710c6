import * as v from 'valibot';
import { wordingMark } from '#core/reading/need.ts';
import { Remark } from '#core/model/remark.ts';
import { packText, textInRecord, withoutContent, type Body } from './bodies.ts';
import { form6 } from './forms/form-6.ts';
import type { StoreName } from './records.ts';

/** Stored forms of earlier versions, brought up to date; used for the database and for saved workspaces alike. */

export type RecordUpgrade = (store: StoreName, key: string, record: unknown) => unknown;

interface Row {
  readonly store: StoreName;
  readonly key: string;
  readonly record: unknown;
}

const OldTarget = v.looseObject({ kind: v.string() });
const OldRemark = v.looseObject({
  text: v.string(),
  target: OldTarget,
  criterionId: v.nullable(v.string()),
  fileHash: v.nullable(v.string()),
});
const OldReading = v.looseObject({ of: v.string() });
const OldFile = v.looseObject({ hash: v.string(), origin: v.string() });
const OldMarking = v.looseObject({ files: v.array(v.looseObject({ role: v.string(), hash: v.string() })) });

/** The mark that version 1 made of a remark's wording, to tell whether a reading was of it. */
function oldWordingMark({ text, target, criterionId }: v.InferOutput<typeof OldRemark>): string {
  const said = JSON.stringify([text, target, criterionId]);
  let hash = 0x811c9dc5;
  for (let i = 0; i < said.length; i++) hash = Math.imul(hash ^ said.charCodeAt(i), 0x01000193);
  return (hash >>> 0).toString(16).padStart(8, '0');
}

function remarkFrom1(record: unknown): unknown {
  const parsed = v.safeParse(OldRemark, record);
  if (!parsed.success) return record;
  const { target, ...rest } = parsed.output;
  return {
    ...rest,
    targets: [target.kind === 'point' ? { ...target, shape: [], drawn: true } : target],
    replies: [],
    state: null,
    change: null,
    order: 0,
    paperHash: rest.fileHash,
  };
}

/** Version 1 to 2. `rows` are all records, since what one becomes may hang on another. */
export function upgradeFrom1(rows: readonly Row[]): RecordUpgrade {
  const marks = new Map<string, { old: string; anew: string }>();
  const marked = new Set<string>();
  for (const { store, key, record } of rows) {
    if (store === 'remarks') {
      const old = v.safeParse(OldRemark, record);
      const anew = v.safeParse(Remark, remarkFrom1(record));
      if (old.success && anew.success)
        marks.set(key, { old: oldWordingMark(old.output), anew: wordingMark(anew.output) });
    }
    const marking = store === 'markings' ? v.safeParse(OldMarking, record) : null;
    if (marking?.success === true)
      for (const file of marking.output.files) if (file.role === 'marked') marked.add(file.hash);
  }
  return (store, key, record) => {
    if (store === 'remarks') return remarkFrom1(record);
    if (store === 'readings') {
      const reading = v.safeParse(OldReading, record);
      const mark = marks.get(key);
      if (!reading.success || mark === undefined || reading.output.of !== mark.old) return record;
      return { ...reading.output, of: mark.anew };
    }
    if (store !== 'files') return record;
    const file = v.safeParse(OldFile, record);
    if (!file.success) return record;
    const { hash, origin } = file.output;
    const role = marked.has(hash) ? 'marked' : origin === 'written' ? 'sent' : 'version';
    return { ...file.output, role, aboutHash: null };
  };
}

const OldAnnounced = v.looseObject({
  announced: v.object({ passage: v.number() }),
  files: v.array(v.looseObject({ role: v.string() })),
});

/** How many remarks a marking announces stands with the file that holds them now. */
function markingFrom2(record: unknown): unknown {
  const parsed = v.safeParse(OldAnnounced, record);
  if (!parsed.success) return record;
  const { announced, files, ...rest } = parsed.output;
  const holder = files.findIndex(({ role }) => role === 'marked');
  return {
    ...rest,
    files: files.map((file, i) => (i === holder && announced.passage > 0 ? { ...file, announced } : file)),
  };
}

/** Version 3, 4 or 5 to 6: what they did not tell yet is put in as not known. */
export function upgradeTo6(store: StoreName, _key: string, record: unknown): unknown {
  const parsed = v.safeParse(form6[store], record);
  return parsed.success ? parsed.output : record;
}

/** Version 2 to 6. */
export function upgradeFrom2(store: StoreName, key: string, record: unknown): unknown {
  return upgradeTo6(store, key, store === 'markings' ? markingFrom2(record) : record);
}

const AttemptOf6 = v.looseObject({
  id: v.string(),
  assignmentId: v.string(),
  receipt: v.unknown(),
  outside: v.boolean(),
});

/** Version 6 to 7: of an attempt that was made for a file which was dropped, nobody knows when it was handed in. */
export function upgradeFrom6(store: StoreName, _key: string, record: unknown): unknown {
  if (store !== 'attempts') return record;
  const attempt = v.safeParse(AttemptOf6, record);
  if (!attempt.success) return record;
  const { id, assignmentId, receipt, outside } = attempt.output;
  const wasDropped = id === `${assignmentId}/attempt-1` && receipt === null && !outside;
  return { ...attempt.output, atKnown: !wasDropped };
}

/** Documents that stood in records, by their JSON, as they are stored since version 8. */
export type MovedBodies = ReadonlyMap<string, Body>;

/** The documents in records of version 7 or before. */
export async function packedIn(
  records: readonly { readonly store: string; readonly record: unknown }[],
): Promise<MovedBodies> {
  const texts = new Set(records.flatMap(({ store, record }) => textInRecord(store, record)));
  return new Map(await Promise.all([...texts].map(async (text) => [text, await packText(text)] as const)));
}

/**
 * Version 7 to 8.
 * @throws Error where a document is not among those that were packed: another tab wrote it meanwhile
 */
export function upgradeFrom7(moved: MovedBodies): RecordUpgrade {
  return (store, _key, record) =>
    withoutContent(store, record, (text) => {
      const body = moved.get(text);
      if (body === undefined) throw new Error('a document came while the storage was brought up to date');
      return body.hash;
    });
}

const AssignmentOf8 = v.looseObject({ id: v.string(), draftOf: v.nullable(v.string()) });
const OwnedOf8 = v.looseObject({ assignmentId: v.string() });
const BodyOf8 = v.looseObject({ bodyHash: v.string() });
const NamedOf8 = v.object({ name: v.string(), hash: v.string() });
const SubmissionOf8 = v.looseObject({ paper: NamedOf8, response: NamedOf8 });
const FileOf8 = v.looseObject({ hash: v.string(), size: v.number() });

/** The final that each draft stage leads to, where it is among the records. */
export function finalsOf8(rows: readonly Row[]): ReadonlyMap<string, string> {
  const assignments = rows.flatMap(({ store, record }) => {
    const parsed = v.safeParse(AssignmentOf8, record);
    return store === 'assignments' && parsed.success ? [parsed.output] : [];
  });
  const known = new Set(assignments.map(({ id }) => id));
  return new Map(
    assignments.flatMap(({ id, draftOf }) =>
      draftOf !== null && known.has(draftOf) ? [[id, draftOf] as const] : [],
    ),
  );
}

/**
 * Version 8 to 9: work has a kind; tasks of a draft stage are its final's; a draft may be files, a post or answers to items,
 * and what is sent is a list of files.
 */
export function upgradeFrom8(rows: readonly Row[]): RecordUpgrade {
  const finals = finalsOf8(rows);
  const sizes = new Map(
    rows.flatMap(({ store, record }) => {
      const file = v.safeParse(FileOf8, record);
      return store === 'files' && file.success ? [[file.output.hash, file.output.size] as const] : [];
    }),
  );
  const byStore: Partial<Record<StoreName, (record: unknown) => unknown>> = {
    assignments: upgrading(AssignmentOf8, (assignment) => ({ ...assignment, kind: null })),
    tasks: upgrading(OwnedOf8, ({ assignmentId, ...task }) => ({
      ...task,
      assignmentId: finals.get(assignmentId) ?? assignmentId,
    })),
    attempts: upgrading(OwnedOf8, (attempt) => ({ ...attempt, post: null, items: {} })),
    drafts: upgrading(BodyOf8, (draft) => ({ ...draft, files: [], post: null, items: {}, note: '' })),
    versions: upgrading(BodyOf8, (version) => ({ ...version, files: [], post: null, items: {} })),
    submissions: upgrading(SubmissionOf8, ({ paper, response, ...submission }) => ({
      ...submission,
      kind: 'paper',
      files: [fileOf('paper', paper, sizes), fileOf('response', response, sizes)],
      post: null,
      items: {},
    })),
  };
  return (store, _key, record) => byStore[store]?.(record) ?? record;
}

const TaskOf9 = v.looseObject({ remarkIds: v.array(v.string()) });
const QueryOf9 = v.looseObject({ remarkId: v.nullable(v.string()) });

/** Version 9 to 10: tasks and questions are about remarks or parts of them; what came before was about whole ones. */
export function upgradeFrom9(store: StoreName, _key: string, record: unknown): unknown {
  const whole = (remarkId: string) => ({ remarkId, partId: null });
  if (store === 'tasks')
    return upgrading(TaskOf9, ({ remarkIds, ...task }) => ({ ...task, about: remarkIds.map(whole) }))(record);
  if (store === 'queries')
    return upgrading(QueryOf9, ({ remarkId, ...query }) => ({
      ...query,
      about: remarkId === null ? null : whole(remarkId),
    }))(record);
  return record;
}

const AnswerOf10 = v.looseObject({ words: v.string(), regions: v.array(v.unknown()) });
const MadeOf10 = v.looseObject({ bodyHash: v.nullable(v.string()) });

/** Version 10 to 11: answers may be places in a text and files, and be about a part; a draft may be a file as it is. */
export function upgradeFrom10(store: StoreName, _key: string, record: unknown): unknown {
  if (store === 'answers')
    return upgrading(AnswerOf10, (answer) => ({ ...answer, partId: null, places: [], files: [] }))(record);
  if (store === 'drafts') return upgrading(MadeOf10, (draft) => ({ ...draft, paperFile: null }))(record);
  if (store === 'versions') return upgrading(MadeOf10, (version) => ({ ...version, name: '' }))(record);
  return record;
}

const TaskOf11 = v.looseObject({ minutes: v.number() });

const JudgementOf11 = v.looseObject({ remarkId: v.string() });
const QueryOf11 = v.looseObject({ text: v.string() });

/** Version 11 to 12: tasks may need others first, be in the plan or out of it by hand, and have steps; questions have answers, remarks other places. */
export function upgradeFrom11(store: StoreName, _key: string, record: unknown): unknown {
  if (store === 'queries') return upgrading(QueryOf11, (query) => ({ ...query, answer: '' }))(record);
  if (store === 'judgements')
    return upgrading(JudgementOf11, (judgement) => ({ ...judgement, elsewhere: [] }))(record);
  if (store !== 'tasks') return record;
  return upgrading(TaskOf11, (task) => ({ ...task, needs: [], pin: null, steps: [] }))(record);
}

/** What becomes of a record that is as its version had it; any other stays as it is. */
function upgrading<Old>(
  form: v.GenericSchema<unknown, Old>,
  how: (old: Old) => unknown,
): (record: unknown) => unknown {
  return (record) => {
    const parsed = v.safeParse(form, record);
    return parsed.success ? how(parsed.output) : record;
  };
}

function fileOf(
  role: string,
  { name, hash }: v.InferOutput<typeof NamedOf8>,
  sizes: ReadonlyMap<string, number>,
) {
  return { role, name, mediaType: WORD_TYPE, size: sizes.get(hash) ?? 0, hash };
}

/** What version 8 sent was always a Word file. */
const WORD_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/**
 * Brings records that a version stored up to date, step by step. `rows` are all of them.
 * @param moved the documents in them, as packedIn gives them
 */
export function upgradeRecordsFrom(
  version: number,
  rows: readonly Row[],
  moved: MovedBodies = new Map(),
): RecordUpgrade {
  const from7 = upgradeFrom7(moved);
  const from1 = version < 2 ? upgradeFrom1(rows) : null;
  // What it asks of all records is the same in every version before.
  const from8 = version < 9 ? upgradeFrom8(rows) : null;
  return (store, key, record) => {
    const at2 = from1 === null ? record : from1(store, key, record);
    const at6 = version < 3 ? upgradeFrom2(store, key, at2) : version < 6 ? upgradeTo6(store, key, at2) : at2;
    const at7 = version < 7 ? upgradeFrom6(store, key, at6) : at6;
    const at8 = version < 8 ? from7(store, key, at7) : at7;
    const at9 = from8 === null ? at8 : from8(store, key, at8);
    const at10 = version < 10 ? upgradeFrom9(store, key, at9) : at9;
    const at11 = version < 11 ? upgradeFrom10(store, key, at10) : at10;
    return version < 12 ? upgradeFrom11(store, key, at11) : at11;
  };
}

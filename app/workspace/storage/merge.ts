import * as v from 'valibot';
import { asId, VersionId } from '#core/model/ids.ts';
import { Draft, GivenAnswer, Judgement, Query, Reading, type Version } from '#core/model/work.ts';
import type { GoneRow, StoredRow } from './database.ts';
import type { StoreName } from './records.ts';

/** Two copies of a workspace that went on by themselves, joined: nothing that was typed or decided is lost. */

/** What is to be written so that the one copy holds what both do. */
export interface Merge {
  readonly puts: readonly StoredRow[];
  /** What was taken out elsewhere after it was last changed here. */
  readonly removes: readonly GoneRow[];
  /** How many records come that weren't here, are newer there, or were changed in both. */
  readonly added: number;
  readonly newer: number;
  readonly joined: number;
  /** Texts of drafts that differ: the older stays as a version. */
  readonly versions: number;
}

const keyOf = ({ store, key }: Pick<StoredRow, 'store' | 'key'>) => `${store}/${key}`;
const NEVER = '';

/** The same, whatever order the fields stand in. */
function canonical(record: unknown): string {
  return JSON.stringify(record, (_key, value: unknown) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).toSorted(([x], [y]) => (x < y ? -1 : 1)))
      : value,
  );
}

/** Of two rows the older and the newer; where the times are the same, the text decides, so that both sides agree. */
function byAge(x: StoredRow, y: StoredRow): [older: StoredRow, newer: StoredRow] {
  const [a, b] = [x.at ?? NEVER, y.at ?? NEVER];
  if (a !== b) return a < b ? [x, y] : [y, x];
  return canonical(x.record) < canonical(y.record) ? [x, y] : [y, x];
}

/** What is to be done here so that `mine` holds what `theirs` does too. */
export function mergeOf(
  mine: { readonly rows: readonly StoredRow[]; readonly gone: readonly GoneRow[] },
  theirs: { readonly rows: readonly StoredRow[]; readonly gone: readonly GoneRow[] },
): Merge {
  const here = new Map(mine.rows.map((row) => [keyOf(row), row]));
  const goneHere = new Map(mine.gone.map((row) => [keyOf(row), row]));
  const puts: StoredRow[] = [];
  let [added, newer, joined, versions] = [0, 0, 0, 0];
  for (const row of theirs.rows) {
    const own = here.get(keyOf(row));
    if (own === undefined) {
      const gone = goneHere.get(keyOf(row));
      if (gone !== undefined && gone.at >= (row.at ?? NEVER)) continue;
      puts.push(row);
      added++;
      continue;
    }
    if (canonical(own.record) === canonical(row.record)) continue;
    const [older, later] = byAge(own, row);
    const one = joinedRow(older, later);
    // Where what is here holds all, the other text of a draft still comes as a version.
    if (canonical(one.record) !== canonical(own.record)) {
      puts.push(one);
      if (canonical(one.record) === canonical(row.record)) newer++;
      else joined++;
    }
    const version = versionLeft(older, later);
    if (version !== null && !here.has(keyOf(version))) {
      puts.push(version);
      versions++;
    }
  }
  const removes = theirs.gone.filter((gone) => {
    const own = here.get(keyOf(gone));
    return own !== undefined && (own.at ?? NEVER) <= gone.at;
  });
  return { puts, removes, added, newer, joined, versions };
}

/** How two forms of a record are made one, where more than the newer one counts. */
const JOINERS: Partial<Record<StoreName, (older: unknown, newer: unknown) => unknown>> = {
  judgements: (older, newer) => joined(Judgement, older, newer, joinJudgements),
  queries: (older, newer) =>
    joined(Query, older, newer, (was, is) => ({
      ...is,
      text: bothTexts(was.text, is.text),
      answer: bothTexts(was.answer, is.answer),
      putAt: is.putAt ?? was.putAt,
    })),
  answers: (older, newer) =>
    joined(GivenAnswer, older, newer, (was, is) => ({ ...is, words: bothTexts(was.words, is.words) })),
  readings: (older, newer) =>
    joined(Reading, older, newer, (was, is) =>
      was.of === is.of ? { ...is, seenMs: Math.max(was.seenMs, is.seenMs), read: was.read || is.read } : is,
    ),
};

/** One record of two: the newer, with what was typed in the older alone. */
function joinedRow(older: StoredRow, newer: StoredRow): StoredRow {
  const join = JOINERS[newer.store];
  return join === undefined ? newer : { ...newer, record: join(older.record, newer.record) };
}

function joined<Form>(
  schema: v.GenericSchema<unknown, Form>,
  older: unknown,
  newer: unknown,
  join: (was: Form, is: Form) => Form,
): unknown {
  const [was, is] = [v.safeParse(schema, older), v.safeParse(schema, newer)];
  return was.success && is.success ? join(was.output, is.output) : newer;
}

function joinJudgements(was: Judgement, is: Judgement): Judgement {
  const known = new Map(was.parts.map((part) => [part.id as string, part]));
  return {
    ...is,
    decision: is.decision ?? was.decision,
    carry: is.carry || (is.decision === null && was.carry),
    note: bothTexts(was.note, is.note),
    reply: bothTexts(was.reply, is.reply),
    parts:
      is.parts.length === 0
        ? was.parts
        : is.parts.map((part) => {
            const old = known.get(part.id);
            return old === undefined
              ? part
              : { ...part, note: bothTexts(old.note, part.note), reply: bothTexts(old.reply, part.reply) };
          }),
  };
}

/** What was typed in two places: one that goes on from the other is enough, else both stand. */
function bothTexts(older: string, newer: string): string {
  if (newer.includes(older)) return newer;
  return older.includes(newer) ? older : `${older}\n${newer}`;
}

/** Of two texts of a draft the older, as a version; null where they are the same or there is but one. */
function versionLeft(older: StoredRow, newer: StoredRow): StoredRow | null {
  if (newer.store !== 'drafts') return null;
  const [was, is] = [v.safeParse(Draft, older.record), v.safeParse(Draft, newer.record)];
  if (!was.success || !is.success) return null;
  const { bodyHash, paperFile } = was.output;
  const isSame = bodyHash === is.output.bodyHash && paperFile === is.output.paperFile;
  if (isSame || (bodyHash === null && paperFile === null)) return null;
  const draft = was.output;
  const record: Version = {
    // The same text makes the same version, however often two copies are joined.
    id: asId(VersionId, `${draft.id}/${paperFile ?? bodyHash ?? ''}`),
    draftId: draft.id,
    assignmentId: draft.assignmentId,
    parentId: draft.headVersionId,
    at: draft.savedAt,
    why: 'other device',
    name: '',
    bodyHash,
    files: draft.files,
    post: draft.post,
    items: draft.items,
    fileHash: paperFile,
  };
  return { store: 'versions', key: record.id, record, at: draft.savedAt };
}

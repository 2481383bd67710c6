import type { Assignment, Attempt, Course, Marking, Rubric, Withdrawal } from '../model/facts.ts';
import type { Remark } from '../model/remark.ts';
import type { Saying } from '../saying/saying.ts';
import type {
  Aim,
  Arrival,
  Draft,
  GivenAnswer,
  Judgement,
  MarkKey,
  Person,
  PromiseNote,
  Query,
  Reading,
  StoredFile,
  Submission,
  Task,
} from '../model/work.ts';

/** The records that an assignment is made of, by store: facts first, then the student's own, then files. */
export interface AssignmentStores {
  courses: Course;
  assignments: Assignment;
  rubrics: Rubric;
  attempts: Attempt;
  markings: Marking;
  withdrawals: Withdrawal;
  arrivals: Arrival;
  remarks: Remark;
  readings: Reading;
  judgements: Judgement;
  tasks: Task;
  queries: Query;
  promises: PromiseNote;
  drafts: Draft;
  submissions: Submission;
  files: StoredFile;
  people: Person;
  aims: Aim;
  answers: GivenAnswer;
  markKeys: MarkKey;
}

type Store = keyof AssignmentStores;

type StoreMaps = { readonly [Name in Store]: ReadonlyMap<string, AssignmentStores[Name]> };

/** All records of a workspace, by store and key, and what is derived from them. */
export type AssignmentRecordMaps = StoreMaps & {
  /** What remarks were found to say, by `sayingKey`; derived, and complete only after a while. */
  readonly sayings: ReadonlyMap<string, Saying>;
};

/** Stores whose records belong to an assignment. */
type OwnedStore = {
  readonly [Name in Store]: AssignmentStores[Name] extends { readonly assignmentId: unknown } ? Name : never;
}[Store];

/** How the records of an assignment are read; whoever computes from them reads them by nothing else. */
export interface AssignmentRecords {
  /** A record by its key; null where there is none. */
  find<Name extends Store>(store: Name, key: string): AssignmentStores[Name] | null;
  /** The records of a store that belong to an assignment, in the order in which they came. */
  of<Name extends OwnedStore>(store: Name, assignmentId: string): readonly AssignmentStores[Name][];
  /** The assignments of a course, in the order in which they came. */
  inCourse(courseId: string): readonly Assignment[];
  /** The draft stages of a final. */
  stagesOf(finalId: string): readonly Assignment[];
  /** What remarks of a key say; null while it isn't worked out. */
  sayingOf(key: string): Saying | null;
  /** What the student made of remarks of an author, where they put right what one says; in the order in which they came. */
  correctionsOf(author: string): readonly Judgement[];
  /** What the student made of remarks that they linked to a criterion, in all assignments. */
  linkedByHand(): readonly Judgement[];
  /** What marks of an author's hand mean, as far as it is confirmed. */
  keyOf(author: string): readonly MarkKey[];
}

/** What records stand together under, by the map that they are in: each map is gone through once for all. */
type Grouping = 'assignmentId' | 'courseId' | 'draftOf' | 'author';
const groups = new WeakMap<object, Map<Grouping, ReadonlyMap<string, readonly unknown[]>>>();

function groupsBy(records: ReadonlyMap<string, object>, by: Grouping) {
  const known = groups.get(records) ?? new Map<Grouping, ReadonlyMap<string, readonly unknown[]>>();
  groups.set(records, known);
  const grouped = known.get(by);
  if (grouped !== undefined) return grouped;
  const made = new Map<string, unknown[]>();
  for (const record of records.values()) {
    const key = (record as Readonly<Partial<Record<Grouping, string | null>>>)[by] ?? null;
    if (key === null) continue;
    const group = made.get(key);
    if (group === undefined) made.set(key, [record]);
    else group.push(record);
  }
  known.set(by, made);
  return made;
}

const NONE: readonly never[] = [];

/** Reads records out of the maps of a workspace. */
export function recordsIn(maps: AssignmentRecordMaps): AssignmentRecords {
  return {
    find: (store, key) => (maps as StoreMaps)[store].get(key) ?? null,
    of: <Name extends OwnedStore>(store: Name, assignmentId: string) =>
      (groupsBy(maps[store], 'assignmentId').get(assignmentId) ?? NONE) as readonly AssignmentStores[Name][],
    inCourse: (courseId) =>
      (groupsBy(maps.assignments, 'courseId').get(courseId) ?? NONE) as readonly Assignment[],
    stagesOf: (finalId) =>
      (groupsBy(maps.assignments, 'draftOf').get(finalId) ?? NONE) as readonly Assignment[],
    sayingOf: (key) => maps.sayings.get(key) ?? null,
    linkedByHand: () => linksIn(maps.judgements),
    correctionsOf: (author) => correctionsByAuthor(maps).get(author) ?? NONE,
    keyOf: (author) => (groupsBy(maps.markKeys, 'author').get(author) ?? NONE) as readonly MarkKey[],
  };
}

const links = new WeakMap<object, readonly Judgement[]>();

function linksIn(judgements: ReadonlyMap<string, Judgement>): readonly Judgement[] {
  const known = links.get(judgements);
  if (known !== undefined) return known;
  const found = [...judgements.values()].filter(({ link }) => link?.criterionId != null);
  links.set(judgements, found);
  return found;
}

type CorrectionMaps = Pick<AssignmentRecordMaps, 'judgements' | 'remarks' | 'people'>;
const corrections = new WeakMap<
  CorrectionMaps['judgements'],
  CorrectionMaps & { readonly byAuthor: ReadonlyMap<string, readonly Judgement[]> }
>();

/** Judgements that put right what a remark says, by the name under which the student knows its author. */
function correctionsByAuthor({ judgements, remarks, people }: CorrectionMaps) {
  const known = corrections.get(judgements);
  if (known?.remarks === remarks && known.people === people) return known.byAuthor;
  const byAuthor = new Map<string, Judgement[]>();
  for (const judgement of judgements.values()) {
    if (judgement.stance === null && judgement.parts.every(({ stance }) => stance === null)) continue;
    const name = remarks.get(judgement.remarkId)?.author.name;
    if (name === undefined) continue;
    const author = people.get(name)?.sameAs ?? name;
    const own = byAuthor.get(author);
    if (own === undefined) byAuthor.set(author, [judgement]);
    else own.push(judgement);
  }
  corrections.set(judgements, { judgements, remarks, people, byAuthor });
  return byAuthor;
}

/** Something that was computed from records, with what was read for it: as long as that is the same, so is it. */
export class Derived<Value> {
  private constructor(
    readonly value: Value,
    private readonly reads: readonly ((records: AssignmentRecords) => boolean)[],
  ) {}

  /** Computes a value and notes what it reads. */
  static from<Value>(
    records: AssignmentRecords,
    compute: (records: AssignmentRecords) => Value,
  ): Derived<Value> {
    const reads: ((records: AssignmentRecords) => boolean)[] = [];
    const value = compute({
      find: (store, key) => {
        const found = records.find(store, key);
        reads.push((now) => now.find(store, key) === found);
        return found;
      },
      of: (store, assignmentId) => {
        const found = records.of(store, assignmentId);
        reads.push((now) => sameRecords(now.of(store, assignmentId), found));
        return found;
      },
      inCourse: (courseId) => {
        const found = records.inCourse(courseId);
        reads.push((now) => sameRecords(now.inCourse(courseId), found));
        return found;
      },
      stagesOf: (finalId) => {
        const found = records.stagesOf(finalId);
        reads.push((now) => sameRecords(now.stagesOf(finalId), found));
        return found;
      },
      sayingOf: (key) => {
        const found = records.sayingOf(key);
        reads.push((now) => now.sayingOf(key) === found);
        return found;
      },
      correctionsOf: (author) => {
        const found = records.correctionsOf(author);
        reads.push((now) => sameRecords(now.correctionsOf(author), found));
        return found;
      },
      linkedByHand: () => {
        const found = records.linkedByHand();
        reads.push((now) => sameRecords(now.linkedByHand(), found));
        return found;
      },
      keyOf: (author) => {
        const found = records.keyOf(author);
        reads.push((now) => sameRecords(now.keyOf(author), found));
        return found;
      },
    });
    return new Derived(value, reads);
  }

  /** Whether computing it from these records would read just the same. */
  holdsFor(records: AssignmentRecords): boolean {
    return this.reads.every((isSame) => isSame(records));
  }
}

function sameRecords(x: readonly unknown[], y: readonly unknown[]): boolean {
  return x === y || (x.length === y.length && x.every((record, i) => record === y[i]));
}

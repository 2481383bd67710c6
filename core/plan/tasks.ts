import type { Remark } from '../model/remark.ts';
import { quotedWords } from '../model/remark.ts';
import type { ChangeKind, RemarkRef, Task } from '../model/work.ts';
import { inNeed } from './in-need.ts';
import { countWords } from '../text/words.ts';

/** Minutes that a change of each kind is taken to need, until the student's own record says better. */
export const MINUTES_BY_KIND: Readonly<Record<ChangeKind, number>> = {
  mechanical: 5,
  sentence: 10,
  paragraph: 25,
  structure: 60,
  research: 90,
};

/** What a change of some kind is taken to need and to be good for: plan/estimates.ts. */
export type EstimateOf = (kind: ChangeKind) => { readonly chance: number; readonly minutes: number };

/** The chance that a change wins the points behind its remarks, until the student's own record says better. */
const CHANCE = 0.7;
/** Before there is a record. */
export const standardOf: EstimateOf = (kind) => ({ chance: CHANCE, minutes: MINUTES_BY_KIND[kind] });

const TITLE_CHARACTERS = 90;
/** Marks that ask for one stroke. */
const MECHANICAL_WORDS = 12;
/** A passage longer than a long sentence asks for work on its paragraph. */
const SENTENCE_WORDS = 40;

/** What kind of change a remark asks for, guessed from its mark and the length of its passage; the student corrects it. */
export function changeKindOf(remark: Remark): ChangeKind {
  const exact = quotedWords(remark);
  if (exact === null) return 'paragraph';
  const words = countWords(exact);
  if (remark.change !== null) return 'mechanical';
  if (remark.kind === 'strikeout' && words <= MECHANICAL_WORDS * 2) return 'mechanical';
  return words <= SENTENCE_WORDS ? 'sentence' : 'paragraph';
}

/** A task as it begins: nothing was changed of it. */
export function newTask(of: Pick<Task, 'id' | 'assignmentId' | 'title' | 'kind' | 'about'>): Task {
  return {
    ...of,
    minutes: MINUTES_BY_KIND[of.kind],
    done: false,
    rank: null,
    touched: false,
    needs: [],
    pin: null,
    steps: [],
  };
}

/** A task's first title where it isn't known what its remark asks for: its words, or what it changes, cut at a word. */
export function firstTitleOf({ text, change }: Pick<Remark, 'text' | 'change'>): string {
  const title = (text || (change?.after ?? '') || (change?.before ?? '')).trim();
  if (title.length <= TITLE_CHARACTERS) return title;
  const cut = title.slice(0, TITLE_CHARACTERS);
  return `${cut.slice(0, Math.max(cut.lastIndexOf(' '), 20))} …`;
}

/** A task with what is computed for it. Gains are in hundredths of a point. */
export interface PlannedTask {
  readonly task: Task;
  /** Points behind its remarks; null where none of them has points. */
  readonly behind: number | null;
  /** chance × behind, rounded half up. */
  readonly gain: number | null;
  /** The importance of the weightiest of its remarks, without a unit (core/rubric/behind.ts). */
  readonly importance: number;
}

/** What lies behind a remark or a part of it. */
export interface Behind {
  /** Hundredths of a point; null where no points do. */
  readonly points: number | null;
  /** A weight without a unit. */
  readonly importance: number;
}

/**
 * Tasks in the order to do them: those that the student placed, by rank; then the others, each after what it needs, structure
 * before wording, then best gain per minute first, and those behind which no points are by importance per minute. What lies behind a remark counts once: tasks that answer the
 * same one share it evenly.
 */
export function planOrder(tasks: readonly Task[], behindOf: (ref: RemarkRef) => Behind): PlannedTask[] {
  const behindTask = sharedOver(tasks, (ref) => behindOf(ref).points);
  return inOrder(
    tasks.map((task) => {
      const behind = behindTask(task);
      const importance = Math.max(0, ...task.about.map((ref) => behindOf(ref).importance));
      return { task, behind, gain: gainOf(behind, task, standardOf), importance };
    }),
  );
}

/** What of the points behind remarks lies behind each task: those that answer the same one share it evenly; null where none does. */
export function sharedOver(
  tasks: readonly Task[],
  pointsOf: (ref: RemarkRef) => number | null,
): (task: Task) => number | null {
  const sharers = sharersOf(tasks);
  return (task) => {
    const shares = task.about.flatMap((ref) => {
      const points = pointsOf(ref);
      const among = sharers.get(refKey(ref)) ?? [task.id];
      return points === null ? [] : [evenShare(points, among.indexOf(task.id), among.length)];
    });
    return shares.length === 0 ? null : shares.reduce((x, y) => x + y, 0);
  };
}

function gainOf(behind: number | null, { kind }: Task, estimateOf: EstimateOf): number | null {
  return behind === null ? null : Math.round(behind * estimateOf(kind).chance);
}

/**
 * The same tasks with other estimates, in the order that these make. Minutes that the student set stay; those of the standard
 * are put in the estimate's place while the task is open.
 */
export function estimated(planned: readonly PlannedTask[], estimateOf: EstimateOf): PlannedTask[] {
  return inOrder(
    planned.map((one) => {
      const { task, behind } = one;
      const isOwn = task.done || task.minutes !== MINUTES_BY_KIND[task.kind];
      const minutes = isOwn ? task.minutes : estimateOf(task.kind).minutes;
      return { ...one, task: { ...task, minutes }, gain: gainOf(behind, task, estimateOf) };
    }),
  );
}

function inOrder(planned: PlannedTask[]): PlannedTask[] {
  const order = planned.sort(beforeOf);
  const placed = order.filter(({ task }) => task.rank !== null);
  const free = order.filter(({ task }) => task.rank === null);
  const byId = new Map(free.map((one) => [one.task.id, one]));
  return [...placed, ...inNeed(free.map(({ task }) => task)).flatMap(({ id }) => byId.get(id) ?? [])];
}

/** Wording is done last: what is moved or written anew would undo it. */
const FIRST_KINDS: ReadonlySet<ChangeKind> = new Set(['structure', 'research']);

/** Which of two tasks is done first. */
function beforeOf(x: PlannedTask, y: PlannedTask): number {
  const each = (of: number, { task }: PlannedTask) => of / Math.max(1, task.minutes);
  const perMinute = (planned: PlannedTask) => each(planned.gain ?? 0, planned);
  if (x.task.rank !== null && y.task.rank !== null) return x.task.rank - y.task.rank;
  if (x.task.rank !== null) return -1;
  if (y.task.rank !== null) return 1;
  const isFirst = ({ task }: PlannedTask) => Number(FIRST_KINDS.has(task.kind));
  return (
    isFirst(y) - isFirst(x) ||
    perMinute(y) - perMinute(x) ||
    each(y.importance, y) - each(x.importance, x) ||
    (x.task.id < y.task.id ? -1 : 1)
  );
}

const refKey = ({ remarkId, partId }: RemarkRef) => `${remarkId} ${partId ?? ''}`;

/** The tasks that answer each remark or part, by their ids. */
function sharersOf(tasks: readonly Task[]): ReadonlyMap<string, readonly string[]> {
  const sharers = new Map<string, string[]>();
  for (const { id, about } of tasks)
    for (const key of new Set(about.map(refKey))) sharers.set(key, [...(sharers.get(key) ?? []), id]);
  for (const ids of sharers.values()) ids.sort();
  return sharers;
}

/** One of so many even shares of a whole number; all together are the number. */
function evenShare(whole: number, which: number, of: number): number {
  return Math.floor((whole * (which + 1)) / of) - Math.floor((whole * which) / of);
}

/** Sums over tasks: minutes and hundredths of a point, of those not done and of all. */
export function planTotals(planned: readonly PlannedTask[]) {
  const sum = (of: (p: PlannedTask) => number, list: readonly PlannedTask[]) =>
    list.reduce((t, p) => t + of(p), 0);
  const open = planned.filter((p) => !p.task.done);
  return {
    done: planned.length - open.length,
    minutesLeft: sum((p) => p.task.minutes, open),
    minutes: sum((p) => p.task.minutes, planned),
    gain: sum((p) => p.gain ?? 0, planned),
  };
}

/** Remarks in the order of the tasks that answer them; those of none behind them, as they stood. */
export function inPlanOrder<Of extends Pick<Remark, 'id'>>(
  remarks: readonly Of[],
  tasks: readonly PlannedTask[],
): Of[] {
  const rank = new Map<string, number>();
  for (const [index, { task }] of tasks.entries())
    for (const { remarkId } of task.about) if (!rank.has(remarkId)) rank.set(remarkId, index);
  const of = ({ id }: Of) => rank.get(id) ?? tasks.length;
  return remarks.toSorted((x, y) => of(x) - of(y));
}

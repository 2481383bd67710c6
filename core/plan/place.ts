import { inNeed } from './in-need.ts';
import { without, type Span } from './spans.ts';

/** Where the time goes: tasks of several assignments as blocks in the student's free time (computation.md 7). */

/** A task that is to be placed. */
interface PlaceableTask {
  readonly id: string;
  /** What is still to be done of it: a whole number, 1 or more. */
  readonly minutes: number;
  /** What has to be done before it; what is in no list is done. */
  readonly needs: readonly string[];
}

/** The tasks of an assignment, in the order in which they are best done, and by when, ms since 1970. */
export interface Job {
  readonly assignmentId: string;
  readonly by: number;
  readonly tasks: readonly PlaceableTask[];
}

/** Time that is set aside for tasks. */
export interface TaskBlock extends Span {
  readonly id: string;
  readonly assignmentId: string;
  /** In the order in which they are done in it. */
  readonly taskIds: readonly string[];
}

/** A block as it was placed, or as it was set by hand. */
export interface PlacedBlock extends TaskBlock {
  readonly pinned: boolean;
}

/** A task that can't be done in time. */
export interface Unplaced {
  readonly assignmentId: string;
  readonly taskId: string;
  readonly minutes: number;
  /** When it would be done if it were due later, ms since 1970; null where the free time known of is too short for that too. */
  readonly fits: number | null;
}

/** Where the time goes, and what has no place in it. */
export interface Placement {
  /** By time. */
  readonly blocks: readonly PlacedBlock[];
  readonly unplaced: readonly Unplaced[];
}

const MINUTE_MS = 60_000;
/** Blocks are so long (computation.md 7). */
export const LEAST_MINUTES = 15;
const MOST_MINUTES = 90;
/** Small tasks share a block up to this: two paragraphs, or a handful of sentences. */
const GOOD_MINUTES = 50;

/** What is placed as one: a task, or small ones that fill a block together. */
interface Unit {
  readonly tasks: readonly PlaceableTask[];
  readonly minutes: number;
  readonly splits: boolean;
}

/**
 * Places tasks: what is due first goes first, of one assignment in the order given, but for what needs something else first.
 * Blocks by hand stay as they are and count for their tasks. No block is outside the free time or lies over another; the
 * same comes out for the same.
 * @param free when the student can work
 * @param pinned blocks set by hand
 * @param from nothing is placed before it, ms since 1970
 */
export function place(
  jobs: readonly Job[],
  free: readonly Span[],
  pinned: readonly TaskBlock[],
  from: number,
): Placement {
  const left = minutesLeft(jobs, pinned);
  let slots = without(free, [{ from: -Infinity, to: from }, ...pinned]);
  const blocks: PlacedBlock[] = pinned.map((block) => ({ ...block, pinned: true }));
  const late: { readonly assignmentId: string; readonly unit: Unit }[] = [];
  /** When what was placed of a task ends; Infinity for what could not be placed. */
  const ends = new Map<string, number>();
  for (const { taskIds, to } of pinned)
    for (const id of taskIds) ends.set(id, Math.max(ends.get(id) ?? 0, to));
  for (const { assignmentId, by, tasks } of jobs.toSorted((x, y) => (x.by === y.by ? 0 : x.by - y.by))) {
    const open = inNeed(tasks).flatMap((task) => {
      const minutes = left.get(task.id) ?? 0;
      return minutes > 0 ? [{ ...task, minutes }] : [];
    });
    for (let queue = open; queue.length > 0;) {
      let unit = nextUnit(queue);
      let spans: Span[] | null = null;
      for (const fewer of fewerOf(unit)) {
        unit = fewer;
        spans = spansFor(unit, slots, earliestOf(unit, ends, from), by);
        if (spans !== null) break;
      }
      const done = new Set(unit.tasks.map(({ id }) => id));
      queue = queue.filter(({ id }) => !done.has(id));
      if (spans === null) {
        late.push({ assignmentId, unit });
        for (const id of done) ends.set(id, Infinity);
        continue;
      }
      slots = without(slots, spans);
      const taskIds = unit.tasks.map(({ id }) => id);
      for (const [ordinal, span] of spans.entries())
        blocks.push({ ...span, id: `${taskIds[0]}/${ordinal}`, assignmentId, taskIds, pinned: false });
      for (const id of taskIds) ends.set(id, Math.max(ends.get(id) ?? 0, spans[spans.length - 1].to));
    }
  }
  return {
    blocks: blocks.sort((x, y) => x.from - y.from || (x.id < y.id ? -1 : 1)),
    unplaced: unplacedOf(late, slots, ends, from),
  };
}

/** When what a unit needs is done, and not before a moment. */
function earliestOf({ tasks }: Unit, ends: ReadonlyMap<string, number>, from: number): number {
  // What is in the unit itself counts too: a block by hand may hold the beginning of it.
  return Math.max(from, ...tasks.flatMap(({ needs }) => needs.map((id) => ends.get(id) ?? from)));
}

/** What could not be placed in time, with when it would be done in the time that is left beside the rest. */
function unplacedOf(
  late: readonly { readonly assignmentId: string; readonly unit: Unit }[],
  free: readonly Span[],
  known: ReadonlyMap<string, number>,
  from: number,
): Unplaced[] {
  const ends = new Map([...known].filter(([, end]) => end !== Infinity));
  let slots = free;
  return late.flatMap(({ assignmentId, unit }) => {
    const spans = spansFor(unit, slots, earliestOf(unit, ends, from), Infinity);
    const fits = spans?.at(-1)?.to ?? null;
    if (spans !== null) slots = without(slots, spans);
    return unit.tasks.map(({ id, minutes }) => {
      ends.set(id, fits ?? Infinity);
      return { assignmentId, taskId: id, minutes, fits };
    });
  });
}

/** What of each task no block by hand holds. */
function minutesLeft(jobs: readonly Job[], pinned: readonly TaskBlock[]): Map<string, number> {
  const left = new Map(jobs.flatMap(({ tasks }) => tasks.map(({ id, minutes }) => [id, minutes] as const)));
  for (const { taskIds, from, to } of pinned) {
    let held = Math.floor((to - from) / MINUTE_MS);
    for (const id of taskIds) {
      const minutes = left.get(id) ?? 0;
      const part = Math.min(minutes, held);
      left.set(id, minutes - part);
      held -= part;
    }
  }
  return left;
}

/**
 * The next unit of a queue: a long task by itself, or small ones that follow each other up to a good length; where those are
 * too few to fill a block, others from behind a long one, unless they need something that is still to come.
 */
function nextUnit(queue: readonly PlaceableTask[]): Unit {
  const [first] = queue;
  if (first.minutes >= GOOD_MINUTES) return unitOf([first], true);
  const own: PlaceableTask[] = [first];
  const skipped = new Set<string>();
  for (const task of queue.slice(1)) {
    const all = sum(own) + task.minutes;
    const fits = all <= GOOD_MINUTES && !task.needs.some((id) => skipped.has(id));
    if (fits) own.push(task);
    else if (sum(own) < LEAST_MINUTES) skipped.add(task.id);
    else break;
  }
  return unitOf(own, own.length === 1);
}

function unitOf(tasks: readonly PlaceableTask[], splits: boolean): Unit {
  return { tasks, minutes: Math.max(LEAST_MINUTES, sum(tasks)), splits };
}

/** A unit, and ever fewer of its tasks: what fits nowhere together may fit by itself. */
function* fewerOf({ tasks, splits }: Unit): Generator<Unit> {
  for (let count = tasks.length; count >= 1; count = count === 1 ? 0 : Math.ceil(count / 2))
    yield unitOf(tasks.slice(0, count), splits || count === 1);
}

function sum(tasks: readonly PlaceableTask[]): number {
  return tasks.reduce((all, { minutes }) => all + minutes, 0);
}

/** The first times that hold a unit between two moments; null where they can't. */
function spansFor(unit: Unit, slots: readonly Span[], earliest: number, by: number): Span[] | null {
  const spans: Span[] = [];
  let left = unit.minutes;
  for (const slot of slots) {
    let from = Math.ceil(Math.max(slot.from, earliest) / MINUTE_MS) * MINUTE_MS;
    const to = Math.min(slot.to, by);
    for (;;) {
      const room = Math.floor((to - from) / MINUTE_MS);
      const minutes = unit.splits ? pieceOf(left, room) : room >= left ? left : 0;
      if (minutes === 0) break;
      spans.push({ from, to: from + minutes * MINUTE_MS });
      left -= minutes;
      if (left === 0) return spans;
      from += minutes * MINUTE_MS;
    }
  }
  return null;
}

/** How much of what is left of a task is done in so much room: pieces of like length, none too short; 0 for none of it. */
function pieceOf(left: number, room: number): number {
  const pieces = Math.ceil(left / MOST_MINUTES);
  const piece = Math.min(room, Math.ceil(left / pieces));
  if (piece < LEAST_MINUTES) return 0;
  const rest = left - piece;
  if (rest === 0 || rest >= LEAST_MINUTES) return piece;
  const shorter = left - LEAST_MINUTES;
  return shorter >= LEAST_MINUTES ? shorter : 0;
}

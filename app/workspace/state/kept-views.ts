import type { Assignment } from '#core/model/facts.ts';
import type { Instant } from '#core/model/ids.ts';
import { Derived, recordsIn, type AssignmentRecordMaps } from '#core/assignment/records.ts';
import { standingOf, type Standing } from '#core/assignment/standing.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import { gradedCourseOf, weightsIn, type Weight } from '#core/assignment/worth.ts';

/** The times at which something changes that begins or ends at these instants, ms since 1970: then, and just after. */
function momentsOf(instants: readonly (Instant | null)[]): number[] {
  return instants.flatMap((at) => (at === null ? [] : [Date.parse(at), Date.parse(at) + 1]));
}

function instantsOf({ opensAt, dueAt, extendedTo, closesAt }: Assignment): (Instant | null)[] {
  return [opensAt, dueAt, extendedTo, closesAt];
}

/** The next time after `atMs` at which something of a workspace changes by itself; Infinity where there is none. */
export function nextMoment(records: AssignmentRecordMaps, atMs: number): number {
  let next = Infinity;
  const consider = (ms: number) => {
    if (ms > atMs) next = Math.min(next, ms);
  };
  for (const assignment of records.assignments.values()) momentsOf(instantsOf(assignment)).forEach(consider);
  for (const { termEndsAt } of records.courses.values()) momentsOf([termEndsAt]).forEach(consider);
  return next;
}

/** Until when, inclusive, nothing of an assignment changes by time alone. */
function steadyUntil(assignment: Assignment, atMs: number): number {
  return Math.min(Infinity, ...momentsOf(instantsOf(assignment)).filter((ms) => ms > atMs)) - 1;
}

/** A view with the span of time that it holds for. */
interface Kept {
  readonly view: Derived<AssignmentView | null>;
  readonly from: number;
  readonly until: number;
  /** The records that it was last found to hold for. */
  maps: AssignmentRecordMaps;
}

/** Views that are kept: of many assignments, only those are computed anew that something they read was changed in. */
export class KeptViews {
  private readonly byAssignment = new Map<string, Kept>();
  private all: { views: readonly AssignmentView[] } | null = null;
  private readonly weights = new Map<string, Derived<ReadonlyMap<string, Weight> | null>>();
  private readonly standings = new Map<
    string,
    { from: Derived<Standing | null>; views: readonly unknown[] }
  >();

  /** The view of an assignment; the same one as long as it would be computed the same. */
  viewOf(maps: AssignmentRecordMaps, id: string, atMs: number): AssignmentView | null {
    const known = this.byAssignment.get(id);
    const records = recordsIn(maps);
    if (
      known !== undefined &&
      atMs >= known.from &&
      atMs <= known.until &&
      (known.maps === maps || known.view.holdsFor(records))
    ) {
      known.maps = maps;
      return known.view.value;
    }
    const view = Derived.from(records, (read) => viewOf(read, id, atMs));
    const until = view.value === null ? Infinity : steadyUntil(view.value.assignment, atMs);
    this.byAssignment.set(id, { view, from: atMs, until, maps });
    return view.value;
  }

  /** The views of all assignments; the same list as long as they are the same. */
  allViews(maps: AssignmentRecordMaps, atMs: number): readonly AssignmentView[] {
    const views = [...maps.assignments.keys()].flatMap((id) => this.viewOf(maps, id, atMs) ?? []);
    if (this.all === null || !sameList(this.all.views, views)) this.all = { views };
    return this.all.views;
  }

  /** What each assignment of a course is of its grade; null where nobody says how that is made. */
  weightsOf(maps: AssignmentRecordMaps, courseId: string): ReadonlyMap<string, Weight> | null {
    const records = recordsIn(maps);
    const known = this.weights.get(courseId);
    if (known !== undefined && known.holdsFor(records)) return known.value;
    const weights = Derived.from(records, (read) => {
      const course = read.find('courses', courseId);
      const graded = course === null ? null : gradedCourseOf(read, course);
      return graded === null ? null : weightsIn(graded);
    });
    this.weights.set(courseId, weights);
    return weights.value;
  }

  /** Where a course stands; the same value as long as it would be computed the same. */
  standingOf(maps: AssignmentRecordMaps, courseId: string, atMs: number): Standing | null {
    const records = recordsIn(maps);
    const views = records.inCourse(courseId).map(({ id }) => this.viewOf(maps, id, atMs));
    const known = this.standings.get(courseId);
    if (known !== undefined && sameList(known.views, views) && known.from.holdsFor(records))
      return known.from.value;
    const from = Derived.from(records, (read) =>
      standingOf(read, courseId, (id) => this.viewOf(maps, id, atMs)),
    );
    this.standings.set(courseId, { from, views });
    return from.value;
  }
}

function sameList(x: readonly unknown[], y: readonly unknown[]): boolean {
  return x.length === y.length && x.every((one, i) => one === y[i]);
}

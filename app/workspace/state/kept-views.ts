import type { Assignment } from '#core/model/facts.ts';
import type { Instant } from '#core/model/ids.ts';
import { gainsOf, pastLosses, timedChanges } from '#core/marked-again/gains.ts';
import { Derived, recordsIn, type AssignmentRecordMaps } from '#core/assignment/records.ts';
import { standingOf, type Standing } from '#core/assignment/standing.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import type { Setting, Spell } from '#core/model/work.ts';
import { estimatesFrom, STANDARD_ESTIMATES, type Estimates } from '#core/plan/estimates.ts';
import { estimated } from '#core/plan/tasks.ts';
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

/** The records of a workspace that plans are made from. */
export type WorkMaps = AssignmentRecordMaps & {
  readonly spells: ReadonlyMap<string, Spell>;
  readonly settings: ReadonlyMap<string, Setting>;
};

interface KeptEstimates {
  readonly views: readonly AssignmentView[];
  readonly tasks: WorkMaps['tasks'];
  readonly spells: WorkMaps['spells'];
  readonly value: Estimates;
}

/** Views that are kept: of many assignments, only those are computed anew that something they read was changed in. */
export class KeptViews {
  private estimates: KeptEstimates | null = null;
  private readonly withRecord = new WeakMap<AssignmentView, { by: Estimates; view: AssignmentView }>();
  private readonly byAssignment = new Map<string, Kept>();
  private all: { views: readonly AssignmentView[] } | null = null;
  private readonly weights = new Map<string, Derived<ReadonlyMap<string, Weight> | null>>();
  private readonly standings = new Map<
    string,
    { from: Derived<Standing | null>; views: readonly unknown[] }
  >();

  /** The view of an assignment, its plan by the student's own record; the same one as long as it would be computed the same. */
  viewOf(maps: WorkMaps, id: string, atMs: number): AssignmentView | null {
    const view = this.plainView(maps, id, atMs);
    if (view === null || view.tasks.length === 0) return view;
    const by = this.estimatesOf(maps, atMs);
    if (by === STANDARD_ESTIMATES) return view;
    const known = this.withRecord.get(view);
    if (known?.by === by) return known.view;
    const own = { by, view: { ...view, tasks: estimated(view.tasks, (kind) => by[kind]) } };
    this.withRecord.set(view, own);
    return own.view;
  }

  /** What plans go by: the record of what earlier changes won and took, or the standard where that is set or there is none. */
  estimatesOf(maps: WorkMaps, atMs: number): Estimates {
    const set = maps.settings.get('estimates');
    const isStandard = set?.name === 'estimates' && set.by === 'standard';
    return isStandard ? STANDARD_ESTIMATES : this.recordOf(maps, atMs);
  }

  /** What the record says, whatever plans go by; the same value as long as it would be computed the same. */
  recordOf(maps: WorkMaps, atMs: number): Estimates {
    const { tasks, spells } = maps;
    const views = this.markedAgain(maps, atMs);
    const known = this.estimates;
    if (known !== null && sameList(known.views, views) && known.tasks === tasks && known.spells === spells)
      return known.value;
    const losses = pastLosses(views.flatMap((view) => gainsOf(view) ?? []));
    const timed = timedChanges([...tasks.values()], spells.values(), atMs);
    const value =
      losses.length === 0 && timed.length === 0 ? STANDARD_ESTIMATES : estimatesFrom(losses, timed);
    const isSame = known !== null && JSON.stringify(known.value) === JSON.stringify(value);
    this.estimates = { views, tasks, spells, value: isSame ? known.value : value };
    return this.estimates.value;
  }

  /** What was known of changes before an assignment was marked again: its own plan can't have gone by what came of it. */
  knownBefore(maps: WorkMaps, atMs: number, assignmentId: string): Estimates {
    const all = this.markedAgain(maps, atMs).flatMap((view) => {
      const gains = gainsOf(view);
      return gains === null ? [] : [{ id: view.assignment.id, gains }];
    });
    const own = all.find(({ id }) => id === assignmentId);
    const earlier = all.filter(({ gains }) => own !== undefined && gains.at < own.gains.at);
    return estimatesFrom(pastLosses(earlier.map(({ gains }) => gains)), []);
  }

  /** The views of assignments with tasks of which more than one attempt was marked. */
  private markedAgain(maps: WorkMaps, atMs: number): readonly AssignmentView[] {
    const worked = new Set([...maps.tasks.values()].map(({ assignmentId }) => assignmentId));
    const records = recordsIn(maps);
    return [...worked]
      .filter((id) => records.of('markings', id).length > 1)
      .flatMap((id) => this.plainView(maps, id, atMs) ?? []);
  }

  private plainView(maps: AssignmentRecordMaps, id: string, atMs: number): AssignmentView | null {
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
  allViews(maps: WorkMaps, atMs: number): readonly AssignmentView[] {
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
  standingOf(maps: WorkMaps, courseId: string, atMs: number): Standing | null {
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

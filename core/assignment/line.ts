import type { AssignmentId } from '../model/ids.ts';
import { lineOf, type Station, type StationState } from '../line/stations.ts';
import type { StationFact, Way } from '../line/station-facts.ts';
import type { AssignmentView } from './view.ts';

/** A station of an assignment's line: what it is, how far, whose figures it shows, and where it opens. */
export interface LineStation extends StationState {
  readonly fact: StationFact;
  /** For a later station of a draft stage the final's, else the assignment's own. */
  readonly shows: AssignmentView;
  readonly opens: { readonly assignmentId: AssignmentId; readonly station: Station };
}

/** Which assignment a way leads to; the own one where the other stage is not there. */
export function assignmentOfWay({ assignment, stages }: AssignmentView, { of }: Way): AssignmentId {
  if (of === 'final') return stages.final?.id ?? assignment.id;
  if (of === 'stage') return stages.draft?.id ?? assignment.id;
  return assignment.id;
}

/** What a station of an assignment is, as it stands. */
export function stationOf({ stations }: AssignmentView, station: Station): StationFact {
  const found = stations.find((fact) => fact.station === station);
  // All six are in every view.
  if (found === undefined) throw new RangeError(`no station ${station}`);
  return found;
}

/**
 * The line of an assignment. That of a final repeats the numbers of its draft stages; that of a draft stage shows, from Plan
 * on, the stations of its final.
 * @param final the view of the final that a draft stage leads to; null: there is none
 * @param unanswered remarks without an answer; of a draft stage those of its final
 */
export function lineOfView(
  view: AssignmentView,
  final: AssignmentView | null,
  unanswered: number,
): LineStation[] {
  const own = statesOf(view, unanswered);
  const later = final === null ? own : statesOf(final, unanswered);
  return view.stations.map((fact, i) => {
    const inFinal = final !== null && fact.ways.some(({ of }) => of === 'final');
    const way = fact.is === 'elsewhere' ? fact.ways.at(0) : undefined;
    return {
      ...(inFinal ? later[i] : own[i]),
      fact,
      shows: inFinal ? final : view,
      opens: {
        assignmentId: way === undefined ? view.assignment.id : assignmentOfWay(view, way),
        station: fact.station,
      },
    };
  });
}

function statesOf(view: AssignmentView, unanswered: number): StationState[] {
  const { about, tasks, draft, submission, attempts, state, byDesk } = view;
  const isOpen = state.kind === 'open for another attempt';
  const nothingSent = ['not open yet', 'open, nothing sent', 'draft begun'].includes(state.kind);
  return lineOf({
    received: about.tally.received,
    read: about.tally.read,
    decided: about.tally.decided,
    countByDecision: about.countByDecision,
    tasks: tasks.length,
    tasksDone: tasks.filter(({ task }) => task.done).length,
    draftBegun: draft !== null,
    unanswered,
    // What was sent is done with, unless yet another attempt is open.
    sent: (submission !== null || attempts.length > 1) && !isOpen,
    resubmittable: isOpen || nothingSent || !byDesk,
  });
}

/** An assignment as its next attempt is worked on: with the remarks that this answers, those on its draft stages too. */
export function worked(view: AssignmentView): AssignmentView {
  return { ...view, ...view.about };
}

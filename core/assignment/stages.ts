import type { Assignment } from '../model/facts.ts';
import type { Stage } from '../line/station-facts.ts';
import type { AssignmentRecords } from './records.ts';

/** Work in stages: drafts that are commented, and the final that they lead to (decisions.md, Kind of work). */

type FindAssignment = (id: string) => Assignment | null;

/**
 * The assignment whose plan, draft, check and sending those of another are: for a draft stage its final, through further
 * stages; itself for any other, and for a stage whose final isn't there.
 */
export function workedInOf(find: FindAssignment, assignment: Assignment): Assignment {
  const seen = new Set([assignment.id]);
  let at = assignment;
  for (;;) {
    const next = at.draftOf === null ? null : find(at.draftOf);
    if (next === null) return at;
    // Typed by hand two could each be the stage of the other.
    if (seen.has(next.id)) return assignment;
    seen.add(next.id);
    at = next;
  }
}

/** The draft stages that lead to an assignment, each after those that lead to it. */
export function stagesTo(records: AssignmentRecords, finalId: string): Assignment[] {
  const found: Assignment[] = [];
  const seen = new Set([finalId]);
  const visit = (id: string) => {
    for (const stage of records.stagesOf(id)) {
      if (seen.has(stage.id)) continue;
      seen.add(stage.id);
      visit(stage.id);
      found.push(stage);
    }
  };
  visit(finalId);
  return found;
}

/** Whether an assignment can be made the draft stage of another: not of itself, nor of one that leads to it. */
export function canLeadTo(find: FindAssignment, stageId: string, final: Assignment): boolean {
  const seen = new Set<string>();
  for (let at: Assignment | null = final; at !== null && !seen.has(at.id);) {
    if (at.id === stageId) return false;
    seen.add(at.id);
    at = at.draftOf === null ? null : find(at.draftOf);
  }
  return true;
}

/** What an assignment is in work of several stages. */
export function stageOf(records: AssignmentRecords, assignment: Assignment): Stage {
  const { draftOf, id } = assignment;
  if (draftOf !== null)
    return workedInOf((key) => records.find('assignments', key), assignment).id === id
      ? 'draft stage without its final'
      : 'draft stage';
  return records.stagesOf(id).length > 0 ? 'final' : 'none';
}

import { create } from 'zustand';
import { databaseName, nowMs, type Identity } from './workspace.ts';

/** When the student was here before, and what has come back while they are here. */

interface Visits {
  /** The end of the visit before this one, ms since 1970; null: there was none. */
  readonly lastVisitMs: number | null;
  /** Assignments that something came back for while the page was open, and that were not shown yet. */
  readonly justArrived: ReadonlySet<string>;
}

export const useVisits = create<Visits>(() => ({ lastVisitMs: null, justArrived: new Set() }));

function keyOf(identity: Identity): string {
  return `juncture/visit/${databaseName(identity)}`;
}

let stop: (() => void) | null = null;

/** Begins a visit; its end is kept when the page is put aside. */
export function beginVisit(identity: Identity): void {
  stop?.();
  const kept = localStorage.getItem(keyOf(identity));
  useVisits.setState({ lastVisitMs: kept === null ? null : Number(kept), justArrived: new Set() });
  const keep = () => {
    if (document.visibilityState === 'hidden') localStorage.setItem(keyOf(identity), String(nowMs()));
  };
  const leave = () => localStorage.setItem(keyOf(identity), String(nowMs()));
  document.addEventListener('visibilitychange', keep);
  window.addEventListener('pagehide', leave);
  stop = () => {
    document.removeEventListener('visibilitychange', keep);
    window.removeEventListener('pagehide', leave);
  };
}

export function noteArrival(assignmentId: string): void {
  useVisits.setState(({ justArrived }) => ({ justArrived: new Set(justArrived).add(assignmentId) }));
}

export function forgetArrivals(): void {
  useVisits.setState({ justArrived: new Set() });
}

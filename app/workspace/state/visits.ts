import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { useWorkspace } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';

interface VisitState {
  /** The end of the visit before this one, ms since 1970; null: there was none. */
  readonly lastVisitMs: number | null;
  /** Assignments that something came back for while the page was open, and that were not shown yet. */
  readonly justArrived: ReadonlySet<string>;
}

/** When the student was here before, and what has come back while they are here. */
export class Visits {
  readonly store = createStore<VisitState>(() => ({ lastVisitMs: null, justArrived: new Set() }));

  constructor(private readonly workspace: Workspace) {}

  /** Begins a visit; its end is kept when the page is put aside. */
  begin(): void {
    const { workspace } = this;
    const key = `juncture/visit/${workspace.name}`;
    const kept = localStorage.getItem(key);
    this.store.setState({ lastVisitMs: kept === null ? null : Number(kept) });
    const keep = () => localStorage.setItem(key, String(workspace.nowMs()));
    const whileOpen = { signal: workspace.signal };
    document.addEventListener(
      'visibilitychange',
      () => {
        if (document.visibilityState === 'hidden') keep();
      },
      whileOpen,
    );
    window.addEventListener('pagehide', keep, whileOpen);
  }

  noteArrival(assignmentId: string): void {
    this.store.setState(({ justArrived }) => ({ justArrived: new Set(justArrived).add(assignmentId) }));
  }

  forgetArrivals(): void {
    this.store.setState({ justArrived: new Set() });
  }
}

export function useVisits<Part>(select: (state: VisitState) => Part): Part {
  return useStore(useWorkspace().visits.store, select);
}

import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { Workspace, WorkspaceState } from './workspace.ts';

/** The workspace that is open below here. */
export const WorkspaceContext = createContext<Workspace | null>(null);

/** @throws where no workspace is open: only the way in is shown then */
export function useWorkspace(): Workspace {
  const workspace = useContext(WorkspaceContext);
  if (workspace === null) throw new Error('no workspace is open here');
  return workspace;
}

/** The time that is shown, ms since 1970: it goes on when a moment comes that changes something. */
export function useNow(): number {
  return useWorkspaceState(({ atMs }) => atMs);
}

/** A part of what the open workspace shows, kept up to date. */
export function useWorkspaceState<Part>(select: (state: WorkspaceState) => Part): Part {
  return useStore(useWorkspace().store, select);
}

import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { Session } from './session.ts';
import type { Workspace } from '../workspace.ts';

export const SessionContext = createContext<Session | null>(null);

/** @throws outside of the page's root, which provides it */
export function useSession(): Session {
  const session = useContext(SessionContext);
  if (session === null) throw new Error('no session is there');
  return session;
}

/** Why no workspace is open, where none is. */
export function useWayIn(): 'asking' | 'not reached' | 'signed out' {
  return useStore(useSession().store, ({ wayIn }) => wayIn);
}

/** The workspace that is open; null while none is. */
export function useOpenWorkspace(): Workspace | null {
  return useStore(useSession().store, ({ workspace }) => workspace);
}

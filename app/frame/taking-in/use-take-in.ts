import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { useStore } from 'zustand';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import { tellNotTaken } from '../../shared/page/notify.ts';
import type { TakingInState } from '../../workspace/taking-in/taking-in.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { takingInNotices } from './notices.ts';

/** The address of the place that shows a long paper while it is being read. */
const COMING_IN = '/coming-in';

export function useTakingIn<Part>(part: (state: TakingInState) => Part): Part {
  return useStore(useWorkspace().takingIn.store, part);
}

/** Takes files in; shows a long paper while it is read, and opens what they became where nothing is left to say. */
export function useTakeIn(): (files: readonly File[]) => void {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  return useCallback(
    (files) => {
      const { takingIn, signal } = workspace;
      takingIn
        .takeIn(files, takingInNotices, () => void navigate(COMING_IN))
        .then((id) => {
          if (id !== null) void navigate(assignmentAddress(id));
        })
        .catch((error: unknown) => {
          takingIn.coming.forget();
          if (!signal.aborted) tellNotTaken(error);
        });
    },
    [navigate, workspace],
  );
}

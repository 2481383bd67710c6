import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { forgetComing } from './coming-paper.ts';
import { tellNotTaken } from '../page/notify.ts';
import { takeIn } from './taking-in.ts';

/** The address of the place that shows a long paper while it is being read. */
const COMING_IN = '/coming-in';

/** Takes files in; shows a long paper while it is read, and opens what they became where nothing is left to say. */
export function useTakeIn(): (files: readonly File[]) => void {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  return useCallback(
    (files) => {
      takeIn(workspace, files, () => void navigate(COMING_IN))
        .then((address) => {
          if (address !== null) void navigate(address);
        })
        .catch((error: unknown) => {
          forgetComing();
          tellNotTaken(error);
        });
    },
    [navigate, workspace],
  );
}

import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { words } from '../words/en.ts';
import { takeIn } from './taking-in.ts';

/** Takes files in; opens what they became where nothing is left to say. */
export function useTakeIn(): (files: readonly File[]) => void {
  const navigate = useNavigate();
  return useCallback(
    (files) => {
      takeIn(files)
        .then((id) => {
          if (id !== null) void navigate(`/a/${encodeURIComponent(id)}`);
        })
        .catch(() => toast.error(words.takeIn.notSaved, { duration: 15_000 }));
    },
    [navigate],
  );
}

import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { takeIn } from './taking-in.ts';

/** Takes files in; opens what they became where nothing is left to say. */
export function useTakeIn(): (files: readonly File[]) => void {
  const navigate = useNavigate();
  return useCallback(
    (files) => {
      void takeIn(files).then((id) => {
        if (id !== null) void navigate(`/a/${encodeURIComponent(id)}`);
      });
    },
    [navigate],
  );
}

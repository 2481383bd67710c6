import { useEffect, useState } from 'react';

/** Whether this tab may write the draft: only one at a time does, and the next gets its turn when it closes. */
export function useDraftLock(draftId: string): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const over = new AbortController();
    const untilOver = () =>
      new Promise<void>((resolve) => {
        setHeld(true);
        over.signal.addEventListener('abort', () => resolve());
      });
    navigator.locks
      .request(`juncture/${draftId}`, { signal: over.signal }, untilOver)
      .catch((error: unknown) => {
        if (!over.signal.aborted) throw error;
      });
    return () => {
      setHeld(false);
      over.abort();
    };
  }, [draftId]);
  return held;
}

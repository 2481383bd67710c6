import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { clearJournal, journalise, journalled } from '../workspace/journal.ts';
import { holdSaving, ownKey } from '../workspace/workspace.ts';

const TYPING_RESTS_MS = 300;

/**
 * Text of a field that is kept by itself: when typing rests, when the field is left, and when it goes away. Until then
 * the frame says that it is being saved.
 * @param name a name of the field's own, under which the last words before a page goes away are found again
 * @param saved what is kept now; shown as long as nobody types
 */
export function useKeptText(
  name: string,
  saved: string,
  keep: (text: string) => Promise<void>,
): [string, (text: string) => void, () => void] {
  const key = ownKey(name);
  const [typed, setTyped] = useState(() => journalled(key));
  const release = useRef<(() => void) | null>(null);
  const latest = useRef({ typed, saved, keep });
  useLayoutEffect(() => {
    latest.current = { typed, saved, keep };
  });
  const flush = useRef(async () => {
    const { typed: text, saved: known, keep: save } = latest.current;
    if (text !== null && text !== known) await save(text);
    clearJournal(key);
    release.current?.();
    release.current = null;
  });
  useEffect(() => {
    if (typed === null) return;
    release.current ??= holdSaving();
    const timer = setTimeout(() => void flush.current(), TYPING_RESTS_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  useEffect(() => {
    const leaveField = flush.current;
    const leavePage = () => {
      const { typed: text, saved: known } = latest.current;
      if (text !== null && text !== known) journalise(key, text);
    };
    window.addEventListener('pagehide', leavePage);
    return () => {
      window.removeEventListener('pagehide', leavePage);
      void leaveField();
    };
  }, [key]);
  const leave = () => {
    void flush.current();
    setTyped(null);
  };
  return [typed ?? saved, setTyped, leave];
}

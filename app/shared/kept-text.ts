import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { journalise, journalled, settling } from '../workspace/journal.ts';
import { holdSaving, type Unkept } from '../workspace/workspace.ts';

/** What was typed is kept after so long at the latest. */
const KEEP_AFTER_MS = 300;

/**
 * Text of a field that is kept by itself while it is typed, and when the field is left or goes away. Until it is, the
 * frame says that it is being saved.
 * @param name a name of the field's own, under which the last words before a page goes away are found again
 * @param saved what is kept now; shown as long as nobody types
 * @param keep keeps the text; `typing` names the spell of typing that it belongs to, if it is one
 */
export function useKeptText(
  name: string,
  saved: string,
  keep: (text: string, typing?: string) => Promise<void>,
): [string, (text: string) => void, () => void] {
  const [typed, setTyped] = useState(() => journalled(name));
  const [left, setLeft] = useState(false);
  if (left && typed === saved) {
    setTyped(null);
    setLeft(false);
  }
  const unkept = useRef<{ timer: ReturnType<typeof setTimeout>; hold: Unkept } | null>(null);
  const underWay = useRef(0);
  const stuck = useRef<Unkept | null>(null);
  const typing = useRef<string | undefined>(undefined);
  const latest = useRef({ typed, saved, keep });
  useLayoutEffect(() => {
    latest.current = { typed, saved, keep };
  });
  const flush = useRef(async () => {
    const nothingElse = () => unkept.current === null && underWay.current === 1;
    if (unkept.current === null) return;
    const { timer, hold } = unkept.current;
    unkept.current = null;
    clearTimeout(timer);
    const { typed: text, saved: known, keep: save } = latest.current;
    const settled = settling(name);
    underWay.current++;
    try {
      if (text !== null && text !== known) await save(text, typing.current);
      // An entry made meanwhile is of this text, unless more was typed.
      await (nothingElse() ? settling(name) : settled)();
      hold.kept();
      stuck.current?.kept();
      stuck.current = null;
    } catch {
      // The frame says that it is not saved; the words are still in the field, and here.
      if (text !== null) journalise(name, text);
      hold.failed();
      stuck.current?.kept();
      stuck.current = hold;
    } finally {
      underWay.current--;
    }
  });
  useEffect(() => {
    if (typed === null || unkept.current !== null) return;
    // Not put off by further typing: a killed tab loses no more than this.
    unkept.current = {
      timer: setTimeout(() => void flush.current(), KEEP_AFTER_MS),
      hold: holdSaving(),
    };
  }, [typed]);
  useEffect(() => {
    const keepNow = flush.current;
    const leavePlace = () => {
      const { typed: text, saved: known } = latest.current;
      // What is under way may not arrive any more.
      const unsaved = unkept.current !== null || underWay.current > 0;
      if (unsaved && text !== null && text !== known) journalise(name, text);
      void keepNow();
    };
    window.addEventListener('pagehide', leavePlace);
    return () => {
      window.removeEventListener('pagehide', leavePlace);
      leavePlace();
    };
  }, [name]);
  const type = (text: string) => {
    if (typed === null) typing.current = crypto.randomUUID();
    setLeft(false);
    setTyped(text);
  };
  const leave = () => {
    setLeft(true);
    void flush.current();
  };
  return [typed ?? saved, type, leave];
}

import { useEffect, useLayoutEffect, useRef, useState, useSyncExternalStore, type RefObject } from 'react';
import { usePreferences } from './preferences.ts';

const NARROW = matchMedia('(max-width: 820px)');

/** Whether the window is too narrow for two columns. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (changed) => {
      NARROW.addEventListener('change', changed);
      return () => NARROW.removeEventListener('change', changed);
    },
    () => NARROW.matches,
  );
}

/** The size of an element's content box, kept up to date. */
export function useSize<E extends HTMLElement>(): [RefObject<E | null>, { width: number; height: number }] {
  const ref = useRef<E>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const element = ref.current;
    if (element === null) return;
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      setSize({ width, height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest('input, textarea, select, [contenteditable="true"]') !== null
  );
}

/**
 * Single-letter keys of a place: never in a field, never with a modifier, and off where the student switched them off.
 * The key tells whether it was held down. Handlers change together with what is shown, so that a quick next key never
 * meets those of the screen before.
 */
export function useKeys(handlers: Readonly<Record<string, (held: boolean) => void>>): void {
  const on = usePreferences((preferences) => preferences.singleKeys);
  const latest = useRef(handlers);
  useLayoutEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    if (!on) return;
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      if (document.querySelector('[role="dialog"]') !== null) return;
      const handler = latest.current[event.key] as ((held: boolean) => void) | undefined;
      if (handler === undefined) return;
      event.preventDefault();
      handler(event.repeat);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [on]);
}

/** Ctrl or Cmd Z outside fields. */
export function useUndoKey(undo: () => void): void {
  const latest = useRef(undo);
  useLayoutEffect(() => {
    latest.current = undo;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'z' || !(event.ctrlKey || event.metaKey) || event.shiftKey || isTyping(event.target))
        return;
      event.preventDefault();
      latest.current();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}

const TYPING_RESTS_MS = 300;

/**
 * Text of a field that is kept by itself: when typing rests, when the field is left, and when it goes away.
 * @param saved what is kept now; shown as long as nobody types
 */
export function useKeptText(
  saved: string,
  keep: (text: string) => void,
): [string, (text: string) => void, () => void] {
  const [typed, setTyped] = useState<string | null>(null);
  const latest = useRef({ typed, saved, keep });
  useLayoutEffect(() => {
    latest.current = { typed, saved, keep };
  });
  const flush = useRef(() => {
    const { typed: text, saved: known, keep: save } = latest.current;
    if (text !== null && text !== known) save(text);
  });
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(() => flush.current(), TYPING_RESTS_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  useEffect(() => {
    const leave = flush.current;
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, []);
  const leaveField = () => {
    flush.current();
    setTyped(null);
  };
  return [typed ?? saved, setTyped, leaveField];
}

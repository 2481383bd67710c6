import { useSingleKeys } from './single-keys.ts';
import { useEffect, useLayoutEffect, useRef, useState, useSyncExternalStore, type RefObject } from 'react';
import { usePreferences } from './preferences.ts';
import { isAsWide } from './widths.ts';

function isNarrow(): boolean {
  return !isAsWide('md', Number(usePreferences.getState().textSize));
}

/** Whether the window is too narrow for two columns at the text size that is set. */
export function useNarrow(): boolean {
  return useSyncExternalStore((changed) => {
    window.addEventListener('resize', changed);
    const stop = usePreferences.subscribe(changed);
    return () => {
      window.removeEventListener('resize', changed);
      stop();
    };
  }, isNarrow);
}

/** Whether fingers are what the screen is used with: there is no key to press then. */
export function useTouch(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia('(pointer: coarse)');
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => window.matchMedia('(pointer: coarse)').matches,
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

/**
 * Whether what an element holds is cut off, below or along a row: there is more of it than has room. Looked at again when
 * its size changes.
 */
export function useIsCut<E extends HTMLElement>(
  along: 'column' | 'row' = 'column',
): [RefObject<E | null>, boolean] {
  const ref = useRef<E>(null);
  const [cut, setCut] = useState(false);
  useLayoutEffect(() => {
    const element = ref.current;
    if (element === null) return;
    // Lines of a text may reach a fraction of a pixel beyond its box.
    const look = () =>
      setCut(
        along === 'column'
          ? element.scrollHeight > element.clientHeight + 1
          : element.scrollWidth > element.clientWidth + 1,
      );
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    return () => observer.disconnect();
  });
  return [ref, cut];
}

/** false until what is there so far has been drawn once: what is large and further down waits for that. */
export function useDrawn(): boolean {
  const [drawn, setDrawn] = useState(false);
  useEffect(() => {
    // A frame's callback comes before it is drawn, a timer set in it after.
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => setDrawn(true));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, []);
  return drawn;
}

/** What takes letters for itself: fields, and lists in which a letter goes to what begins with it. */
const TAKES_KEYS =
  'input:not([type="checkbox"], [type="radio"]), textarea, [contenteditable="true"], [role="combobox"], [role="listbox"], [role="menu"]';

/** Whether a key or a paste is meant for a field. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest(TAKES_KEYS) !== null;
}

/**
 * Single-letter keys of a place: never in a field, never with a modifier, and off where the student switched them off.
 * The key tells whether it was held down. Handlers change together with what is shown, so that a quick next key never
 * meets those of the screen before.
 */
export function useKeys(handlers: Readonly<Record<string, (held: boolean) => void>>): void {
  const on = useSingleKeys();
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

/** Ctrl or Cmd Z outside fields, and with Shift, or Y, to do it again. */
export function useUndoKey(undo: () => void, redo: () => void): void {
  const latest = useRef({ undo, redo });
  useLayoutEffect(() => {
    latest.current = { undo, redo };
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      if ((key !== 'z' && key !== 'y') || !(event.ctrlKey || event.metaKey) || isTyping(event.target)) return;
      event.preventDefault();
      if (key === 'y' || event.shiftKey) latest.current.redo();
      else latest.current.undo();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}

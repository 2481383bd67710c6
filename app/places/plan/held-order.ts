import { useState, type FocusEvent } from 'react';
import { heldAs, type Parted } from '#core/plan/time.ts';

/** The lists of a plan, which stand still while a row is worked in. */
export function useHeldOrder(now: Parted): {
  readonly shown: Parted;
  /** Another order is waiting. */
  readonly isOther: boolean;
  readonly release: () => void;
  readonly handlers: {
    readonly onFocus: (event: FocusEvent) => void;
    readonly onBlur: (event: FocusEvent) => void;
  };
} {
  const ids = (parted: Parted) => ({
    inPlan: parted.inPlan.map(({ task }) => task.id as string),
    left: [...parted.left.keys()].map(({ task }) => task.id as string),
  });
  const [held, setHeld] = useState<ReturnType<typeof ids> | null>(null);
  const shown = held === null ? now : heldAs(held, now);
  const isSame = JSON.stringify(ids(shown)) === JSON.stringify(ids(now));
  return {
    shown,
    isOther: !isSame,
    release: () => setHeld(null),
    handlers: {
      onFocus: (event) => {
        if (event.target.closest('[data-task]') !== null) setHeld((before) => before ?? ids(now));
      },
      onBlur: ({ target, relatedTarget: to }) => {
        const row = target.closest('[data-task]');
        // A list that opens from a row is outside it, and comes back to it.
        const stays =
          to instanceof Element && (row?.contains(to) === true || to.closest('[role="listbox"]') !== null);
        if (!stays && to !== null) setHeld(null);
      },
    },
  };
}

import { useState } from 'react';
import type { ShownMatch } from '#core/overlap/items.ts';
import type { Span } from '#core/text/span.ts';

/** The match in focus, or a place of the text without one; and how to get to others. */
export interface ChosenMatch {
  readonly chosen: ShownMatch | null;
  readonly place: Span | null;
  readonly choose: (id: string) => void;
  readonly show: (place: Span) => void;
  /** To the next or the one before among some, round the end. */
  readonly step: (by: 1 | -1, among: readonly ShownMatch[]) => void;
}

export function useChosenMatch(matches: readonly ShownMatch[]): ChosenMatch {
  const [id, setId] = useState<string | null>(null);
  const [place, setPlace] = useState<Span | null>(null);
  const chosen = matches.find((match) => match.id === id) ?? null;
  const choose = (next: string) => {
    setPlace(null);
    setId(next);
  };
  return {
    chosen,
    place,
    choose,
    show(next) {
      setId(null);
      setPlace(next);
    },
    step(by, among) {
      if (among.length === 0) return;
      const at = chosen === null ? -1 : among.indexOf(chosen);
      const next = at < 0 && by < 0 ? among.length - 1 : (at + by + among.length) % among.length;
      choose(among[next].id);
    },
  };
}

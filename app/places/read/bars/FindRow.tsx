import { ChevronDown, ChevronUp } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button } from '../../../shared/controls/Controls.tsx';
import * as words from '../../../words/en.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import { findingsIn, textToSearch, type Finding } from '../paper/found-words.ts';
import type { TextState } from '#formats/layout-segments.ts';

export interface Found {
  readonly open: boolean;
  readonly wanted: string;
  /** The place that is meant, of how many. */
  readonly finding: Finding | null;
  readonly at: number;
  readonly count: number;
  /** Counts how often it was asked for: each time the field is to be typed in. */
  readonly asked: number;
  readonly show: () => void;
  readonly toggle: () => void;
  readonly close: () => void;
  readonly look: (wanted: string) => void;
  readonly step: (by: number) => void;
}

function beginning(led: string | null) {
  return { open: led !== null, wanted: led ?? '', at: 0, asked: 0 };
}

/** Words that are looked for in a paper. @param led words that a link leads to */
export function useFinding(paper: ReadPaper | null, state: TextState, led: string | null): Found {
  const [{ open, wanted, at, asked }, set] = useState(() => beginning(led));
  const [ledBy, setLedBy] = useState(led);
  if (led !== ledBy) {
    setLedBy(led);
    if (led !== null) set(beginning(led));
  }
  const text = useMemo(
    () => (open && paper !== null ? textToSearch(paper, state) : null),
    [open, paper, state],
  );
  const findings = useMemo(
    () => (paper === null || text === null ? [] : findingsIn(paper, text, wanted)),
    [paper, text, wanted],
  );
  const show = () => set({ open: true, wanted, at, asked: asked + 1 });
  const close = () => set({ open: false, wanted, at, asked });
  return {
    open,
    wanted,
    finding: findings.at(at) ?? null,
    at,
    count: findings.length,
    asked,
    show,
    close,
    toggle: () => (open ? close() : show()),
    look: (next) => set({ open, wanted: next, at: 0, asked }),
    step: (by) => {
      const { length } = findings;
      if (length > 0) set({ open, wanted, at: (at + by + length) % length, asked });
    },
  };
}

/** Looks for words in the paper: how often they stand there, and on to the next. */
export function FindRow({ found }: { found: Found }) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, [found.asked]);
  const said = words.reading.find;
  return (
    <div
      role="search"
      aria-label={said.label}
      onKeyDown={(event) => {
        if (event.key === 'Escape') found.close();
      }}
      className="flex items-center gap-2 border-b border-rule px-5 py-2 text-sm max-md:px-4"
    >
      <input
        ref={field}
        type="search"
        aria-label={said.label}
        placeholder={said.placeholder}
        value={found.wanted}
        onChange={(event) => found.look(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          found.step(event.shiftKey ? -1 : 1);
        }}
        className="w-64 max-w-full min-w-0 rounded max-md:flex-1 border border-rule bg-surface px-2 py-1 placeholder:text-quiet"
      />
      <Button
        look="quiet"
        className="min-h-8 px-1.5"
        aria-label={said.before}
        disabled={found.count === 0}
        onClick={() => found.step(-1)}
      >
        <ChevronUp size={16} aria-hidden />
      </Button>
      <Button
        look="quiet"
        className="min-h-8 px-1.5"
        aria-label={said.next}
        disabled={found.count === 0}
        onClick={() => found.step(1)}
      >
        <ChevronDown size={16} aria-hidden />
      </Button>
      <span role="status" className="whitespace-nowrap text-quiet empty:hidden">
        {found.wanted.trim() !== '' && said.count(found.count === 0 ? 0 : found.at + 1, found.count)}
      </span>
      <Button look="quiet" className="ml-auto min-h-8 px-1" onClick={found.close}>
        {said.close}
      </Button>
    </div>
  );
}

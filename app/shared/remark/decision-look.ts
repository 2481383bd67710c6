import { ArrowRight, ArrowUpRight, CircleHelp, Minus, Repeat2, type LucideIcon } from 'lucide-react';
import type { Decision } from '#core/model/work.ts';

/** How a decision looks everywhere: always an icon and a word, the colour beside them. */
export const decisionLook: Record<
  Decision | 'carry',
  {
    readonly icon: LucideIcon;
    readonly text: string;
    readonly edge: string;
    readonly color: string;
    readonly shortcut: string;
  }
> = {
  act: { icon: ArrowRight, text: 'text-act', edge: 'border-l-act', color: 'var(--act)', shortcut: 'a' },
  ask: { icon: CircleHelp, text: 'text-ask', edge: 'border-l-ask', color: 'var(--ask)', shortcut: 'q' },
  keep: { icon: Repeat2, text: 'text-keep', edge: 'border-l-keep', color: 'var(--keep)', shortcut: 'k' },
  decline: {
    icon: Minus,
    text: 'text-decline',
    edge: 'border-l-decline',
    color: 'var(--decline)',
    shortcut: 'd',
  },
  carry: {
    icon: ArrowUpRight,
    text: 'text-carry',
    edge: 'border-l-carry',
    color: 'var(--carry)',
    shortcut: 'c',
  },
};

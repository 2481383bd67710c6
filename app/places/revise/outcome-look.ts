import { CircleDotDashed, Equal, MoveVertical, Replace, Scissors, type LucideIcon } from 'lucide-react';
import type { OutcomeKind } from '#core/anchors/outcome.ts';

export const outcomeIcon: Record<OutcomeKind, LucideIcon> = {
  untouched: Equal,
  reworded: Replace,
  moved: MoveVertical,
  gone: Scissors,
  unsure: CircleDotDashed,
};

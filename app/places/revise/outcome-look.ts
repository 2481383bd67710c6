import {
  CircleDotDashed,
  Equal,
  Merge,
  MoveVertical,
  Plus,
  Replace,
  Scissors,
  Split,
  type LucideIcon,
} from 'lucide-react';
import type { OutcomeKind } from '#core/anchors/outcome.ts';

export const outcomeIcon: Record<OutcomeKind, LucideIcon> = {
  untouched: Equal,
  'added to': Plus,
  reworded: Replace,
  moved: MoveVertical,
  split: Split,
  joined: Merge,
  gone: Scissors,
  unsure: CircleDotDashed,
};

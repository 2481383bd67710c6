import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { isRead } from '#core/tally/tally.ts';
import { remarkAddress } from '../../shared/page/addresses.ts';
import { nextUnreadAnywhere } from '../../shared/remark/next-unread.ts';
import * as words from '../../words/en.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';

export interface ReadingSteps {
  /** The remark in focus, if it is among those that one steps through. */
  readonly focused: Remark | undefined;
  readonly step: (by: number) => void;
  /** On to the next unread one, of another assignment where nothing is left here. */
  readonly nextUnread: () => void;
}

/**
 * Stepping through the remarks of an assignment.
 * @param passing the remarks that the open material shows; with a filter one steps through these alone
 */
export function useReadingSteps(
  view: AssignmentView,
  passing: readonly Remark[],
  isFiltered: boolean,
  focusedId: string | null,
  focus: (id: string) => void,
): ReadingSteps {
  const everywhere = useAllViews();
  const navigate = useNavigate();
  const steps = isFiltered ? passing : view.remarks;
  const at = steps.findIndex((remark) => remark.id === focusedId);
  const unread = (remark: Remark) => !isRead(remark, view.readings.get(remark.id));
  const step = (by: number) => {
    const next = at < 0 ? passing.at(0) : steps.at(Math.min(steps.length - 1, Math.max(0, at + by)));
    if (next !== undefined) focus(next.id);
  };
  const nextUnread = () => {
    const next = steps.slice(at + 1).find(unread) ?? steps.find(unread) ?? view.remarks.find(unread);
    if (next !== undefined) {
      focus(next.id);
      return;
    }
    const elsewhere = nextUnreadAnywhere(everywhere, view.assignment.id);
    if (elsewhere === null) toast(words.reading.allReadEverywhere);
    else {
      toast(words.reading.nextElsewhere(elsewhere.view.assignment.title));
      void navigate(remarkAddress(elsewhere.remark));
    }
  };
  return { focused: at < 0 ? undefined : steps[at], step, nextUnread };
}

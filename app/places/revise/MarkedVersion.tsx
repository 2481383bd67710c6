import { revise } from '../../words/revising.ts';
import { useMemo, type RefObject } from 'react';
import { inStep, risingPairs, type Pair } from '#core/anchors/in-step.ts';
import { targetsOf } from '#core/anchors/elsewhere.ts';
import { passagesOf } from '#core/anchors/passages.ts';
import { decisionsIn } from '#core/tally/decided.ts';
import { squeeze } from '#core/text/squeeze.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';
import { PaperShown, type MarkedPlace } from './PaperShown.tsx';

/** The paper that was marked, to read beside the draft: the words of remarks in it. */
export function MarkedVersion({
  outlet: { work },
  marked,
  focusedId,
  onFocus,
  scroller,
}: {
  outlet: AssignmentOutlet;
  marked: ReadPaper;
  focusedId: string | null;
  onFocus: (id: string) => void;
  scroller: RefObject<HTMLDivElement | null>;
}) {
  const places = useMemo(() => {
    const text = squeeze(marked.paper.text);
    return work.remarks.flatMap((remark): MarkedPlace[] => {
      if (remark.paperHash !== marked.hash) return [];
      const focused = remark.id === focusedId;
      const acts = decisionsIn(work.judgements.get(remark.id)).includes('act');
      if (!focused && !acts) return [];
      const targets = targetsOf(remark, work.judgements);
      return passagesOf(targets, marked.anchors[remark.id] ?? null, text).map((span) => ({
        ...span,
        id: remark.id,
        focused,
      }));
    });
  }, [work.remarks, work.judgements, marked, focusedId]);
  return (
    <section aria-label={revise.marked} ref={scroller} className="relative h-full overflow-auto bg-paper">
      <div className="mx-auto max-w-[42rem] px-6 py-5">
        <p className="mb-3 text-sm text-quiet">{revise.marked}</p>
        <PaperShown paper={marked.paper} places={places} label={revise.markedLabel} onPress={onFocus} />
      </div>
    </section>
  );
}

/**
 * Scrolls the marked version to what the draft shows.
 * @returns a function that is told the offset of the draft's text that stands at the top
 */
export function useInStep(
  { live }: Pick<AssignmentOutlet, 'live'>,
  marked: ReadPaper | null,
  scroller: RefObject<HTMLDivElement | null>,
): (offset: number) => void {
  const rising = useMemo(() => {
    if (live === null || marked === null) return [];
    const pairs = [...live.byRemark].flatMap(([id, { kind, place }]): Pair[] => {
      const anchor = Object.hasOwn(marked.anchors, id) ? marked.anchors[id] : null;
      return anchor === null || kind === 'unsure' ? [] : [[place.from, anchor.from]];
    });
    return risingPairs(pairs);
  }, [live, marked]);
  return (offset) => {
    const pane = scroller.current;
    if (pane === null || live === null || marked === null) return;
    const there = inStep(rising, [live.paper.text.length, marked.paper.text.length], offset);
    const blocks = [...pane.querySelectorAll<HTMLElement>('[data-from]')];
    const block = blocks.findLast(({ dataset }) => Number(dataset.from) <= there);
    if (block === undefined) return;
    const size = block.textContent.length;
    const share = size === 0 ? 0 : Math.min(1, (there - Number(block.dataset.from)) / size);
    const top = block.getBoundingClientRect().top - pane.getBoundingClientRect().top + pane.scrollTop;
    pane.scrollTo({ top: top + share * block.offsetHeight });
  };
}

import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { Remark } from '#core/model/remark.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Slip } from '../../../shared/remark/Slip.tsx';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';

const ALREADY = () => undefined;

/** On a narrow screen the slip in focus stands below the paper. */
export function Sheet({
  view,
  remark,
  onStep,
  at,
  of,
}: {
  view: AssignmentView;
  remark: Remark | undefined;
  onStep: (by: number) => void;
  /** Which of how many in this material. */
  at: number;
  of: number;
}) {
  return (
    <section
      aria-label={words.reading.slips}
      className="max-h-[58%] shrink-0 overflow-auto rounded-t-2xl border-t border-ink bg-surface p-2 shadow-(--shadow)"
    >
      <div className="flex items-center justify-between">
        <Button look="quiet" aria-label={words.reading.previous} onClick={() => onStep(-1)}>
          <ChevronLeft size={20} aria-hidden />
        </Button>
        <p className="text-sm text-quiet">
          {remark === undefined ? words.reading.tapMark : words.line.of(at, of)}
        </p>
        <Button look="quiet" aria-label={words.reading.next} onClick={() => onStep(1)}>
          <ChevronRight size={20} aria-hidden />
        </Button>
      </div>
      {remark !== undefined && (
        <Slip view={view} remark={remark} focused onFocus={ALREADY} unfolded onUnfold={ALREADY} />
      )}
    </section>
  );
}

import { revise } from '../../words/revising.ts';
import { useState, type ReactNode } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Answer } from '#core/check/answered.ts';
import { inPlanOrder } from '#core/plan/tasks.ts';
import { decisionsIn } from '#core/tally/decided.ts';
import type { Remark } from '#core/model/remark.ts';
import { Empty } from '../../shared/controls/Controls.tsx';
import { Toggles } from '../../shared/controls/Toggles.tsx';

/** The remarks that the next attempt answers, each shown as the kind of work needs it: all, to act on, or still open. */
export function RemarkList({
  work,
  answers,
  children,
}: {
  work: AssignmentView;
  answers: ReadonlyMap<string, Answer>;
  children: (remark: Remark) => ReactNode;
}) {
  const [which, setWhich] = useState<'open' | 'act' | 'all'>('act');
  const [order, setOrder] = useState<'paper' | 'plan'>('paper');
  const acts = work.remarks.filter(({ id }) => decisionsIn(work.judgements.get(id)).includes('act'));
  const open = acts.filter(({ id }) => answers.get(id)?.answered === false);
  const chosen = { open, act: acts, all: work.remarks }[which];
  const shown = order === 'paper' ? chosen : inPlanOrder(chosen, work.tasks);
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="font-serif font-semibold">{revise.slips}</h2>
        <Toggles
          className="ml-auto"
          look="words"
          label={revise.slips}
          options={[
            ['open', `${revise.filterOpen} ${open.length}`],
            ['act', `${revise.filterAct} ${acts.length}`],
            ['all', `${revise.filterAll} ${work.remarks.length}`],
          ]}
          chosen={which}
          onChoose={setWhich}
        />
        {work.tasks.length > 1 && (
          <Toggles
            look="words"
            label={revise.order}
            options={[
              ['paper', revise.orderPaper],
              ['plan', revise.orderPlan],
            ]}
            chosen={order}
            onChoose={setOrder}
          />
        )}
      </div>
      {shown.length === 0 ? (
        <Empty>{which === 'open' && acts.length > 0 ? revise.noneOpen : revise.noActs}</Empty>
      ) : (
        <ol className="grid gap-2">{shown.map(children)}</ol>
      )}
    </>
  );
}

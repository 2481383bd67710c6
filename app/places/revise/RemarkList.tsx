import { useState, type ReactNode } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { Empty } from '../../shared/controls/Controls.tsx';
import { Toggles } from '../../shared/controls/Toggles.tsx';
import * as words from '../../words/en.ts';

/** The remarks that the next attempt answers, those to act on or all, each shown as the kind of work needs it. */
export function RemarkList({
  work,
  children,
}: {
  work: AssignmentView;
  children: (remark: Remark) => ReactNode;
}) {
  const [all, setAll] = useState(false);
  const acts = work.remarks.filter(({ id }) => work.judgements.get(id)?.decision === 'act');
  const shown = all ? work.remarks : acts;
  return (
    <>
      <div className="mb-3 flex items-baseline gap-4">
        <h2 className="font-serif font-semibold">{words.revise.slips}</h2>
        <Toggles
          className="ml-auto"
          look="words"
          label={words.revise.slips}
          options={[
            ['act', `${words.revise.filterAct} ${acts.length}`],
            ['all', `${words.revise.filterAll} ${work.remarks.length}`],
          ]}
          chosen={all ? 'all' : 'act'}
          onChoose={(next) => setAll(next === 'all')}
        />
      </div>
      {shown.length === 0 ? (
        <Empty>{words.revise.noActs}</Empty>
      ) : (
        <ol className="grid gap-2">{shown.map(children)}</ol>
      )}
    </>
  );
}

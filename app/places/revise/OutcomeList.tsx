import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import type { Outcome } from '#core/anchors/outcome.ts';
import { pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import type { Task } from '#core/model/work.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { outcomeIcon } from './outcome-look.ts';
import { RemarkList } from './RemarkList.tsx';
import { DecisionSign } from '../../shared/remark/Decisions.tsx';
import { saidBy } from '../../shared/remark/said.ts';
import * as words from '../../words/en.ts';
import { tickTask } from '../../workspace/commands/plan.ts';

/** Tasks and remarks in reading order, each with a live sign of what became of its passage. */
export function OutcomeList({
  outlet: { work: view, live },
  focusedId,
  onShow,
}: {
  outlet: AssignmentOutlet;
  focusedId: string | null;
  onShow: (id: string) => void;
}) {
  return (
    <RemarkList work={view}>
      {(remark) => {
        const outcome = live?.byRemark.get(remark.id) ?? null;
        return (
          <OutcomeSlip
            key={remark.id}
            remark={remark}
            number={view.numberByRemark.get(remark.id) ?? 0}
            outcome={outcome}
            now={
              outcome === null || live === null
                ? ''
                : live.paper.text.slice(outcome.place.from, outcome.place.to)
            }
            task={view.tasks.find((planned) => planned.task.remarkIds.includes(remark.id))?.task ?? null}
            sign={<DecisionSign judgement={view.judgements.get(remark.id)} />}
            focused={remark.id === focusedId}
            onShow={() => onShow(remark.id)}
          />
        );
      }}
    </RemarkList>
  );
}

function OutcomeSlip({
  remark,
  number,
  outcome,
  now,
  task,
  sign,
  focused,
  onShow,
}: {
  remark: Remark;
  number: number;
  outcome: Outcome | null;
  now: string;
  task: Task | null;
  sign: React.ReactNode;
  focused: boolean;
  onShow: () => void;
}) {
  const workspace = useWorkspace();
  const quote = quotedWords(remark);
  const page = pageOf(remark);
  return (
    <li
      data-outcome={outcome?.kind ?? 'none'}
      data-remark={remark.id}
      className={clsx(
        'rounded-lg border border-l-[3px] bg-surface px-3 py-2',
        focused ? 'border-ink shadow-(--shadow)' : 'border-rule',
        task === null ? 'border-l-rule-strong' : 'border-l-act',
      )}
    >
      <div className="flex items-center gap-2.5 text-sm text-quiet">
        {task === null ? (
          sign
        ) : (
          <label className="inline-flex items-center gap-1.5">
            <CheckBox
              label={`${words.revise.tick}: ${task.title}`}
              checked={task.done}
              onChange={(done) => void tickTask(workspace, task, done)}
            />
            {task.minutes} {words.plan.minutesShort}
          </label>
        )}
        {page !== null && <span>{words.slip.page(page)}</span>}
        <OutcomeSign outcome={outcome} />
        <span aria-hidden>{number}</span>
      </div>
      <button
        type="button"
        onClick={onShow}
        aria-expanded={focused}
        className="mt-0.5 block w-full text-left"
      >
        <span className={clsx('block', !focused && 'line-clamp-3')}>{saidBy(remark)}</span>
      </button>
      {focused && outcome !== null && (
        <dl className="mt-2 border-t border-dashed border-rule pt-2 text-sm">
          {quote !== null && (
            <>
              <dt className="text-quiet">{words.revise.was}</dt>
              <dd className="mb-1.5 font-serif">{quote}</dd>
            </>
          )}
          {outcome.kind !== 'untouched' && (
            <>
              <dt className="text-quiet">
                {words.revise.now} · {words.revise.kept(Math.round(outcome.kept * 100))}
              </dt>
              <dd className="font-serif">{now === '' ? words.revise.nothingThere : now}</dd>
            </>
          )}
        </dl>
      )}
    </li>
  );
}

function OutcomeSign({ outcome }: { outcome: Outcome | null }) {
  if (outcome === null) return <span className="ml-auto" />;
  const Icon = outcomeIcon[outcome.kind];
  return (
    <span
      className={clsx(
        'ml-auto inline-flex items-center gap-1',
        outcome.kind === 'untouched' ? '' : 'font-semibold text-ink',
      )}
    >
      <Icon size="1em" aria-hidden />
      {words.outcomes[outcome.kind]}
    </span>
  );
}

import { revise } from '../../../words/revising.ts';
import clsx from 'clsx';
import type { Outcome } from '#core/anchors/outcome.ts';
import type { HowSet } from '#core/overlap/how-set.ts';
import { pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import type { RemarkRef, Task } from '#core/model/work.ts';
import { CheckBox } from '../../../shared/controls/CheckBox.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { DecisionSign } from '../../../shared/remark/Decisions.tsx';
import { saidBy } from '../../../shared/remark/said.ts';
import * as words from '../../../words/en.ts';
import { tickTask } from '../../../workspace/commands/plan.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { outcomeIcon } from '../outcome-look.ts';
import { AnswerTo } from './AnswerTo.tsx';
import { Suggestion } from './Suggestion.tsx';
import type { TextSide } from './text-side.ts';

/** A remark beside the draft: its task, what became of its words, and what answers it. */
export function AnswerSlip({
  remark,
  outlet,
  side,
  things,
  task,
  focused,
  onFocus,
  canChange,
  howSet = null,
}: {
  remark: Remark;
  outlet: AssignmentOutlet;
  side: TextSide;
  /** What of it is answered by itself. */
  things: readonly RemarkRef[];
  task: Task | null;
  focused: boolean;
  onFocus: () => void;
  canChange: boolean;
  /** Of a match: how its words are set in the draft. */
  howSet?: HowSet | null;
}) {
  const { work, live } = outlet;
  const workspace = useWorkspace();
  const outcome = live?.byRemark.get(remark.id) ?? null;
  const page = pageOf(remark);
  const quote = quotedWords(remark);
  const said = saidBy(remark);
  // A task that was named by the student, or joins remarks, tells more than the remark alone.
  const isNamed = task !== null && !said.startsWith(task.title.replace(/[.…]+$/, ''));
  return (
    <li
      data-outcome={outcome?.kind ?? 'none'}
      data-remark={remark.id}
      className={clsx(
        'scroll-m-3 rounded-lg border border-l-[3px] bg-surface px-3 py-2',
        focused ? 'border-ink shadow-(--shadow)' : 'border-rule',
        task === null ? 'border-l-rule-strong' : 'border-l-act',
      )}
    >
      <div className="flex items-center gap-2.5 text-sm text-quiet">
        {task === null ? (
          <DecisionSign judgement={work.judgements.get(remark.id)} />
        ) : (
          <label className="inline-flex items-center gap-1.5">
            <CheckBox
              label={`${revise.tick}: ${task.title}`}
              checked={task.done}
              onChange={(done) => void tickTask(workspace, task, done)}
            />
            {task.minutes} {words.plan.minutesShort}
          </label>
        )}
        {page !== null && <span>{words.slip.page(page)}</span>}
        <OutcomeSign outcome={outcome} />
        {howSet !== null && <span className="font-semibold text-ink">{howSetTold(howSet)}</span>}
        <span aria-hidden>{work.numberByRemark.get(remark.id) ?? 0}</span>
      </div>
      <button
        type="button"
        onClick={onFocus}
        aria-expanded={focused}
        className="mt-0.5 block w-full text-left"
      >
        {isNamed && <b className="block">{task.title}</b>}
        <span className={clsx('block', isNamed && 'text-sm text-quiet', !focused && 'line-clamp-3')}>
          {said}
        </span>
      </button>
      {focused && quote !== null && (
        <p className="mt-2 border-t border-dashed border-rule pt-2 text-sm">
          <span className="text-quiet">{revise.was}: </span>
          <span className="font-serif">{quote}</span>
        </p>
      )}
      {focused &&
        canChange &&
        remark.change !== null &&
        remark.change.kind !== 'format' &&
        outcome !== null && (
          <Suggestion remark={remark} change={remark.change} outcome={outcome} outlet={outlet} side={side} />
        )}
      {things.map((ref) => (
        <AnswerTo
          key={ref.partId ?? ''}
          of={ref}
          isPart={things.length > 1}
          number={work.numberByRemark.get(remark.id) ?? 0}
          outlet={outlet}
          side={side}
          focused={focused}
          canChange={canChange}
        />
      ))}
    </li>
  );
}

function howSetTold({ quoted, cited }: HowSet): string {
  if (quoted && cited) return revise.howSet.both;
  if (quoted) return revise.howSet.quoted;
  return cited ? revise.howSet.cited : revise.howSet.neither;
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

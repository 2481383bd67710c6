import { Explained } from '../../shared/controls/Explained.tsx';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { SortableList, SortableRow } from '../../shared/controls/Sortable.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { minutesIn } from '#core/plan/minutes.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import type { PlannedTask } from '#core/plan/tasks.ts';
import { changeKinds, type Task } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import { criterionFor, hundredths, type AssignmentView } from '#core/assignment/view.ts';
import {
  orderTasks,
  renameTask,
  setTaskKind,
  setTaskMinutes,
  tickTask,
} from '../../workspace/commands/plan.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import { TaskDetails } from './TaskDetails.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import { saidBy } from '../../shared/remark/said.ts';
import { SmallPlace } from '../../shared/remark/SmallPlace.tsx';
import { quotedWords, type Remark } from '#core/model/remark.ts';
import { partsOf, type RemarkPart } from '#core/saying/remark-parts.ts';

/** Tasks of the plan, to be put in order by dragging or with the keys. */
export function TaskList({
  view,
  tasks,
  others,
  noteOf,
  onOrdered,
}: {
  view: AssignmentView;
  tasks: readonly PlannedTask[];
  /** The tasks that stand before and behind these. */
  others: { readonly before: readonly PlannedTask[]; readonly behind: readonly PlannedTask[] };
  /** Why a task is not in the plan; null for those that are. */
  noteOf: (planned: PlannedTask) => string | null;
  /** The student gave the tasks an order. */
  onOrdered: () => void;
}) {
  const workspace = useWorkspace();
  const byId = new Map(tasks.map((planned) => [planned.task.id as string, planned]));
  const idsOf = (list: readonly PlannedTask[]) => list.map(({ task }) => task.id);
  return (
    <SortableList
      ids={[...byId.keys()]}
      titleOf={(id) => byId.get(id)?.task.title ?? ''}
      hint={words.plan.move}
      onOrder={async (ids) => {
        const all = [...idsOf(others.before), ...ids, ...idsOf(others.behind)];
        await orderTasks(workspace, view.assignment.id, all);
        onOrdered();
      }}
      className="grid grid-cols-1 gap-2"
      row={(id) => {
        const planned = byId.get(id);
        return planned === undefined ? null : (
          <TaskRow key={id} view={view} planned={planned} note={noteOf(planned)} />
        );
      }}
    />
  );
}

function TaskRow({
  view,
  planned,
  note,
}: {
  view: AssignmentView;
  planned: PlannedTask;
  note: string | null;
}) {
  const workspace = useWorkspace();
  const { task, behind, gain, importance } = planned;
  return (
    <SortableRow
      id={task.id}
      title={task.title}
      data-task={task.id}
      className={clsx(
        'flex items-center gap-2.5 max-md:flex-wrap rounded-lg border border-l-[3px] py-2 pr-3.5 pl-1',
        note === null ? 'border-rule border-l-act bg-surface' : 'border-dashed border-rule-strong bg-paper',
      )}
    >
      <CheckBox
        large
        label={`${words.plan.done}: ${task.title}`}
        checked={task.done}
        onChange={(done) => void tickTask(workspace, task, done)}
      />
      <div className="min-w-0 flex-1 pl-1">
        <TitleField key={task.title} task={task} />
        <div className="flex flex-wrap items-center gap-x-2 text-sm text-quiet">
          {note !== null && <span className="pl-1 font-semibold">{note}</span>}
          {note === null && task.pin === 'in' && (
            <span className="pl-1 font-semibold">{words.plan.pinnedIn}</span>
          )}
          <AboutLinks view={view} task={task} />
          <Select
            look="quiet"
            label={`${words.plan.kind}: ${task.title}`}
            value={task.kind}
            options={changeKinds.map((kind) => [kind, words.changeKinds[kind]] as const)}
            onChange={(value) => {
              const kind = changeKinds.find((one) => one === value);
              if (kind !== undefined) void setTaskKind(workspace, task, kind);
            }}
          />
          {task.who && <span className="font-semibold">{task.who}</span>}
          {task.steps.length > 0 && (
            <span>
              {words.plan.stepsDone(task.steps.filter(({ done }) => done).length, task.steps.length)}
            </span>
          )}
          <Fold
            className="data-[state=open]:basis-full"
            labelClass="hover:underline"
            label={
              <>
                {words.plan.details}
                <span className="sr-only">: {task.title}</span>
              </>
            }
          >
            <TaskDetails view={view} planned={planned} />
          </Fold>
        </div>
      </div>
      <div className="flex items-center gap-2.5 max-md:basis-full max-md:justify-between max-md:pl-17">
        <MinutesField
          key={task.minutes}
          title={task.title}
          minutes={task.minutes}
          onChange={(minutes) => void setTaskMinutes(workspace, task, minutes)}
        />
        <div className="min-w-24 text-right">
          {gain !== null && behind !== null && (
            <>
              <Explained text={words.plan.expected}>
                <b>+{hundredths(gain)}</b>
              </Explained>
              <p className="text-sm whitespace-nowrap text-quiet">
                {words.plan.ofPoints(hundredths(behind))}
              </p>
            </>
          )}
          {gain === null && importance > 0 && (
            <p className="text-sm whitespace-nowrap text-quiet">{words.rubric.importance(importance)}</p>
          )}
        </div>
      </div>
    </SortableRow>
  );
}

function TitleField({ task }: { task: Task }) {
  const workspace = useWorkspace();
  const [title, setTitle] = useState(task.title);
  const keep = () => {
    const next = title.trim();
    if (next === '') setTitle(task.title);
    else if (next !== task.title) void renameTask(workspace, task, next);
  };
  return (
    <textarea
      rows={1}
      aria-label={words.plan.taskTitle}
      value={title}
      onChange={(event) => setTitle(event.target.value.replaceAll('\n', ' '))}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
      }}
      className={clsx(
        'field-sizing-content block w-full resize-none rounded border border-transparent bg-transparent px-1 leading-snug font-semibold hover:border-rule',
        task.done && 'text-quiet line-through',
      )}
    />
  );
}

/** The remarks that a task answers: each opens here, with the passage that it is about. */
function AboutLinks({ view, task }: { view: AssignmentView; task: Task }) {
  if (task.about.length === 0) return <span className="pl-1">{words.plan.noRemark}</span>;
  return task.about.map(({ remarkId, partId }) => {
    const remark = view.about.remarks.find((one) => one.id === remarkId);
    if (remark === undefined) return <span key={remarkId}>{words.plan.noRemark}</span>;
    const criterion = criterionFor(view, remark);
    const parts = partsOf(remark, view.about);
    const part = parts.findIndex(({ id }) => id !== null && id === partId);
    return (
      <Fold
        key={`${remarkId} ${partId ?? ''}`}
        className="pl-1 data-[state=open]:basis-full"
        labelClass="hover:underline"
        label={
          <>
            {words.plan.remarks(String(view.about.numberByRemark.get(remarkId) ?? ''))}
            {part >= 0 && `, ${words.plan.partOf(part + 1, parts.length)}`}
            {criterion !== null && ` · ${criterion.title}`}
          </>
        }
      >
        <TaskRemark remark={remark} part={part < 0 ? null : parts[part]} />
      </Fold>
    );
  });
}

function TaskRemark({ remark, part }: { remark: Remark; part: RemarkPart | null }) {
  const quote = quotedWords(remark);
  const { text } = remark;
  return (
    <div className="my-1 border-l-2 border-rule-strong pl-3">
      {quote !== null && <p className="font-serif italic">“{quote}”</p>}
      <p className="whitespace-pre-wrap text-ink">
        {part === null ? (
          saidBy(remark)
        ) : (
          <>
            <span className="text-quiet">{text.slice(0, part.from)}</span>
            {text.slice(part.from, part.to)}
            <span className="text-quiet">{text.slice(part.to)}</span>
          </>
        )}
      </p>
      <Link
        to={assignmentAddress(remark.assignmentId, 'read', { remark: remark.id })}
        className="font-semibold text-accent hover:underline"
      >
        {words.deciding.inItsPlace}
      </Link>
      {text === '' && remark.change === null && <SmallPlace remark={remark} />}
    </div>
  );
}

function MinutesField({
  title,
  minutes,
  onChange,
}: {
  title: string;
  minutes: number;
  onChange: (minutes: number) => void;
}) {
  const [text, setText] = useState(String(minutes));
  const [wrong, setWrong] = useState(false);
  const note = useId();
  const keep = () => {
    const next = minutesIn(text);
    setWrong(next === null);
    if (next === null) return;
    setText(String(next));
    if (next !== minutes) onChange(next);
  };
  return (
    <label className="relative flex items-baseline gap-1 text-sm text-quiet">
      <input
        type="text"
        aria-label={`${words.plan.minutes}: ${title}`}
        aria-invalid={wrong}
        aria-describedby={wrong ? note : undefined}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key !== 'Escape') return;
          setText(String(minutes));
          setWrong(false);
        }}
        className={clsx(
          'w-11 rounded border bg-transparent px-1 text-right text-base text-ink hover:border-rule',
          wrong ? 'border-ink' : 'border-transparent',
        )}
      />
      {words.plan.minutesShort}
      {wrong && (
        <span
          id={note}
          role="alert"
          className="absolute top-full right-0 z-10 mt-1 w-60 rounded-md border border-rule-strong bg-surface px-2 py-1 text-ink shadow-(--shadow)"
        >
          {words.plan.minutesWrong(minutes)}
        </span>
      )}
    </label>
  );
}

import { useState } from 'react';
import { X } from 'lucide-react';
import { toast } from 'sonner';
import type { Task } from '#core/model/work.ts';
import { hundredths, type AssignmentView } from '#core/assignment/view.ts';
import type { PlannedTask } from '#core/plan/tasks.ts';
import { circleThrough } from '#core/plan/time.ts';
import { compare, subtract } from '#core/scores/fraction.ts';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { Button } from '../../shared/controls/Controls.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { shownShare } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import {
  dropTask,
  joinTasks,
  pinTask,
  setTaskNeeds,
  setTaskSteps,
  setTaskWho,
  splitTask,
} from '../../workspace/commands/plan.ts';
import { startSpell } from '../../workspace/commands/week.ts';
import { useGradeGain } from '../../workspace/state/use-grade-gain.ts';
import { useSpent } from '../../workspace/state/week.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { titleOfRemark } from './remark-title.ts';

/** All of a task that its row has no room for. */
export function TaskDetails({ view, planned }: { view: AssignmentView; planned: PlannedTask }) {
  const workspace = useWorkspace();
  const { task } = planned;
  const others = view.tasks.flatMap(({ task: one }) => (one.id === task.id || one.done ? [] : one));
  const pins = Object.entries(words.plan.pins);
  return (
    <div className="my-1.5 grid grid-cols-1 gap-2 border-l-2 border-rule-strong pl-3 text-ink">
      <Worth view={view} planned={planned} />
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-quiet">{words.plan.pin}</span>
        <Select
          look="tool"
          label={`${words.plan.pin}: ${task.title}`}
          value={task.pin ?? ''}
          options={pins}
          onChange={(value) =>
            void pinTask(workspace, task, value === 'in' || value === 'out' ? value : null)
          }
        />
        <Button
          look="quiet"
          className="min-h-0 py-0"
          onClick={() => void startSpell(workspace, task.id)}
          disabled={task.done}
        >
          {words.plan.start}
        </Button>
        <Spent task={task} />
        <Who view={view} task={task} />
      </div>
      <Needs view={view} task={task} others={others} />
      <Steps key={task.steps.length} task={task} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        {others.length > 0 && (
          <Select
            look="tool"
            label={`${words.plan.joinWith}: ${task.title}`}
            value=""
            options={[['', words.plan.joinWith], ...others.map((one) => [one.id, one.title] as const)]}
            className="max-w-56"
            onChange={(id) => {
              const other = others.find((one) => one.id === id);
              if (other !== undefined) void joinTasks(workspace, [task, other]);
            }}
          />
        )}
        <Button
          look="quiet"
          className="min-h-0 py-0"
          onClick={() =>
            void splitTask(workspace, task, (ref) => titleOfRemark(workspace, view, ref) ?? task.title)
          }
        >
          {task.about.length > 1 ? words.plan.splitRemarks : words.plan.split}
        </Button>
        {task.about.length === 0 && (
          <Button look="quiet" className="min-h-0 py-0" onClick={() => void dropTask(workspace, task)}>
            {words.plan.drop}
          </Button>
        )}
      </div>
    </div>
  );
}

function Worth({ view, planned: { behind, gain } }: { view: AssignmentView; planned: PlannedTask }) {
  const grade = useGradeGain(view, gain ?? 0);
  if (behind === null || gain === null) return null;
  return (
    <p>
      {words.plan.arithmetic(hundredths(behind), hundredths(gain))}
      {grade !== null &&
        compare(grade.then, grade.now) > 0 &&
        `, ${words.plan.onGrade(shownShare(subtract(grade.then, grade.now)))}`}
    </p>
  );
}

/** In a group's work, who of it does this. */
function Who({ view, task }: { view: AssignmentView; task: Task }) {
  const workspace = useWorkspace();
  const members = view.assignment.group?.members ?? [];
  if (members.length === 0) return null;
  const names = [...new Set([...members, ...(task.who ? [task.who] : [])])];
  return (
    <>
      <span className="text-quiet">{words.plan.who}</span>
      <Select
        look="tool"
        label={words.plan.whoOf(task.title)}
        value={task.who ?? ''}
        options={[['', words.plan.whoNobody], ...names.map((name) => [name, name] as const)]}
        onChange={(who) => void setTaskWho(workspace, task, who)}
      />
    </>
  );
}

function Spent({ task }: { task: Task }) {
  const spent = useSpent().get(task.id) ?? 0;
  return spent === 0 ? null : <span className="text-quiet">{words.plan.spent(words.plan.hours(spent))}</span>;
}

function Needs({ view, task, others }: { view: AssignmentView; task: Task; others: readonly Task[] }) {
  const workspace = useWorkspace();
  const titles = new Map(view.tasks.map(({ task: one }) => [one.id as string, one.title]));
  const free = others.filter(({ id }) => !task.needs.includes(id));
  const add = (id: string) => {
    const needed = free.find((one) => one.id === id);
    if (needed === undefined) return;
    const circle = circleThrough(
      view.tasks.map((one) => one.task),
      task.id,
      needed.id,
    );
    if (circle === null) void setTaskNeeds(workspace, task, [...task.needs, needed.id]);
    else
      toast.error(words.plan.circle(circle.map((one) => `“${titles.get(one) ?? ''}”`).join(' → ')), {
        duration: 12_000,
      });
  };
  if (free.length === 0 && task.needs.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="text-quiet">{words.plan.needsFirst}</span>
      {task.needs.map((id) => (
        <span key={id} className="inline-flex max-w-72 items-center rounded border border-rule pl-1.5">
          <span className="truncate">{titles.get(id)}</span>
          <Taken
            label={words.plan.dropNeed(titles.get(id) ?? '')}
            onClick={() =>
              void setTaskNeeds(
                workspace,
                task,
                task.needs.filter((one) => one !== id),
              )
            }
          />
        </span>
      ))}
      {free.length > 0 && (
        <Select
          look="tool"
          label={`${words.plan.needsFirst}: ${task.title}`}
          value=""
          options={[['', words.plan.addNeed], ...free.map((one) => [one.id, one.title] as const)]}
          className="max-w-56"
          onChange={add}
        />
      )}
    </div>
  );
}

function Taken({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="rounded px-1.5 py-1 text-quiet hover:text-ink"
    >
      <X size={14} aria-hidden />
    </button>
  );
}

function Steps({ task }: { task: Task }) {
  const workspace = useWorkspace();
  const [text, setText] = useState('');
  const { steps } = task;
  const add = () => {
    const title = text.trim();
    if (title === '') return;
    setText('');
    void setTaskSteps(workspace, task, [...steps, { title, done: false }]);
  };
  return (
    <div>
      <ul>
        {steps.map((step, index) => (
          <li key={`${index} ${step.title}`} className="flex items-center gap-2">
            <CheckBox
              label={`${words.plan.done}: ${step.title}`}
              checked={step.done}
              onChange={(done) =>
                void setTaskSteps(
                  workspace,
                  task,
                  steps.map((one, n) => (n === index ? { ...one, done } : one)),
                )
              }
            />
            <span className={step.done ? 'text-quiet line-through' : ''}>{step.title}</span>
            <Taken
              label={words.plan.dropStep(step.title)}
              onClick={() =>
                void setTaskSteps(
                  workspace,
                  task,
                  steps.filter((_, n) => n !== index),
                )
              }
            />
          </li>
        ))}
      </ul>
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <input
          type="text"
          aria-label={`${words.plan.addStep}: ${task.title}`}
          placeholder={words.plan.addStep}
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="w-56 rounded border border-rule bg-paper px-1.5 py-1"
        />
        <Button type="submit" look="quiet" className="min-h-0 py-0" disabled={text.trim() === ''}>
          {words.plan.add}
        </Button>
      </form>
    </div>
  );
}

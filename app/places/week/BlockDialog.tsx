import { useState } from 'react';
import { Link } from 'react-router';
import { asId, instantOf, TaskId } from '#core/model/ids.ts';
import { dayAfter, dayOf, momentOf } from '#core/plan/free-hours.ts';
import { clockOf, minuteOfDay } from '#core/plan/hours-typed.ts';
import { minutesIn } from '#core/plan/minutes.ts';
import { LEAST_MINUTES, type PlacedBlock } from '#core/plan/place.ts';
import { minuteIn } from '#core/plan/week-days.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { SelectField, TextField } from '../../shared/controls/Field.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { shownDay } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { freeBlock, setBlock, startSpell } from '../../workspace/commands/week.ts';
import type { WeekPlan } from '../../workspace/state/week.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { reasonNotThen, tasksOfBlock, viewOfBlock, type Names } from './block-words.ts';

/** So many days ahead a block can be set to from here. */
const DAYS_AHEAD = 28;

/** A block: what is done in it, and when; set to another time, or let go, or begun. */
export function BlockDialog({
  block,
  plan,
  names,
  nowMs,
  onClose,
}: {
  block: PlacedBlock;
  plan: WeekPlan;
  names: Names;
  nowMs: number;
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  const zone = ownZone();
  const own = dayOf(block.from, zone);
  const [day, setDay] = useState(own);
  const [clock, setClock] = useState(clockOf(minuteIn(block.from, own, zone)));
  const [minutes, setMinutes] = useState(String((block.to - block.from) / 60_000));
  const [error, setError] = useState<string | null>(null);
  const view = viewOfBlock(block, names);
  const today = dayOf(nowMs, zone);
  const days = [
    ...new Set([own, ...Array.from({ length: DAYS_AHEAD }, (_, n) => dayAfter(today, n))]),
  ].sort();
  const start = minuteOfDay(clock);
  const long = minutesIn(minutes);
  const keep = () => {
    if (start === null || long === null) return;
    const from = momentOf(day, clockOf(start), zone);
    const to = from + Math.max(LEAST_MINUTES, long) * 60_000;
    const reason = reasonNotThen(block, { from, to }, plan, nowMs, names);
    setError(reason);
    if (reason !== null) return;
    void setBlock(workspace, block, { from, to });
    onClose();
  };
  const begin = () => {
    void startSpell(workspace, asId(TaskId, block.taskIds[0]));
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={words.week.dialog}
      lead={words.week.dialogLead(view?.assignment.title ?? '')}
    >
      <ul className="mb-4 list-disc pl-5 font-semibold">
        {tasksOfBlock(block, names).map((title, index) => (
          <li key={block.taskIds[index]}>{title}</li>
        ))}
      </ul>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <div className="grid grid-cols-[1fr_6rem_6rem] gap-3">
          <SelectField
            label={words.week.day}
            value={day}
            options={days.map(
              (one) => [one, shownDay(instantOf(momentOf(one, '12:00', zone)), zone)] as const,
            )}
            onChange={setDay}
          />
          <TextField
            label={words.week.at}
            value={clock}
            onChange={(event) => setClock(event.target.value)}
            error={start === null ? words.week.atWrong : undefined}
          />
          <TextField
            label={words.week.minutes}
            value={minutes}
            onChange={(event) => setMinutes(event.target.value)}
            error={long === null ? words.plan.minutesWrong((block.to - block.from) / 60_000) : undefined}
          />
        </div>
        {error !== null && (
          <p role="alert" className="mt-2 font-semibold">
            {error}
          </p>
        )}
        <div className="mt-4 flex flex-wrap gap-3">
          <Button type="submit" look="main" disabled={start === null || long === null}>
            {words.week.keep}
          </Button>
          {block.pinned && (
            <Button
              onClick={() => {
                void freeBlock(workspace, {
                  id: block.id,
                  taskIds: block.taskIds.map((id) => asId(TaskId, id)),
                });
                onClose();
              }}
            >
              {words.week.free}
            </Button>
          )}
          <Button onClick={begin}>{words.plan.start}</Button>
          {view !== null && (
            <Link
              to={assignmentAddress(view.assignment.id, 'plan')}
              className="self-center font-semibold text-accent hover:underline"
            >
              {words.week.toPlan}
            </Link>
          )}
        </div>
      </form>
    </Dialog>
  );
}

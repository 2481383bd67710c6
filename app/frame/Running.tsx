import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Spell, Task } from '#core/model/work.ts';
import { Button } from '../shared/controls/Controls.tsx';
import { assignmentAddress } from '../shared/page/addresses.ts';
import { ownZone } from '../shared/shown/own-zone.ts';
import { shownTime } from '../shared/shown/shown.ts';
import * as words from '../words/en.ts';
import { tickTask } from '../workspace/commands/plan.ts';
import { endSpell, seeSpell } from '../workspace/commands/week.ts';
import { useWorkspace, useWorkspaceState } from '../workspace/use-workspace.ts';

/** So often a page says that a spell goes on; one that was not seen for longer than it takes twice was left. */
const SEEN_EVERY_MS = 60_000;
const LEFT_AFTER_MS = 2.5 * SEEN_EVERY_MS;

/** The task that is worked on, with the minutes so far; after a closing or a sleep it asks what of them counts. */
export function Running() {
  const spells = useWorkspaceState(({ records }) => records.spells);
  const tasks = useWorkspaceState(({ records }) => records.tasks);
  const running = [...spells.values()].find(({ to }) => to === null);
  const task = tasks.get(running?.taskId ?? '');
  if (running === undefined || task === undefined) return null;
  return <RunningSpell key={running.id} spell={running} task={task} />;
}

function RunningSpell({ spell, task }: { spell: Spell; task: Task }) {
  const workspace = useWorkspace();
  const [nowMs, setNowMs] = useState(() => workspace.nowMs());
  const seenMs = Date.parse(spell.lastSeen);
  const isLeft = nowMs - seenMs > LEFT_AFTER_MS;
  useEffect(() => {
    const tick = () => {
      const now = workspace.nowMs();
      setNowMs(now);
      const gap = now - Date.parse(spell.lastSeen);
      if (gap >= SEEN_EVERY_MS && gap <= LEFT_AFTER_MS)
        workspace.inBackground(() => seeSpell(workspace, spell));
    };
    const timer = setInterval(tick, 5000);
    return () => clearInterval(timer);
  }, [workspace, spell]);
  const fromMs = Date.parse(spell.from);
  const time = (ms: number) => words.plan.hours(Math.max(0, Math.floor(ms / 60_000)));
  const end = (toMs: number) => void endSpell(workspace, spell, toMs);
  return (
    <section
      aria-label={words.week.counted}
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule bg-sunken px-5 py-1 text-sm max-md:px-4"
    >
      <p className="min-w-0">
        {isLeft ? (
          words.week.stale(task.title, shownTime(spell.from, ownZone()), shownTime(spell.lastSeen, ownZone()))
        ) : (
          <Link to={assignmentAddress(task.assignmentId, 'plan')} className="hover:underline">
            {words.week.running(task.title, time(nowMs - fromMs))}
          </Link>
        )}
      </p>
      <span className="ml-auto flex flex-wrap gap-3">
        {isLeft ? (
          <>
            <Button look="quiet" onClick={() => end(seenMs)}>
              {words.week.countSeen(time(seenMs - fromMs))}
            </Button>
            <Button look="quiet" onClick={() => end(nowMs)}>
              {words.week.countNow(time(nowMs - fromMs))}
            </Button>
            <Button look="quiet" onClick={() => end(fromMs)}>
              {words.week.countNone}
            </Button>
          </>
        ) : (
          <>
            <Button look="quiet" onClick={() => end(workspace.nowMs())}>
              {words.week.stop}
            </Button>
            <Button
              look="quiet"
              onClick={() => {
                end(workspace.nowMs());
                void tickTask(workspace, task, true);
              }}
            >
              {words.week.done}
            </Button>
          </>
        )}
      </span>
    </section>
  );
}

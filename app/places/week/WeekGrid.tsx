import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import clsx from 'clsx';
import { useState } from 'react';
import { instantOf } from '#core/model/ids.ts';
import { momentOf } from '#core/plan/free-hours.ts';
import { clockOf } from '#core/plan/hours-typed.ts';
import { LEAST_MINUTES, type PlacedBlock } from '#core/plan/place.ts';
import type { Span } from '#core/plan/spans.ts';
import { hoursDrawn, minuteIn, type WeekDay } from '#core/plan/week-days.ts';
import type { BusySpan } from '#formats/calendar/read-calendar.ts';
import { useSize } from '../../shared/page/hooks.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { shownDay, shownTime } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { BlockCard, MINUTE_PX } from './BlockCard.tsx';
import type { Names } from './block-words.ts';
import type { Due } from './Week.tsx';
import { dueWords } from './WeekList.tsx';

const HOUR_PX = 60 * MINUTE_PX;
/** A block is set to whole steps of so many minutes. */
const STEP_MINUTES = 5;
const KEY_MINUTES = 15;
const AXIS_REM = 2.6;

interface Drawn {
  readonly days: readonly WeekDay<BusySpan>[];
  readonly hours: readonly [from: number, to: number];
  readonly names: Names;
}

/** The days side by side, hours downwards; blocks are dragged to another time or made longer. */
export function WeekGrid({
  days,
  dues,
  names,
  nowMs,
  today,
  onOpen,
  onMove,
}: {
  days: readonly WeekDay<BusySpan>[];
  dues: readonly Due[];
  names: Names;
  nowMs: number;
  today: string;
  onOpen: (block: PlacedBlock) => void;
  onMove: (block: PlacedBlock, from: number, to: number) => void;
}) {
  const zone = ownZone();
  const [frame, { width }] = useSize<HTMLDivElement>();
  const [moving, setMoving] = useState('');
  const hours = hoursDrawn(days, zone);
  const columnPx = width / days.length;
  const coordinates: KeyboardCoordinateGetter = (event, { currentCoordinates: { x, y } }) => {
    const step = KEY_MINUTES * MINUTE_PX;
    const by: Readonly<Partial<Record<string, readonly [number, number]>>> = {
      ArrowDown: [0, step],
      ArrowUp: [0, -step],
      ArrowRight: [columnPx, 0],
      ArrowLeft: [-columnPx, 0],
    };
    const moved = by[event.code];
    if (moved === undefined) return undefined;
    event.preventDefault();
    return { x: x + moved[0], y: y + moved[1] };
  };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: coordinates }),
  );
  /** Where a drag leaves its block; null outside the days. */
  const spanAfter = ({ active, delta }: DragMoveEvent): { block: PlacedBlock; span: Span } | null => {
    const [what, id] = splitOnce(String(active.id));
    const index = days.findIndex(({ blocks }) => blocks.some((one) => one.id === id));
    const block = days.at(index)?.blocks.find((one) => one.id === id);
    if (index < 0 || block === undefined) return null;
    const minutes = Math.round(delta.y / MINUTE_PX / STEP_MINUTES) * STEP_MINUTES;
    if (what === 'length') {
      const to = Math.max(block.from + LEAST_MINUTES * 60_000, block.to + minutes * 60_000);
      return { block, span: { from: block.from, to } };
    }
    const to = index + Math.round(delta.x / columnPx);
    if (to < 0 || to >= days.length) return null;
    const long = block.to - block.from;
    const start = minuteIn(block.from, days[index].day, zone) + minutes;
    const clamped = Math.min(Math.max(0, start), 1440 - long / 60_000);
    const from = momentOf(days[to].day, clockOf(clamped), zone);
    return { block, span: { from, to: from + long } };
  };
  const told = ({ from, to }: Span, how: typeof words.week.moving) =>
    how(shownDay(instantOf(from), zone), shownTime(instantOf(from), zone), shownTime(instantOf(to), zone));
  const end = (event: DragEndEvent) => {
    const after = spanAfter(event);
    setMoving('');
    if (after === null) return;
    const { block, span } = after;
    if (span.from === block.from && span.to === block.to) return;
    setMoving(told(span, words.week.set));
    onMove(block, span.from, span.to);
  };
  const height = (hours[1] - hours[0]) * HOUR_PX;
  return (
    <DndContext
      sensors={sensors}
      onDragMove={(event) => {
        const after = spanAfter(event);
        setMoving(after === null ? '' : told(after.span, words.week.moving));
      }}
      onDragEnd={end}
      onDragCancel={() => setMoving('')}
      accessibility={{
        announcements: {
          onDragStart: () => undefined,
          onDragOver: () => undefined,
          onDragEnd: () => undefined,
          onDragCancel: () => words.sorting.cancelled,
        },
        screenReaderInstructions: { draggable: words.week.hint },
      }}
    >
      <p role="status" className="h-5 text-sm font-semibold">
        {moving}
      </p>
      <div className="flex" data-scroller>
        <div aria-hidden className="relative shrink-0" style={{ width: `${AXIS_REM}rem` }}>
          <div className="absolute right-1 bottom-0 text-xs text-quiet" style={{ height }}>
            {Array.from({ length: hours[1] - hours[0] }, (_, n) => (
              <span key={n} className="absolute right-0 -translate-y-1/2" style={{ top: n * HOUR_PX }}>
                {n === 0 ? '' : clockOf((hours[0] + n) * 60)}
              </span>
            ))}
          </div>
        </div>
        <div ref={frame} className="min-w-0 flex-1">
          <ol className="grid" style={{ gridTemplateColumns: `repeat(${days.length}, minmax(0, 1fr))` }}>
            {days.map((day) => (
              <li key={day.day} className="flex min-w-0 flex-col border-l border-rule last:border-r">
                <div className="grow px-1.5 pb-1.5">
                  <h2 className={clsx('text-sm', day.day === today ? 'font-bold text-accent' : 'text-quiet')}>
                    {shownDay(instantOf(day.span.from), zone)}
                  </h2>
                  {dues
                    .filter(({ atMs }) => atMs >= day.span.from && atMs < day.span.to)
                    .map((due) => (
                      <p key={due.view.assignment.id} className="text-xs leading-tight font-semibold">
                        {dueWords(due, zone)}
                      </p>
                    ))}
                </div>
                <Column
                  day={day}
                  drawn={{ days, hours, names }}
                  nowMs={nowMs}
                  height={height}
                  onOpen={onOpen}
                />
              </li>
            ))}
          </ol>
        </div>
      </div>
    </DndContext>
  );
}

/** What is dragged, and of which block. */
function splitOnce(id: string): [string, string] {
  const at = id.indexOf(' ');
  return [id.slice(0, at), id.slice(at + 1)];
}

function Column({
  day,
  drawn: { hours, names },
  nowMs,
  height,
  onOpen,
}: {
  day: WeekDay<BusySpan>;
  drawn: Drawn;
  nowMs: number;
  height: number;
  onOpen: (block: PlacedBlock) => void;
}) {
  const zone = ownZone();
  const placeOf = ({ from, to }: Span) => {
    const start = minuteIn(Math.max(from, day.span.from), day.day, zone) - hours[0] * 60;
    const end = minuteIn(Math.min(to, day.span.to), day.day, zone) - hours[0] * 60;
    const top = Math.max(0, start) * MINUTE_PX;
    return { top, height: Math.max(0, Math.min(height, end * MINUTE_PX) - top) };
  };
  const now = nowMs >= day.span.from && nowMs < day.span.to ? placeOf({ from: nowMs, to: nowMs }).top : null;
  return (
    <div className="relative overflow-hidden border-y border-rule bg-sunken" style={{ height }}>
      {day.free.map((span) => (
        <div key={span.from} aria-hidden className="absolute inset-x-0 bg-surface" style={placeOf(span)} />
      ))}
      {day.busy.map((span) => (
        <div
          key={`${span.from} ${span.title}`}
          title={span.title}
          className="absolute inset-x-0.5 overflow-hidden rounded border border-dashed border-rule-strong bg-sunken px-1 text-xs leading-tight text-quiet"
          style={placeOf(span)}
        >
          {words.week.busy(span.title)}
        </div>
      ))}
      {now !== null && (
        <div aria-hidden className="absolute inset-x-0 z-10 h-px bg-accent" style={{ top: now }} />
      )}
      {day.blocks.map((block) => (
        <BlockCard key={block.id} block={block} place={placeOf(block)} names={names} onOpen={onOpen} />
      ))}
    </div>
  );
}

import { useState } from 'react';
import * as words from '../../../words/en.ts';

export const LEAST_SLIP = 240;
const STEP = 24;

/** The edge of the slips, to be dragged or moved by arrow keys: how wide they are. */
export function SlipEdge({
  at,
  height,
  side,
  width,
  most,
  onWidth,
}: {
  at: number;
  height: number;
  side: 'left' | 'right';
  width: number;
  most: number;
  onWidth: (width: number) => void;
}) {
  const [drag, setDrag] = useState<{ from: number; by: number } | null>(null);
  const wider = side === 'right' ? -1 : 1;
  const within = (wanted: number) => Math.round(Math.max(LEAST_SLIP, Math.min(most, wanted)));
  const dragged = drag === null ? width : within(width + wider * drag.by);
  return (
    <div
      role="separator"
      aria-orientation="vertical"
      aria-label={words.reading.slipWidth}
      aria-valuenow={dragged}
      aria-valuemin={LEAST_SLIP}
      aria-valuemax={Math.round(most)}
      tabIndex={0}
      className="group absolute top-0 z-20 w-3 cursor-col-resize touch-none"
      style={{ left: at - 6 + wider * (dragged - width), height }}
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag({ from: event.clientX, by: 0 });
      }}
      onPointerMove={(event) => {
        if (drag !== null) setDrag({ ...drag, by: event.clientX - drag.from });
      }}
      onPointerUp={(event) => {
        if (drag === null) return;
        setDrag(null);
        onWidth(within(width + wider * (event.clientX - drag.from)));
      }}
      onPointerCancel={() => setDrag(null)}
      onKeyDown={(event) => {
        const by = event.key === 'ArrowRight' ? STEP : event.key === 'ArrowLeft' ? -STEP : 0;
        if (by === 0) return;
        event.preventDefault();
        onWidth(within(width + wider * by));
      }}
    >
      <span
        aria-hidden
        className={`mx-auto block h-full w-px ${drag === null ? 'bg-transparent group-hover:bg-rule-strong group-focus-visible:bg-ink' : 'bg-ink'}`}
      />
    </div>
  );
}

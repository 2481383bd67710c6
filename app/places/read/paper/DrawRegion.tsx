import { useState, type PointerEvent } from 'react';
import * as words from '../../../words/en.ts';

/** A part of a picture, in its own pixels. */
export interface Region {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Less than this, in pixels of the screen, was a click and no box. */
const LEAST = 6;

/** Lies over a picture while a box is drawn on it with mouse, pen or finger. */
export function DrawRegion({ scale, onDrawn }: { scale: number; onDrawn: (region: Region) => void }) {
  const [from, setFrom] = useState<{ x: number; y: number } | null>(null);
  const [to, setTo] = useState<{ x: number; y: number } | null>(null);
  const at = (event: PointerEvent<HTMLDivElement>) => {
    const frame = event.currentTarget.getBoundingClientRect();
    return {
      x: Math.min(frame.width, Math.max(0, event.clientX - frame.left)),
      y: Math.min(frame.height, Math.max(0, event.clientY - frame.top)),
    };
  };
  const box =
    from === null || to === null
      ? null
      : {
          left: Math.min(from.x, to.x),
          top: Math.min(from.y, to.y),
          width: Math.abs(from.x - to.x),
          height: Math.abs(from.y - to.y),
        };
  const end = () => {
    setFrom(null);
    setTo(null);
    if (box === null || box.width < LEAST || box.height < LEAST) return;
    onDrawn({
      x: Math.round(box.left / scale),
      y: Math.round(box.top / scale),
      width: Math.round(box.width / scale),
      height: Math.round(box.height / scale),
    });
  };
  return (
    <div
      aria-label={words.reading.drawing}
      role="application"
      className="absolute inset-0 z-20 cursor-crosshair touch-none outline-2 outline-accent"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setFrom(at(event));
        setTo(at(event));
      }}
      onPointerMove={(event) => from !== null && setTo(at(event))}
      onPointerUp={end}
      onPointerCancel={() => setFrom(null)}
    >
      {box !== null && (
        <div className="absolute border-2 border-[#1e2a2c] shadow-[0_0_0_1.5px_#fff]" style={box} />
      )}
    </div>
  );
}

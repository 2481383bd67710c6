import clsx from 'clsx';
import { useIsHovered } from '../paper/hovered.ts';

export interface CurveEnds {
  readonly id: string;
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

/** What joins each passage with its slip, on whichever side that stands. */
export function Curves({
  ends,
  width,
  height,
  focusedId,
  faint,
}: {
  ends: readonly CurveEnds[];
  width: number;
  height: number;
  focusedId: string | null;
  /** Those of folded slips: so many stand close that only the one in focus is to stand out. */
  faint: ReadonlySet<string>;
}) {
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute inset-0 z-10"
      width={width}
      height={height}
      fill="none"
    >
      {ends.map((one) => (
        <Curve key={one.id} {...one} focused={one.id === focusedId} faint={faint.has(one.id)} />
      ))}
    </svg>
  );
}

function Curve({ id, from, to, focused, faint }: CurveEnds & { focused: boolean; faint: boolean }) {
  const hovered = useIsHovered(id);
  const strong = focused || hovered;
  const way = to.x < from.x ? -1 : 1;
  const bend = way * Math.max(20, Math.abs(to.x - from.x) / 2);
  return (
    <g
      data-curve={id}
      className={clsx(strong ? 'stroke-ink' : 'stroke-rule-strong', !strong && faint && 'opacity-35')}
    >
      <path
        d={`M${from.x} ${from.y}C${from.x + bend} ${from.y} ${to.x - bend} ${to.y} ${to.x} ${to.y}`}
        strokeWidth={strong ? 2 : 1}
      />
      <circle
        cx={from.x}
        cy={from.y}
        r={strong ? 3.5 : 2.2}
        className={strong ? 'fill-ink' : 'fill-rule-strong'}
        stroke="none"
      />
    </g>
  );
}

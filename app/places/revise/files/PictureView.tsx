import type { PictureShare, PictureSize } from '#core/check/picture-places.ts';
import clsx from 'clsx';
import { useRef, useState, type PointerEvent, type ReactNode } from 'react';
import { useFileUrl } from '../../../shared/files/file-url.ts';
import * as words from '../../../words/en.ts';

/** Marked rectangles over a picture: those of the remark in focus stand out. */
export interface Marked {
  readonly id: string;
  /** null: a box that is being made, of no remark yet. */
  readonly number: number | null;
  readonly share: PictureShare;
  readonly focused: boolean;
  /** Where it was seen to in the new picture, not where it was made. */
  readonly isAnswer: boolean;
}

/** Smaller than this, in shares of the picture, is a slip of the hand and no place. */
const LEAST_SHARE = 0.008;

/** A picture with rectangles on it; one more can be drawn where `onDraw` is given. */
export function PictureView({
  hash,
  name,
  marks,
  onSize,
  onDraw,
  children,
}: {
  hash: string;
  name: string;
  marks: readonly Marked[];
  onSize?: (size: PictureSize) => void;
  onDraw?: ((share: PictureShare) => void) | undefined;
  /** What lies over the picture, under its marks. */
  children?: ReactNode;
}) {
  const url = useFileUrl(hash);
  const box = useRef<HTMLDivElement>(null);
  const [drawing, setDrawing] = useState<{ from: [number, number]; to: [number, number] } | null>(null);
  const at = (event: PointerEvent): [number, number] => {
    const { left, top, width, height } = box.current?.getBoundingClientRect() ?? new DOMRect(0, 0, 1, 1);
    const within = (value: number) => Math.min(1, Math.max(0, value));
    return [within((event.clientX - left) / width), within((event.clientY - top) / height)];
  };
  const end = () => {
    if (drawing === null) return;
    const share = between(drawing.from, drawing.to);
    setDrawing(null);
    if (share.width >= LEAST_SHARE && share.height >= LEAST_SHARE) onDraw?.(share);
  };
  return (
    <div
      ref={box}
      className={clsx('relative w-full select-none', onDraw !== undefined && 'cursor-crosshair touch-none')}
      onPointerDown={(event) => {
        if (onDraw === undefined || event.button !== 0) return;
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrawing({ from: at(event), to: at(event) });
      }}
      onPointerMove={(event) => {
        if (drawing !== null) setDrawing({ ...drawing, to: at(event) });
      }}
      onPointerUp={end}
      onPointerCancel={() => setDrawing(null)}
    >
      {url === null ? (
        <p className="p-6 text-quiet">{words.reading.opening}</p>
      ) : (
        <img
          src={url}
          alt={name}
          draggable={false}
          className="block w-full"
          onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
            onSize?.({ width: naturalWidth, height: naturalHeight })
          }
        />
      )}
      {children}
      {marks.map((mark) => (
        <RegionBox key={`${mark.id} ${mark.share.x} ${mark.share.y}`} mark={mark} />
      ))}
      {drawing !== null && (
        <Box share={between(drawing.from, drawing.to)} className="border-2 border-dashed border-accent" />
      )}
    </div>
  );
}

function RegionBox({ mark: { number, share, focused, isAnswer } }: { mark: Marked }) {
  return (
    <Box
      share={share}
      className={clsx(
        'pointer-events-none',
        focused ? 'border-2' : 'border opacity-60',
        isAnswer ? 'border-dashed border-accent' : 'border-act',
      )}
    >
      {number !== null && (
        <span
          className={clsx(
            'absolute -top-3 -left-px rounded-sm px-1 text-xs font-bold text-on-accent',
            isAnswer ? 'bg-accent' : 'bg-act',
          )}
        >
          {number}
        </span>
      )}
    </Box>
  );
}

function Box({
  share,
  className,
  children,
}: {
  share: PictureShare;
  className: string;
  children?: ReactNode;
}) {
  return (
    <span
      aria-hidden
      className={clsx('absolute', className)}
      style={{
        left: `${share.x * 100}%`,
        top: `${share.y * 100}%`,
        width: `${share.width * 100}%`,
        height: `${share.height * 100}%`,
      }}
    >
      {children}
    </span>
  );
}

function between([x1, y1]: [number, number], [x2, y2]: [number, number]): PictureShare {
  return { x: Math.min(x1, x2), y: Math.min(y1, y2), width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) };
}

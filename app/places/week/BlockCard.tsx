import { useDraggable } from '@dnd-kit/core';
import clsx from 'clsx';
import { Pin } from 'lucide-react';
import type { ReactNode } from 'react';
import { instantOf } from '#core/model/ids.ts';
import { LEAST_MINUTES, type PlacedBlock } from '#core/plan/place.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import { shownTime } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { titleOfBlock, viewOfBlock, type Names } from './block-words.ts';

const HOUR_PX = 50;
/** How high a line of a block's text is. */
const LINE_PX = 15;
/** How high a minute is drawn. */
export const MINUTE_PX = HOUR_PX / 60;

/** A block in its day: dragged to another time, made longer at its lower edge, opened with a click. */
export function BlockCard({
  block,
  place,
  names,
  onOpen,
}: {
  block: PlacedBlock;
  place: { readonly top: number; readonly height: number };
  names: Names;
  onOpen: (block: PlacedBlock) => void;
}) {
  const zone = ownZone();
  const {
    setNodeRef,
    attributes,
    listeners,
    transform: moved,
    isDragging,
  } = useDraggable({ id: `block ${block.id}` });
  const length = useLength(block);
  const title = titleOfBlock(block, names);
  const lines = Math.floor((place.height - 2) / LINE_PX);
  const time = (ms: number) => shownTime(instantOf(ms), zone);
  return (
    <div
      data-block={block.id}
      className={clsx('absolute inset-x-0.5', (isDragging || length.isDragging) && 'z-20')}
      style={{
        top: place.top,
        height: Math.max(LEAST_MINUTES * MINUTE_PX, place.height + length.longer),
        transform: moved === null ? undefined : `translate(${moved.x}px, ${moved.y}px)`,
      }}
    >
      <button
        type="button"
        ref={setNodeRef}
        {...attributes}
        {...listeners}
        onClick={() => onOpen(block)}
        className="flex size-full touch-none flex-col items-start overflow-hidden rounded border border-l-[3px] border-rule-strong/50 border-l-act bg-paper px-1.5 text-left text-xs leading-tight shadow-(--shadow) hover:border-ink"
      >
        <span className="flex w-full items-start gap-1">
          <b
            className="line-clamp-1 min-w-0 flex-1"
            style={{ WebkitLineClamp: Math.max(1, Math.min(3, lines - 1)) }}
          >
            {title}
          </b>
          {block.pinned && <Pin size={11} aria-hidden className="mt-0.5 shrink-0" />}
        </span>
        <span className="sr-only">{words.week.blockAt(time(block.from), time(block.to), block.pinned)}</span>
        {lines > 1 && (
          <span className="line-clamp-1 text-quiet">{viewOfBlock(block, names)?.assignment.title}</span>
        )}
      </button>
      {length.handle(words.week.lengthOf(title))}
    </div>
  );
}

/** The handle by which a block is made longer or shorter. */
function useLength({ id }: PlacedBlock): {
  readonly isDragging: boolean;
  /** By so many pixels, while it is dragged. */
  readonly longer: number;
  readonly handle: (label: string) => ReactNode;
} {
  const { setNodeRef, attributes, listeners, transform, isDragging } = useDraggable({ id: `length ${id}` });
  return {
    isDragging,
    longer: transform?.y ?? 0,
    handle: (label) => (
      <button
        type="button"
        ref={setNodeRef}
        {...attributes}
        {...listeners}
        aria-label={label}
        className="absolute inset-x-0 bottom-0 h-1.5 cursor-ns-resize touch-none rounded-b"
      />
    ),
  };
}

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import clsx from 'clsx';
import { GripVertical } from 'lucide-react';
import { useState, type ComponentProps, type ReactNode } from 'react';
import * as words from '../../words/en.ts';

/** A list that is put in order by dragging its rows, or with the keys. */
export function SortableList({
  ids: given,
  titleOf,
  hint,
  onOrder,
  className,
  row,
}: {
  ids: readonly string[];
  titleOf: (id: string) => string;
  /** What is told to a screen reader about moving. */
  hint: string;
  /** Settled when the order is kept. */
  onOrder: (ids: readonly string[]) => Promise<void>;
  className?: string;
  row: (id: string) => ReactNode;
}) {
  // While an order is being saved the list already stands as it was dropped.
  const [dropped, setDropped] = useState<readonly string[] | null>(null);
  const known = new Set(given);
  const ids =
    dropped?.every((id) => known.has(id)) === true && dropped.length === known.size
      ? [...dropped]
      : [...given];
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (over === null || active.id === over.id) return;
    const order = arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
    setDropped(order);
    void onOrder(order).finally(() => setDropped(null));
  };
  const announcements: Announcements = {
    onDragStart: ({ active }) => words.sorting.pickedUp(titleOf(String(active.id))),
    onDragOver: ({ active, over }) =>
      over === null
        ? undefined
        : words.sorting.moved(titleOf(String(active.id)), ids.indexOf(String(over.id)) + 1, ids.length),
    onDragEnd: ({ active }) => words.sorting.dropped(titleOf(String(active.id))),
    onDragCancel: () => words.sorting.cancelled,
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
      accessibility={{ announcements, screenReaderInstructions: { draggable: hint } }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol className={className}>{ids.map((id) => row(id))}</ol>
      </SortableContext>
    </DndContext>
  );
}

/** A row of such a list, with the handle by which it is moved. */
export function SortableRow({
  id,
  title,
  className,
  children,
  ...rest
}: ComponentProps<'li'> & { id: string; title: string }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={clsx(className, isDragging && 'relative z-20 bg-surface shadow-(--shadow)')}
      {...rest}
    >
      <button
        type="button"
        className="cursor-grab touch-none rounded p-1 text-quiet hover:text-ink"
        {...attributes}
        {...listeners}
        aria-label={words.sorting.drag(title)}
      >
        <GripVertical size={17} aria-hidden />
      </button>
      {children}
    </li>
  );
}

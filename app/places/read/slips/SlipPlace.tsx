import clsx from 'clsx';
import { memo, useCallback, type ComponentProps } from 'react';
import { Slip } from '../../../shared/remark/Slip.tsx';
import { hover, useIsHovered } from '../paper/hovered.ts';
import { sizeKey } from './slip-sizes.ts';

/** A slip where it stands beside the paper. Only those near are drawn; a screen reader is told of all. */
export const SlipPlace = memo(function SlipPlace({
  number,
  of,
  left,
  width,
  top,
  onMeasure,
  ...slip
}: Omit<ComponentProps<typeof Slip>, 'extra'> & {
  number: number;
  of: number;
  left: number;
  width: number;
  top: number;
  /** Takes the element whose height counts; null once it is gone. */
  onMeasure: (id: string, element: HTMLElement | null) => void;
}) {
  const { id } = slip.remark;
  const hovered = useIsHovered(id);
  const key = sizeKey(id, slip.compact === true && !slip.focused);
  const ref = useCallback((element: HTMLElement | null) => onMeasure(key, element), [key, onMeasure]);
  return (
    <li
      ref={ref}
      aria-setsize={of}
      aria-posinset={number}
      className={clsx('absolute rounded-lg', hovered && 'ring-2 ring-rule-strong')}
      onMouseEnter={() => hover(id)}
      onMouseLeave={() => hover(null)}
      style={{ left, width, top }}
    >
      <Slip {...slip} />
    </li>
  );
});

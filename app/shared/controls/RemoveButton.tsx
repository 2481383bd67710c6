import clsx from 'clsx';
import { Tooltip } from './Tooltip.tsx';
import { X } from 'lucide-react';
import { Button } from './Controls.tsx';

/** Takes one row of a form out. */
export function RemoveButton({
  label,
  onClick,
  beside = 'field',
}: {
  label: string;
  onClick: () => void;
  /** A field with its label above it, or a line of text. */
  beside?: 'field' | 'line';
}) {
  return (
    <Tooltip text={label}>
      <Button
        look="quiet"
        className={clsx('px-2 text-quiet hover:text-ink', beside === 'field' && 'mt-5')}
        aria-label={label}
        onClick={onClick}
      >
        <X size={17} aria-hidden />
      </Button>
    </Tooltip>
  );
}

import { Tooltip } from './Tooltip.tsx';
import { X } from 'lucide-react';
import { Button } from './Controls.tsx';

/** Takes one row of a form out. */
export function RemoveButton({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <Tooltip text={label}>
      <Button
        look="quiet"
        className="mt-5 px-2 text-quiet hover:text-ink"
        aria-label={label}
        onClick={onClick}
      >
        <X size={17} aria-hidden />
      </Button>
    </Tooltip>
  );
}

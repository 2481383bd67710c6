import clsx from 'clsx';
import { ChevronRight } from 'lucide-react';
import { Collapsible as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** Something that is there when it is asked for: a line of words that opens, and closes again. */
export function Fold({
  label,
  labelClass = 'font-semibold text-accent',
  className,
  children,
  ...state
}: {
  label: ReactNode;
  labelClass?: string;
  className?: string;
  children: ReactNode;
  defaultOpen?: boolean;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
}) {
  return (
    <Radix.Root className={className} {...state}>
      <Radix.Trigger className={clsx('group inline-flex items-baseline gap-1 text-left', labelClass)}>
        <ChevronRight
          size="0.75em"
          aria-hidden
          className="shrink-0 translate-y-[0.05em] group-data-[state=open]:rotate-90"
        />
        <span>{label}</span>
      </Radix.Trigger>
      <Radix.Content>{children}</Radix.Content>
    </Radix.Root>
  );
}

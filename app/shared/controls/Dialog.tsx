import clsx from 'clsx';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A dialog over the page, with its title and a sentence of what it is about. */
export function Dialog({
  open,
  onClose,
  title,
  lead,
  wide = false,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  lead: string;
  /** For what has to be seen as a whole: a page, a picture. */
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-[rgb(20_25_25/0.35)]" />
        <Radix.Content
          className={clsx(
            'fixed left-1/2 top-1/2 z-50 max-h-[85vh] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-xl border border-rule bg-surface p-5 shadow-(--shadow)',
            wide ? 'w-[min(54rem,calc(100vw-2rem))]' : 'w-[min(32rem,calc(100vw-2rem))]',
          )}
        >
          <Radix.Title className="font-serif text-lg font-semibold">{title}</Radix.Title>
          <Radix.Description className="mt-1 mb-4 text-quiet">{lead}</Radix.Description>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

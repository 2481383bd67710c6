import { Tooltip as Radix } from 'radix-ui';
import type { ReactElement, ReactNode } from 'react';

/** Says what a control without words does, on hover and on focus. The control has the same words as its label. */
export function Tooltip({ text, children }: { text: ReactNode; children: ReactElement }) {
  return (
    <Radix.Provider delayDuration={400}>
      <Radix.Root>
        <Radix.Trigger asChild>{children}</Radix.Trigger>
        <Radix.Portal>
          <Radix.Content
            sideOffset={5}
            collisionPadding={8}
            className="z-50 max-w-64 rounded-md border border-rule bg-ink px-2 py-1 text-sm text-paper"
          >
            {text}
          </Radix.Content>
        </Radix.Portal>
      </Radix.Root>
    </Radix.Provider>
  );
}

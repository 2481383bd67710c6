import clsx from 'clsx';
import { Popover as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** Words or a figure that say on demand, to the mouse, a finger or a key, what they mean. */
export function Explained({
  text,
  more,
  className,
  children,
}: {
  text: string;
  /** What else is said, below it. */
  more?: ReactNode;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Radix.Root>
      <Radix.Trigger
        className={clsx('underline decoration-dotted underline-offset-4 [text-align:inherit]', className)}
        onClick={(event) => event.stopPropagation()}
      >
        {children}
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          sideOffset={5}
          collisionPadding={8}
          aria-label={text}
          className="z-50 max-w-72 rounded-md border border-rule bg-surface px-3 py-2 text-sm shadow-(--shadow)"
          onClick={(event) => event.stopPropagation()}
        >
          {more === undefined ? (
            text
          ) : (
            <>
              <p className="font-semibold">{text}</p>
              {more}
            </>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

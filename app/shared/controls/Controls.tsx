import clsx from 'clsx';
import type { ComponentProps, ReactNode } from 'react';

type Look = 'main' | 'plain' | 'quiet';

const LOOKS: Record<Look, string> = {
  main: 'px-3 bg-accent text-on-accent border-accent hover:opacity-90',
  plain: 'px-3 bg-surface border-rule-strong/60 hover:border-ink',
  quiet: 'px-1 border-transparent text-accent hover:underline',
};

/** A button; `main` for the one thing to do next. */
export function Button({ look = 'plain', className, ...rest }: ComponentProps<'button'> & { look?: Look }) {
  return (
    <button
      type="button"
      className={clsx(
        'inline-flex min-h-9 items-center justify-center gap-1.5 rounded-md border py-1 font-semibold disabled:opacity-50',
        LOOKS[look],
        className,
      )}
      {...rest}
    />
  );
}

/** A dashed box that says what is not here and what to do about it. */
export function Empty({ children }: { children: ReactNode }) {
  return (
    <div className="rounded-lg border border-dashed border-rule-strong/70 p-5 text-quiet">
      <div className="max-w-prose">{children}</div>
    </div>
  );
}

export function SectionTitle({ children, id }: { children: ReactNode; id?: string }) {
  return (
    <h2 id={id} className="font-serif text-[1.12rem] font-semibold">
      {children}
    </h2>
  );
}

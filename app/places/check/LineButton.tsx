import type { ReactNode } from 'react';

/** Something that can be done about a line, small beside what the line says. */
export function LineButton({
  label,
  onClick,
  children,
}: {
  /** Which line's it is, for whoever doesn't see it. */
  label?: string;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="min-h-6 text-sm font-semibold text-accent hover:underline"
    >
      {children}
    </button>
  );
}

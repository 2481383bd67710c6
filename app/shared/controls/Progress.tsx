import { Progress as Radix } from 'radix-ui';

/** How much of something is done. */
export function Progress({ done, of, labelledBy }: { done: number; of: number; labelledBy: string }) {
  return (
    <Radix.Root
      aria-labelledby={labelledBy}
      value={done}
      max={of}
      className="h-1.5 w-full overflow-hidden rounded-full bg-rule"
    >
      <Radix.Indicator className="h-full bg-accent" style={{ width: `${(100 * done) / Math.max(1, of)}%` }} />
    </Radix.Root>
  );
}

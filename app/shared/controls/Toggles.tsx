import clsx from 'clsx';
import { Toggle as RadixToggle, ToggleGroup as Radix } from 'radix-ui';
import type { ComponentProps } from 'react';
import { Button } from './Controls.tsx';

/** A button that is pressed or not. */
export function ToggleButton({
  pressed,
  onToggle,
  ...button
}: Omit<ComponentProps<typeof Button>, 'onClick'> & { pressed: boolean; onToggle: () => void }) {
  return (
    <RadixToggle.Root asChild pressed={pressed} onPressedChange={onToggle}>
      <Button {...button} />
    </RadixToggle.Root>
  );
}

const LOOKS = {
  boxed: {
    on: 'rounded-md border border-ink px-2.5 py-1 font-semibold',
    off: 'rounded-md border border-rule px-2.5 py-1 text-quiet hover:border-ink',
  },
  words: { on: 'font-bold underline', off: 'text-quiet hover:underline' },
};

/** One of a few ways to look at something. */
export function Toggles<Value extends string>({
  label,
  look = 'boxed',
  options,
  chosen,
  onChoose,
  className,
}: {
  label: string;
  look?: keyof typeof LOOKS;
  options: readonly (readonly [Value, string])[];
  chosen: Value | null;
  onChoose: (value: Value) => void;
  className?: string;
}) {
  return (
    <Radix.Root
      type="single"
      aria-label={label}
      value={chosen ?? ''}
      onValueChange={(next) => {
        // One of them always holds.
        const found = options.find(([value]) => value === next);
        if (found !== undefined) onChoose(found[0]);
      }}
      className={clsx('flex flex-wrap items-center gap-2 text-sm', className)}
    >
      {options.map(([value, shown]) => (
        <Radix.Item key={value} value={value} className={LOOKS[look][value === chosen ? 'on' : 'off']}>
          {shown}
        </Radix.Item>
      ))}
    </Radix.Root>
  );
}

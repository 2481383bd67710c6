import clsx from 'clsx';
import { Check } from 'lucide-react';
import { Checkbox as Radix } from 'radix-ui';

/** A box to tick. Its name is that of the label around it, else `label`. */
export function CheckBox({
  checked,
  onChange,
  label,
  large = false,
  className,
  ...rest
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  label?: string | undefined;
  large?: boolean;
  className?: string | undefined;
  id?: string;
  disabled?: boolean;
  onBlur?: () => void;
}) {
  return (
    <Radix.Root
      checked={checked}
      onCheckedChange={(next) => onChange(next === true)}
      aria-label={label}
      className={clsx(
        'inline-grid shrink-0 place-items-center rounded border border-rule-strong bg-surface hover:border-ink disabled:opacity-60 data-[state=checked]:border-accent data-[state=checked]:bg-accent',
        large ? 'h-5 w-5' : 'h-[1.15rem] w-[1.15rem]',
        className,
      )}
      {...rest}
    >
      <Radix.Indicator>
        <Check size={14} strokeWidth={3} aria-hidden className="text-on-accent" />
      </Radix.Indicator>
    </Radix.Root>
  );
}

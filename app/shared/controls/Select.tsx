import clsx from 'clsx';
import { Check, ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';
import type { Ref } from 'react';

/** Stands for the empty value, which Radix keeps for "nothing chosen". */
const EMPTY = 'empty';
const given = (value: string) => (value === '' ? EMPTY : `=${value}`);
const taken = (value: string) => (value === EMPTY ? '' : value.slice(1));

const LOOKS = {
  /** A field of a form. */
  field: 'mt-1 w-full rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5 font-normal',
  /** One of a row of tools. */
  tool: 'rounded border border-rule bg-surface px-1.5 py-1 text-sm',
  /** Within a line of text. */
  quiet: 'rounded border border-transparent py-0.5 text-sm text-quiet hover:border-rule',
};

export interface SelectProps {
  /** What is chosen, for a screen reader; none where a label names it by `id`. */
  readonly label?: string | undefined;
  readonly value: string;
  /** Values with what is shown for each. */
  readonly options: readonly (readonly [string, string])[];
  readonly onChange: (value: string) => void;
  readonly onBlur?: () => void;
  readonly look?: keyof typeof LOOKS;
  readonly id?: string;
  readonly className?: string | undefined;
  readonly 'aria-invalid'?: boolean;
  readonly 'aria-describedby'?: string | undefined;
  readonly ref?: Ref<HTMLButtonElement>;
}

/** One of several, chosen from a list that opens. */
export function Select({ label, value, options, onChange, look = 'field', className, ...rest }: SelectProps) {
  return (
    <Radix.Root value={given(value)} onValueChange={(next) => onChange(taken(next))}>
      <Radix.Trigger
        aria-label={label}
        className={clsx(
          'inline-flex max-w-full min-w-0 items-center justify-between gap-1.5 text-left aria-invalid:border-2 aria-invalid:border-ink',
          LOOKS[look],
          className,
        )}
        {...rest}
      >
        <span className="truncate">
          <Radix.Value />
        </span>
        <Radix.Icon asChild>
          <ChevronDown size={14} aria-hidden className="shrink-0 text-quiet" />
        </Radix.Icon>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 max-h-(--radix-select-content-available-height) max-w-[min(28rem,90vw)] min-w-(--radix-select-trigger-width) overflow-auto rounded-lg border border-rule bg-surface p-1.5 text-sm shadow-(--shadow)"
        >
          <Radix.Viewport>
            {options.map(([each, shown]) => (
              <Radix.Item
                key={each}
                value={given(each)}
                className="flex min-h-8 cursor-pointer items-center gap-2 rounded px-2 py-1 outline-none data-[highlighted]:bg-sunken"
              >
                <span className="w-4 shrink-0" aria-hidden>
                  <Radix.ItemIndicator>
                    <Check size={15} />
                  </Radix.ItemIndicator>
                </span>
                <Radix.ItemText>{shown}</Radix.ItemText>
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

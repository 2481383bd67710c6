import clsx from 'clsx';
import { RadioGroup as Radix } from 'radix-ui';
import { useId } from 'react';

interface RadioListProps<Value extends string> {
  options: readonly { readonly value: Value; readonly label: string }[];
  /** null: none yet. */
  chosen: Value | null;
  onChoose: (value: Value) => void;
}

/** One of a few, all in sight, under a heading. */
export function Radios<Value extends string>({
  title,
  lead,
  ...list
}: RadioListProps<Value> & { title: string; lead?: string }) {
  const id = useId();
  return (
    <section>
      <h2 id={id} className="font-serif text-[1.12rem] font-semibold">
        {title}
      </h2>
      {lead !== undefined && <p className="text-sm text-quiet">{lead}</p>}
      <RadioList aria-labelledby={id} className="mt-2 flex flex-wrap gap-x-6 gap-y-2" {...list} />
    </section>
  );
}

/** One of a few, all in sight. */
export function RadioList<Value extends string>({
  options,
  chosen,
  onChoose,
  className,
  ...rest
}: RadioListProps<Value> & { className?: string; 'aria-label'?: string; 'aria-labelledby'?: string }) {
  return (
    <Radix.Root
      value={chosen}
      onValueChange={(next) => {
        const found = options.find(({ value }) => value === next);
        if (found !== undefined) onChoose(found.value);
      }}
      className={clsx(className)}
      {...rest}
    >
      {options.map(({ value, label }) => (
        <label key={value} className="inline-flex items-center gap-2">
          <Radix.Item
            value={value}
            className="inline-grid h-[1.15rem] w-[1.15rem] shrink-0 place-items-center rounded-full border border-rule-strong bg-surface hover:border-ink data-[state=checked]:border-accent"
          >
            <Radix.Indicator className="block h-2.5 w-2.5 rounded-full bg-accent" />
          </Radix.Item>
          {label}
        </label>
      ))}
    </Radix.Root>
  );
}

import { RadioGroup as Radix } from 'radix-ui';
import { useId } from 'react';

/** One of a few, all in sight. */
export function Radios<Value extends string>({
  title,
  lead,
  options,
  chosen,
  onChoose,
}: {
  title: string;
  lead?: string;
  options: readonly { readonly value: Value; readonly label: string }[];
  chosen: Value;
  onChoose: (value: Value) => void;
}) {
  const id = useId();
  return (
    <section>
      <h2 id={id} className="font-serif text-[1.12rem] font-semibold">
        {title}
      </h2>
      {lead !== undefined && <p className="text-sm text-quiet">{lead}</p>}
      <Radix.Root
        aria-labelledby={id}
        value={chosen}
        onValueChange={(next) => {
          const found = options.find(({ value }) => value === next);
          if (found !== undefined) onChoose(found.value);
        }}
        className="mt-2 flex flex-wrap gap-x-6 gap-y-2"
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
    </section>
  );
}

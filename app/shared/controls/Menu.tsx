import { Check, ChevronDown } from 'lucide-react';
import { DropdownMenu as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

const ITEM =
  'flex min-h-9 cursor-pointer items-center gap-2 rounded px-2.5 py-1 outline-none data-[highlighted]:bg-sunken data-[disabled]:opacity-50';

/** A button that opens a list of things to do or to switch. */
export function Menu({ label, children }: { label: ReactNode; children: ReactNode }) {
  return (
    <Radix.Root modal={false}>
      <Radix.Trigger className="inline-flex min-h-8 items-center gap-1 rounded-md px-1.5 py-1 font-semibold whitespace-nowrap text-accent hover:underline">
        {label}
        <ChevronDown size={15} aria-hidden />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          align="end"
          sideOffset={4}
          collisionPadding={8}
          className="z-30 min-w-52 rounded-lg border border-rule bg-surface p-1.5 text-sm shadow-(--shadow)"
        >
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

export function MenuItem({ onSelect, children }: { onSelect: () => void; children: ReactNode }) {
  return (
    <Radix.Item className={ITEM} onSelect={onSelect}>
      <span className="w-4" aria-hidden />
      {children}
    </Radix.Item>
  );
}

/** One of several, which is chosen. */
export function MenuChoice({
  value,
  options,
  onChoose,
}: {
  value: string;
  /** Values with what is shown for each. */
  options: readonly (readonly [string, string])[];
  onChoose: (value: string) => void;
}) {
  return (
    <Radix.RadioGroup value={value} onValueChange={onChoose}>
      {options.map(([each, shown]) => (
        <Radix.RadioItem key={each} value={each} className={ITEM}>
          <span className="w-4" aria-hidden>
            <Radix.ItemIndicator>
              <Check size={15} />
            </Radix.ItemIndicator>
          </span>
          {shown}
        </Radix.RadioItem>
      ))}
    </Radix.RadioGroup>
  );
}

/** Something that is on or off. */
export function MenuSwitch({
  on,
  onToggle,
  children,
}: {
  on: boolean;
  onToggle: () => void;
  children: ReactNode;
}) {
  return (
    <Radix.CheckboxItem className={ITEM} checked={on} onCheckedChange={onToggle}>
      <span className="w-4" aria-hidden>
        <Radix.ItemIndicator>
          <Check size={15} />
        </Radix.ItemIndicator>
      </span>
      {children}
    </Radix.CheckboxItem>
  );
}

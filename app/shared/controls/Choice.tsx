import { useId } from 'react';
import { Select } from './Select.tsx';

/** A labelled list to choose one from. */
export function Choice({
  label,
  of = '',
  value,
  options,
  onChange,
}: {
  label: string;
  /** What it is a choice for, where that is in sight already: told to a screen reader only. */
  of?: string;
  value: string;
  /** Values with what is shown for each. */
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <div className="min-w-0 text-sm">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <Select id={id} label={`${label}${of}`} value={value} options={options} onChange={onChange} />
    </div>
  );
}

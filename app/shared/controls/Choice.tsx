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
  return (
    <label className="block min-w-0 text-sm font-semibold">
      {label}
      <select
        aria-label={`${label}${of}`}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="mt-1 block w-full max-w-full rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5 font-normal"
      >
        {options.map(([each, shown]) => (
          <option key={each} value={each}>
            {shown}
          </option>
        ))}
      </select>
    </label>
  );
}

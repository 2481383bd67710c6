import { Slider as Radix } from 'radix-ui';

/** A share from 0 to 1 in steps, drawn by hand or moved with the arrow keys. */
export function Slider({
  label,
  value,
  onChange,
  valueText,
  steps = 100,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
  valueText: string;
  steps?: number;
}) {
  return (
    <Radix.Root
      value={[Math.round(value * steps)]}
      min={0}
      max={steps}
      step={1}
      onValueChange={([next]) => onChange(next / steps)}
      className="relative flex h-8 w-full touch-none items-center select-none"
    >
      <Radix.Track className="relative h-1 grow rounded-full bg-rule-strong">
        <Radix.Range className="absolute h-full rounded-full bg-accent" />
      </Radix.Track>
      <Radix.Thumb
        aria-label={label}
        aria-valuetext={valueText}
        className="block size-5 rounded-full border-2 border-accent bg-surface"
      />
    </Radix.Root>
  );
}

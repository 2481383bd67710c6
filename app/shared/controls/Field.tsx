import clsx from 'clsx';
import { useId, type ComponentProps, type ReactNode } from 'react';

const inputLook =
  'mt-1 block w-full rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5 font-normal aria-invalid:border-2 aria-invalid:border-ink';

interface FieldProps {
  readonly label: string;
  readonly hint?: string | undefined;
  /** What is wrong with it, at the place. */
  readonly error?: string | undefined;
  readonly className?: string | undefined;
}

interface Ids {
  readonly id: string;
  readonly 'aria-invalid': boolean;
  readonly 'aria-describedby': string | undefined;
}

/** A labelled field with its hint and what is wrong with it; a screen reader tells both after the field's name. */
function Field({
  label,
  hint,
  error,
  className,
  children,
}: FieldProps & { children: (ids: Ids) => ReactNode }) {
  const id = useId();
  const note = error ?? hint;
  const noteId = `${id}-note`;
  return (
    <div className={clsx('min-w-0 text-sm', className)}>
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      {children({
        id,
        'aria-invalid': error !== undefined,
        'aria-describedby': note === undefined ? undefined : noteId,
      })}
      {note !== undefined && (
        <p
          id={noteId}
          role={error === undefined ? undefined : 'alert'}
          className={error === undefined ? 'mt-0.5 text-quiet' : 'mt-0.5 font-semibold'}
        >
          {note}
        </p>
      )}
    </div>
  );
}

export function TextField({ label, hint, error, className, ...input }: FieldProps & ComponentProps<'input'>) {
  return (
    <Field label={label} hint={hint} error={error} className={className}>
      {(ids) => <input type="text" autoComplete="off" className={inputLook} {...ids} {...input} />}
    </Field>
  );
}

export function AreaField({
  label,
  hint,
  error,
  className,
  ...area
}: FieldProps & ComponentProps<'textarea'>) {
  return (
    <Field label={label} hint={hint} error={error} className={className}>
      {(ids) => <textarea rows={3} className={clsx(inputLook, 'field-sizing-content')} {...ids} {...area} />}
    </Field>
  );
}

export function SelectField({
  label,
  hint,
  error,
  className,
  options,
  ...select
}: FieldProps & ComponentProps<'select'> & { options: readonly (readonly [string, string])[] }) {
  return (
    <Field label={label} hint={hint} error={error} className={className}>
      {(ids) => (
        <select className={inputLook} {...ids} {...select}>
          {options.map(([value, shown]) => (
            <option key={value} value={value}>
              {shown}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

export function CheckField({ label, className, ...input }: FieldProps & ComponentProps<'input'>) {
  return (
    <label className={clsx('flex items-center gap-2 text-sm font-semibold', className)}>
      <input type="checkbox" className="h-5 w-5 shrink-0 accent-accent" {...input} />
      {label}
    </label>
  );
}

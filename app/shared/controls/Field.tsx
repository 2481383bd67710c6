import clsx from 'clsx';
import { useController } from 'react-hook-form';
import { CheckBox } from './CheckBox.tsx';
import { Select, type SelectProps } from './Select.tsx';
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

type SelectFieldProps = FieldProps &
  Pick<SelectProps, 'value' | 'options' | 'onChange'> & { 'aria-label'?: string };

export function SelectField({
  label,
  hint,
  error,
  className,
  'aria-label': said = label,
  ...select
}: SelectFieldProps) {
  return (
    <Field label={label} hint={hint} error={error} className={className}>
      {(ids) => <Select label={said} {...ids} {...select} />}
    </Field>
  );
}

/** The same as a field of the form around it. */
export function FormSelect({
  name,
  ...field
}: Omit<SelectFieldProps, 'value' | 'onChange'> & { name: string }) {
  const { field: own } = useController<Record<string, string>>({ name });
  return <SelectField {...field} value={own.value} onChange={own.onChange} />;
}

/** A box to tick, as a field of the form around it. */
export function FormCheck({ name, label, className }: { name: string; label: string; className?: string }) {
  const { field } = useController<Record<string, boolean>>({ name });
  return (
    <label className={clsx('flex items-center gap-2 text-sm font-semibold', className)}>
      <CheckBox large checked={field.value} onChange={field.onChange} onBlur={field.onBlur} />
      {label}
    </label>
  );
}

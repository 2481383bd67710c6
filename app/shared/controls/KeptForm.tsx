import { valibotResolver } from '@hookform/resolvers/valibot';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import {
  FormProvider,
  useForm,
  type DefaultValues,
  type FieldValues,
  type UseFormReturn,
} from 'react-hook-form';
import { useNavigate } from 'react-router';
import type * as v from 'valibot';
import * as words from '../../words/en.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { forgetFormDraft, useFormDraft } from '../page/form-draft.ts';
import { Button } from './Controls.tsx';

const said = words.keptForm;

interface Kept<Fields extends FieldValues> {
  readonly name: string;
  readonly form: UseFormReturn<Fields, unknown, Fields>;
  /** Whether what was typed before was put back. */
  readonly restored: boolean;
}

/**
 * A form of a whole page, whose typing outlives the page until it is kept or left on purpose.
 * @param name under which what is typed stays with the browser
 */
export function useKeptForm<Fields extends FieldValues>(
  name: string,
  schema: v.GenericSchema<Fields>,
  initial: Fields,
): Kept<Fields> {
  const form = useForm<Fields, unknown, Fields>({
    resolver: valibotResolver(schema),
    defaultValues: initial as DefaultValues<Fields>,
    mode: 'onTouched',
  });
  return { name, form, restored: useFormDraft(name, form, initial) };
}

/** Its page: what it is, its fields, and how it is kept, left, or what it is about removed. */
export function KeptForm<Fields extends FieldValues>({
  kept: { name, form, restored },
  title,
  lead,
  main = false,
  wide = false,
  back,
  onKeep,
  remove,
  children,
}: {
  kept: Kept<Fields>;
  title: string;
  lead?: string;
  /** Whether it is a place of its own, not one of an assignment. */
  main?: boolean;
  wide?: boolean;
  /** Where it leads when it is left. */
  back: string;
  /** Keeps what was typed; resolves to the address that it leads to then. */
  onKeep: (fields: Fields) => Promise<string>;
  remove?: { readonly label: string; readonly act: () => Promise<unknown>; readonly to: string } | undefined;
  children: ReactNode;
}) {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const leave = (to: string) => {
    forgetFormDraft(workspace, name);
    return navigate(to);
  };
  const keep = form.handleSubmit(async (fields) => {
    await leave(await onKeep(fields));
  });
  const Title = main ? 'h1' : 'h2';
  return (
    <FormProvider {...form}>
      <form
        noValidate
        onSubmit={(event) => void keep(event)}
        className={clsx(
          'mx-auto grid content-start gap-6 p-6 max-md:p-4',
          wide ? 'max-w-5xl' : 'max-w-3xl',
          !main && 'h-full overflow-auto',
        )}
      >
        <header>
          <Title className={clsx('font-serif font-semibold', main ? 'text-2xl' : 'text-xl')}>{title}</Title>
          {lead !== undefined && <p className="mt-1 text-quiet">{lead}</p>}
          {restored && <p className="mt-1 font-semibold">{said.back}</p>}
        </header>
        {children}
        <div className="flex flex-wrap gap-3 border-t border-rule pt-4">
          <Button look="main" type="submit">
            {said.keep}
          </Button>
          <Button onClick={() => void leave(back)}>{said.leave}</Button>
          {remove !== undefined && (
            <Button
              look="quiet"
              className="ml-auto"
              onClick={() => void remove.act().then(() => leave(remove.to))}
            >
              {remove.label}
            </Button>
          )}
        </div>
      </form>
    </FormProvider>
  );
}

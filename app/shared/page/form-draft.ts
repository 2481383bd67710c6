import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { useEffect, useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import * as v from 'valibot';

/**
 * What is typed into a form that is not kept yet: it stays with the browser, and is there again when the form is opened,
 * until it is kept or left on purpose.
 */

const Stored = v.record(v.string(), v.unknown());

function keyOf(workspace: Workspace, name: string): string {
  return `form/${workspace.name}/${name}`;
}

function storedDraft(workspace: Workspace, name: string): Record<string, unknown> | null {
  const text = localStorage.getItem(keyOf(workspace, name));
  if (text === null) return null;
  try {
    const parsed = v.safeParse(Stored, JSON.parse(text));
    return parsed.success ? parsed.output : null;
  } catch {
    return null;
  }
}

export function forgetFormDraft(workspace: Workspace, name: string): void {
  localStorage.removeItem(keyOf(workspace, name));
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/**
 * What was stored of a form, in the form's shape as it is today: what is of another kind, or not there, is as the form has
 * it, and what the form has no more is left out. The items of a list are of the shape of the first that the form has.
 */
export function fitted(stored: unknown, form: unknown): unknown {
  if (Array.isArray(form)) {
    if (!Array.isArray(stored)) return form;
    const [item] = form as unknown[];
    return item === undefined ? stored : stored.map((one) => fitted(one, item));
  }
  if (isRecord(form))
    return isRecord(stored)
      ? Object.fromEntries(Object.entries(form).map(([key, own]) => [key, fitted(stored[key], own)]))
      : form;
  return typeof stored === typeof form ? stored : form;
}

/**
 * Keeps what is typed into `form` under `name`. Returns whether something typed before was put back.
 * @param initial what the fields hold before anything is typed; what was stored is put back as far as it still fits
 */
export function useFormDraft<Values extends FieldValues>(
  name: string,
  form: UseFormReturn<Values, unknown, Values>,
  initial: Values,
): boolean {
  const workspace = useWorkspace();
  const [restored] = useState(() => {
    const stored = storedDraft(workspace, name);
    return stored === null ? null : (fitted(stored, initial) as Values);
  });
  const { reset, watch } = form;
  useEffect(() => {
    if (restored !== null) reset(restored, { keepDefaultValues: true });
  }, [restored, reset]);
  useEffect(() => {
    const subscription = watch((values) =>
      localStorage.setItem(keyOf(workspace, name), JSON.stringify(values)),
    );
    return () => subscription.unsubscribe();
  }, [watch, name, workspace]);
  return restored !== null;
}

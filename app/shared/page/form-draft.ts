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

/** Whether a value is of the kind that the field holds: what was stored may be of a form that looked otherwise. */
function isOfKind(value: unknown, field: unknown): boolean {
  return typeof value === typeof field && Array.isArray(value) === Array.isArray(field) && value !== null;
}

/**
 * Keeps what is typed into `form` under `name`. Returns whether something typed before was put back.
 * @param initial what the fields hold before anything is typed; of what was stored, each that still fits is put back
 */
export function useFormDraft<Values extends FieldValues>(
  name: string,
  form: UseFormReturn<Values, unknown, Values>,
  initial: Values,
): boolean {
  const workspace = useWorkspace();
  const [restored] = useState(() => {
    const stored = storedDraft(workspace, name);
    if (stored === null) return null;
    const fitting = Object.entries(stored).filter(
      ([field, value]) => field in initial && isOfKind(value, initial[field]),
    );
    return fitting.length === 0 ? null : { ...initial, ...Object.fromEntries(fitting) };
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

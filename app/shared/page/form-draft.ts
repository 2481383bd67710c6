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

/**
 * Keeps what is typed into `form` under `name`. Returns whether something typed before was put back.
 * @param fits whether what was stored is of the form's shape as it is today
 */
export function useFormDraft<Values extends FieldValues>(
  name: string,
  form: UseFormReturn<Values>,
  fits: (stored: Record<string, unknown>) => Values | null,
): boolean {
  const workspace = useWorkspace();
  const [restored] = useState(() => {
    const stored = storedDraft(workspace, name);
    return stored === null ? null : fits(stored);
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

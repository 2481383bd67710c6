import type { Setting } from '#core/model/work.ts';
import { useWorkspaceState } from '../use-workspace.ts';

type SettingNamed<Name extends Setting['name']> = Extract<Setting, { readonly name: Name }>;

/** What the student set under a name; null where nothing is set. */
export function settingIn<Name extends Setting['name']>(
  settings: ReadonlyMap<string, Setting>,
  name: Name,
): SettingNamed<Name> | null {
  // Settings are kept by their names.
  return (settings.get(name) as SettingNamed<Name> | undefined) ?? null;
}

/** The same, kept up to date. */
export function useSetting<Name extends Setting['name']>(name: Name): SettingNamed<Name> | null {
  return useWorkspaceState(({ records }) => settingIn(records.settings, name));
}

import { useSetting } from '../../workspace/state/settings.ts';
import { usePreferences } from './preferences.ts';

/** Whether single keys do something: as set in the workspace, else as this browser had it before that was kept there. */
export function useSingleKeys(): boolean {
  const here = usePreferences((preferences) => preferences.singleKeys);
  return useSetting('singleKeys')?.on ?? here;
}

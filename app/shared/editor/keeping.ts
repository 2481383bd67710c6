import { useEffect, useLayoutEffect, useMemo, useState } from 'react';
import * as v from 'valibot';
import { DraftContent } from '#core/model/work.ts';
import { Keeper } from '../../workspace/state/keeper.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';

/** What was typed last before the page went away, if it was not kept. @param field what it is kept under */
export function lastTyped(workspace: Workspace, field: string): DraftContent | null {
  const text = workspace.journal.read(field);
  if (text === null) return null;
  const parsed = v.safeParse(DraftContent, JSON.parse(text));
  return parsed.success ? parsed.output : null;
}

/**
 * Keeps what is typed in an editor.
 * @param field the name under which the last words before a page goes away are found again
 */
export function useKeeping(
  field: string,
  save: (content: DraftContent) => Promise<void>,
  onFailed: () => void,
) {
  const workspace = useWorkspace();
  const [ours] = useState(() => new WeakSet<DraftContent>());
  const keeper = useMemo(
    () => new Keeper<DraftContent>(workspace, field, (content) => JSON.stringify(content)),
    [workspace, field],
  );
  useLayoutEffect(() => {
    keeper.keepBy((content) => {
      ours.add(content);
      return save(content);
    }, onFailed);
  });
  useEffect(() => {
    const leave = () => keeper.leave();
    window.addEventListener('pagehide', leave);
    document.addEventListener('visibilitychange', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      document.removeEventListener('visibilitychange', leave);
      leave();
    };
  }, [keeper]);
  return { ours, keeper };
}

import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { Keeper } from '../../workspace/state/keeper.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/**
 * Text of a field that is kept by itself while it is typed, and when the field is left or goes away. Until it is, the
 * frame says that it is being saved.
 * @param name a name of the field's own, under which the last words before a page goes away are found again
 * @param saved what is kept now; shown as long as nobody types
 * @param keep keeps the text; `typing` names the spell of typing that it belongs to, if it is one
 */
export function useKeptText(
  name: string,
  saved: string,
  keep: (text: string, typing?: string) => Promise<void>,
): [string, (text: string) => void, () => void] {
  const workspace = useWorkspace();
  const [typed, setTyped] = useState(() => workspace.journal.read(name));
  const [left, setLeft] = useState(false);
  if (left && typed === saved) {
    setTyped(null);
    setLeft(false);
  }
  const typing = useRef<string | undefined>(undefined);
  const [keeper] = useState(() => new Keeper<string>(workspace, name, (text) => text));
  useLayoutEffect(() => {
    keeper.keepBy(async (text) => {
      if (text !== saved) await keep(text, typing.current);
    });
  });
  useEffect(() => {
    // Words found in the journal were typed before the page went away, and are kept like others.
    const found = workspace.journal.read(name);
    if (found !== null) keeper.changed(() => found);
  }, [keeper, name, workspace]);
  useEffect(() => {
    const leave = () => keeper.leave();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [keeper]);
  const type = (text: string) => {
    if (typed === null) typing.current = crypto.randomUUID();
    setLeft(false);
    setTyped(text);
    keeper.changed(() => text);
  };
  const leave = () => {
    setLeft(true);
    void keeper.keepNow();
  };
  return [typed ?? saved, type, leave];
}

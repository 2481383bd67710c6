import { useMemo } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { OverlapChoice, Switch } from '#core/model/source.ts';
import type { Counting } from '#core/overlap/shares.ts';
import { changeChoice, choiceOf } from '../../workspace/commands/overlap.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';

/** How the overlap of an assignment is counted, and how that is changed. */
export interface Choosing {
  readonly counting: Counting;
  /** Ids of the sources and matches that don't count. */
  readonly aside: ReadonlySet<string>;
  readonly reasonOf: (id: string) => string | null;
  readonly turn: (which: Switch, on: boolean) => void;
  readonly setLeast: (least: number) => void;
  readonly setAside: (id: string, reason: string) => void;
  readonly countAgain: (id: string) => void;
}

export function useChoice({ assignment }: AssignmentView): Choosing {
  const workspace = useWorkspace();
  const { id } = assignment;
  const choice = useWorkspaceState(({ records }) => choiceOf(records.settings, id));
  const change = (to: (choice: OverlapChoice) => OverlapChoice, typing?: string) =>
    void changeChoice(workspace, id, to, typing);
  // The same for as long as nothing is chosen: figures are worked out from them.
  const counting = useMemo(() => ({ least: choice.least, without: new Set(choice.without) }), [choice]);
  const aside = useMemo(() => new Set(choice.aside.map(({ of }) => of)), [choice]);
  return {
    counting,
    aside,
    reasonOf: (of) => choice.aside.find((one) => one.of === of)?.reason ?? null,
    turn: (which, on) =>
      change((now) => ({
        ...now,
        without: [...now.without.filter((one) => one !== which), ...(on ? [which] : [])],
      })),
    setLeast: (least) => change((now) => ({ ...now, least }), `overlap/least/${id}`),
    setAside: (of, reason) =>
      change((now) => ({ ...now, aside: [...now.aside.filter((one) => one.of !== of), { of, reason }] })),
    countAgain: (of) => change((now) => ({ ...now, aside: now.aside.filter((one) => one.of !== of) })),
  };
}

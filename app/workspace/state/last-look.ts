import { useEffect, useMemo, useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { lineKey, type LookLine } from '#core/look/line.ts';
import type { LookedOver } from '#core/look/look-over.ts';
import { struckBy } from '#core/look/since-marked.ts';
import type { Paper } from '#core/paper/paper.ts';
import { decisionsIn } from '#core/tally/decided.ts';
import { looker } from '../../workers/look-client.ts';
import { Superseded } from '../../workers/worker-client.ts';
import { lookChoiceOf } from '../commands/look.ts';
import { useWorkspaceState } from '../use-workspace.ts';
import { useSetting } from './settings.ts';

/** A draft as it was looked over last. */
export interface ShownLook extends LookedOver {
  /** The text that the places are in. */
  readonly paper: Paper;
  /** What is to be let alone is not among `lines`. */
  readonly ignored: readonly { readonly line: LookLine; readonly reason: string }[];
}

const NO_WORDS: readonly string[] = [];

/**
 * The last look at a draft, in step with it; null while it is looked over for the first time, and without a text.
 * @param marked the version that came back, where there is one
 */
export function useLastLook(
  work: AssignmentView,
  paper: Paper | null,
  marked: Paper | null,
): ShownLook | null {
  const { assignment, remarks, judgements } = work;
  const choice = useWorkspaceState(({ records }) => lookChoiceOf(records.settings, assignment.id));
  const ownWords = useSetting('ownWords')?.words ?? NO_WORDS;
  const [looked, setLooked] = useState<(LookedOver & { readonly paper: Paper }) | null>(null);
  const struck = useMemo(
    () => struckBy(remarks.filter(({ id }) => decisionsIn(judgements.get(id)).includes('act'))),
    [remarks, judgements],
  );
  const { style } = choice;
  useEffect(() => {
    if (paper === null) return;
    let over = false;
    looker
      .ask(
        (worker) =>
          worker.lookOver(paper, { style, ownWords }, marked === null ? null : { paper: marked, struck }),
        { latestOf: 'last look' },
      )
      .then((found) => {
        if (!over) setLooked({ ...found, paper });
      })
      .catch((error: unknown) => {
        // The newer text is on its way.
        if (!(error instanceof Superseded)) throw error;
      });
    return () => {
      over = true;
    };
  }, [paper, marked, struck, style, ownWords]);
  return useMemo(() => {
    if (looked === null || paper === null) return null;
    const reasons = new Map(choice.ignored.map(({ of, reason }) => [of, reason]));
    const ignored = looked.lines.flatMap((line) => {
      const reason = reasons.get(lineKey(line));
      return reason === undefined ? [] : [{ line, reason }];
    });
    return { ...looked, ignored, lines: looked.lines.filter((line) => !reasons.has(lineKey(line))) };
  }, [looked, paper, choice]);
}

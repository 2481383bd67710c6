import { courseMoved } from '#core/assignment/grade-gain.ts';
import { recordsIn } from '#core/assignment/records.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { compare } from '#core/scores/fraction.ts';
import { useMemo } from 'react';
import { shownShare } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import { useWorkspaceState } from '../../workspace/use-workspace.ts';

/** What the later attempts did to the course grade, and whether another one is open. */
export function CourseMoved({ view }: { view: AssignmentView }) {
  const records = useWorkspaceState((state) => state.records);
  const moved = useMemo(() => courseMoved(recordsIn(records), view), [records, view]);
  const next = view.state.kind === 'open for another attempt';
  return (
    <p className="mt-1 text-sm text-quiet">
      {moved !== null &&
        (compare(moved.now, moved.then) === 0
          ? words.learn.courseSame(shownShare(moved.then))
          : words.learn.courseMoved(shownShare(moved.now), shownShare(moved.then)))}{' '}
      {next
        ? words.learn.nextOpen(view.attempts.length + 1, view.assignment.attemptsAllowed)
        : words.learn.nextNone}
    </p>
  );
}

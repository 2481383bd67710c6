import type { Workspace } from '../../workspace/workspace.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
/** Characters that one or another system takes for something else in a file's name. */
const UNSAFE = /[\\/:*?"<>|\p{Cc}]+/gu;

/** A file's name: course, assignment, attempt, what it is, date. The part of a title after a colon is left out. */
export function fileNameOf(workspace: Workspace, view: AssignmentView, what: string, ending: string): string {
  const { assignment, course, draft } = view;
  const title = assignment.title.split(':')[0];
  const parts = [
    ...(course === null ? [] : [course.code]),
    title,
    ...(draft === null ? [] : [words.send.attemptIs(draft.attemptNumber)]),
    what,
    workspace.now().slice(0, 10),
  ];
  return `${fileSafe(parts.join(', '))}.${ending}`;
}

/** A name without the characters that one or another system takes for something else. */
export function fileSafe(name: string): string {
  return name.replace(UNSAFE, ' ').trim();
}

import type { DraftContent } from '#core/model/work.ts';
import { sheetChoiceOf } from '../../workspace/commands/response-sheet.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import type { AssignmentOutlet } from '../page/assignment-outlet.ts';
import { entriesOf, type SheetEntry } from './response-sheet.ts';
import { sheetDocument } from './sheet-document.ts';

/** What of an assignment the sheet is written from. */
type SheetOutlet = Pick<AssignmentOutlet, 'work' | 'live' | 'answers' | 'marked' | 'text'>;

/** Each remark as the sheet accounts for it. */
export function sheetEntries({ work, live, answers, marked, text }: SheetOutlet): SheetEntry[] {
  return entriesOf({ view: work, live, answers, marked, pageStarts: text?.pageStarts ?? [] });
}

/** The response sheet as it goes: as the student changed it, else as it is written from what was decided and done. */
export function writtenSheet(
  workspace: Workspace,
  outlet: SheetOutlet,
  choice = sheetChoiceOf(workspace.records.settings, outlet.work.assignment.id),
): DraftContent {
  if (choice.content !== null) return choice.content;
  const { identity } = workspace;
  const { assignment, course } = outlet.work;
  return sheetDocument(sheetEntries(outlet), choice, {
    assignment: assignment.title,
    instructor: course?.instructor.name ?? '',
    group: assignment.group,
    student: identity.kind === 'student' ? identity.studentName : '',
  });
}

import type { Draft } from '#core/model/work.ts';
import { draftDocx } from '../../shared/files/draft-files.ts';
import { writtenSheet } from '../../shared/files/written-sheet.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import * as words from '../../words/en.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { WORD_TYPE, type WrittenFile } from '../../workspace/commands/send.ts';

/** A file that is written for the attempt when it is wanted. */
interface Part {
  readonly role: WrittenFile['role'];
  readonly name: string;
  readonly is: string;
  readonly save: string;
  readonly write: () => Promise<WrittenFile>;
}

/** The files that are written for the attempt: the draft, and the response sheet. */
export function writtenParts(
  workspace: Workspace,
  outlet: AssignmentOutlet,
  draft: Draft,
  nameOf: (what: string, ending: string) => string,
): Part[] {
  const { view, work, content } = outlet;
  const part = (
    role: WrittenFile['role'],
    shown: Pick<Part, 'is' | 'save'>,
    name: string,
    bytes: () => Promise<Uint8Array<ArrayBuffer>>,
  ): Part => ({
    ...shown,
    role,
    name,
    write: async () => ({ role, name, mediaType: WORD_TYPE, bytes: await bytes() }),
  });
  // A post is text alone; of an activity only the answers go.
  if (view.kind === 'posts' || view.kind === 'items') return [];
  const paper =
    draft.bodyHash === null || content === null
      ? []
      : [
          part(
            'paper',
            { is: words.send.paper, save: words.send.savePaper },
            nameOf(words.send.paperIs, 'docx'),
            () => draftDocx(workspace, content, view.assignment.title),
          ),
        ];
  // Without a remark there is nothing to account for.
  const response =
    work.remarks.length === 0
      ? []
      : [
          part(
            'response',
            { is: words.send.response, save: words.send.saveResponse },
            nameOf(words.send.responseIs, 'docx'),
            () => draftDocx(workspace, writtenSheet(workspace, outlet), words.response.place),
          ),
        ];
  return [...paper, ...response];
}

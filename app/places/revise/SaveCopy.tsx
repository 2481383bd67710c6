import { revise } from '../../words/revising.ts';
import type { DraftContent } from '#core/model/work.ts';
import { Menu, MenuItem } from '../../shared/controls/Menu.tsx';
import { draftDocx, draftMarkdown, draftPdf } from '../../shared/files/draft-files.ts';
import { fileNameOf } from '../../shared/files/file-name.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { offerFile } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { WORD_TYPE } from '../../workspace/commands/send.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** Saves the draft as it stands as a Word file, a PDF or Markdown. */
export function SaveCopy({ view, content }: { view: AssignmentOutlet['view']; content: () => DraftContent }) {
  const workspace = useWorkspace();
  const { title } = view.assignment;
  const name = (ending: string) => fileNameOf(workspace, view, words.send.paperIs, ending);
  const docx = async () => offerFile(name('docx'), await draftDocx(workspace, content(), title), WORD_TYPE);
  const pdf = async () => {
    const about = { title, language: words.language, at: workspace.now() };
    offerFile(name('pdf'), await draftPdf(workspace, content(), about), 'application/pdf');
  };
  const markdown = async () => offerFile(name('md'), await draftMarkdown(content()), 'text/markdown');
  return (
    <Menu label={revise.saveAs}>
      <MenuItem onSelect={() => void docx()}>{revise.asWord}</MenuItem>
      <MenuItem onSelect={() => void pdf()}>{revise.asPdf}</MenuItem>
      <MenuItem onSelect={() => void markdown()}>{revise.asMarkdown}</MenuItem>
    </Menu>
  );
}

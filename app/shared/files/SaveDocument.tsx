import type { AssignmentView } from '#core/assignment/view.ts';
import type { DraftContent } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import { revise } from '../../words/revising.ts';
import { WORD_TYPE } from '../../workspace/commands/send.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { Menu, MenuItem } from '../controls/Menu.tsx';
import { offerFile } from '../page/notify.ts';
import { draftDocx, draftMarkdown, draftPdf } from './draft-files.ts';
import { fileNameOf } from './file-name.ts';

/** Saves a document as it stands as a Word file, a PDF or Markdown. */
export function SaveDocument({
  view,
  label,
  is,
  title,
  content,
}: {
  view: AssignmentView;
  label: string;
  /** What it is, in the file's name. */
  is: string;
  title: string;
  content: () => DraftContent;
}) {
  const workspace = useWorkspace();
  const name = (ending: string) => fileNameOf(workspace, view, is, ending);
  const docx = async () => offerFile(name('docx'), await draftDocx(workspace, content(), title), WORD_TYPE);
  const pdf = async () => {
    const about = { title, language: words.language, at: workspace.now() };
    offerFile(name('pdf'), await draftPdf(workspace, content(), about), 'application/pdf');
  };
  const markdown = async () => offerFile(name('md'), await draftMarkdown(content()), 'text/markdown');
  return (
    <Menu label={label}>
      <MenuItem onSelect={() => void docx()}>{revise.asWord}</MenuItem>
      <MenuItem onSelect={() => void pdf()}>{revise.asPdf}</MenuItem>
      <MenuItem onSelect={() => void markdown()}>{revise.asMarkdown}</MenuItem>
    </Menu>
  );
}

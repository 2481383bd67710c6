import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { FileFact } from '#core/model/facts.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { offerFile } from '../page/notify.ts';
import { assignmentAddress } from '../page/addresses.ts';

/** What is read beside its remarks, and by which material of the reading place. */
const READ_AS: Partial<Record<FileFact['role'], string>> = {
  paper: 'paper',
  marked: 'paper',
  response: 'paper',
  quiz: 'quiz',
  posts: 'posts',
  report: 'overlap',
  recording: 'recordings',
  brief: 'brief',
};

/** A file of an attempt, a marking or an assignment: opened in the reading place, or saved. */
export function FileRow({ view, file }: { view: AssignmentView; file: FileFact }) {
  const workspace = useWorkspace();
  const navigate = useNavigate();
  const { assignment } = view;
  const material = READ_AS[file.role];
  const nothingFound = file.role === 'report' && Object.keys(file.announced).length === 0;
  const get = async () => {
    const bytes = await workspace.downloads.deskFile(file, assignment.id);
    if (bytes === null) toast.error(words.assignment.withdrawNotReached);
    return bytes;
  };
  const open = async () => {
    if ((await get()) === null) return;
    const shown = file.role === 'report' ? {} : { file: file.hash };
    void navigate(assignmentAddress(assignment.id, 'read', { material: material ?? '', ...shown }));
  };
  const save = async () => {
    const bytes = await get();
    if (bytes !== null) offerFile(file.name, bytes, file.mediaType);
  };
  const link = 'font-semibold text-accent hover:underline';
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 py-0.5 text-sm">
      <span className="min-w-0 flex-1 truncate">
        {file.name}{' '}
        <span className="text-quiet">
          {words.assignment.fileRoles[file.role]}, {words.sizeOf(file.size)}
        </span>
      </span>
      {nothingFound ? (
        <span className="text-quiet">{words.assignment.reportEmpty}</span>
      ) : (
        material !== undefined && (
          <button type="button" className={link} onClick={() => void open()}>
            {words.assignment.openFile}
            <span className="sr-only"> {file.name}</span>
          </button>
        )
      )}
      <button type="button" className={link} onClick={() => void save()}>
        {words.assignment.saveFile}
        <span className="sr-only"> {file.name}</span>
      </button>
    </li>
  );
}

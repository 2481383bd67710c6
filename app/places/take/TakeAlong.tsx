import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import * as words from '../../words/en.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { saveBackup } from '../../shared/files/save-backup.ts';
import { offerFile } from '../../shared/page/notify.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { AnnotatedPapers } from './AnnotatedPapers.tsx';
import { ListsOut } from './ListsOut.tsx';
import { Pack } from './Pack.tsx';

/** Everything of an assignment as files: the paper with its remarks, a pack for a meeting, lists, the files themselves. */
export function TakeAlong() {
  const outlet = useAssignment();
  const { view } = outlet;
  return (
    <div className="h-full overflow-auto">
      <div className="mx-auto grid max-w-5xl grid-cols-1 gap-9 p-6 max-md:p-4">
        <header>
          <h2 className="font-serif text-xl font-semibold">{words.takeAlong.title}</h2>
          <p className="max-w-prose text-quiet">{words.takeAlong.lead}</p>
        </header>
        <div className="grid grid-cols-1 gap-9 md:grid-cols-2">
          <div className="grid grid-cols-1 content-start gap-8">
            <AnnotatedPapers view={view} />
            <ListsOut outlet={outlet} />
            <FilesAsTheyAre view={view} />
            <Give view={view} />
          </div>
          <Pack view={view} />
        </div>
      </div>
    </div>
  );
}

/** The assignment alone, for somebody who has Juncture too. */
function Give({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  return (
    <section>
      <SectionTitle>{words.takeAlong.give}</SectionTitle>
      <p className="text-sm text-quiet">{words.takeAlong.giveLead}</p>
      <Button className="mt-2" onClick={() => void saveBackup(workspace, view.assignment.id)}>
        {words.takeAlong.giveSave}
      </Button>
    </section>
  );
}

function FilesAsTheyAre({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  if (view.files.length === 0) return null;
  const save = async (file: AssignmentView['files'][number]) => {
    const bytes = await workspace.fileBytes(file.hash);
    if (bytes !== null) offerFile(file.name, bytes, file.mediaType);
  };
  return (
    <section>
      <SectionTitle>{words.takeAlong.files}</SectionTitle>
      <p className="text-sm text-quiet">{words.takeAlong.filesLead}</p>
      <ul className="mt-2">
        {view.files.map((file) => (
          <li key={file.hash} className="flex flex-wrap items-baseline gap-x-4 border-t border-rule py-1.5">
            <span className="min-w-0 flex-1 break-words">
              {file.name}{' '}
              <span className="text-sm text-quiet">
                {words.takeIn.roles[file.role]}, {words.sizeOf(file.size)}
              </span>
            </span>
            <Button look="quiet" className="min-h-0 px-1 text-sm" onClick={() => void save(file)}>
              {words.takeAlong.saveFile}
              <span className="sr-only"> {file.name}</span>
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

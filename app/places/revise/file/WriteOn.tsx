import { revise } from '../../../words/revising.ts';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Draft } from '#core/model/work.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Dialog } from '../../../shared/controls/Dialog.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { reader } from '../../../workers/clients.ts';
import { writeOnHere } from '../../../workspace/commands/draft.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { draftFromFile, type FileAsDraft } from './file-as-draft.ts';

/** Goes on writing here what was a file, after saying what of it can't be held. */
export function WriteOn({ outlet: { view }, draft }: { outlet: AssignmentOutlet; draft: Draft }) {
  const workspace = useWorkspace();
  const [made, setMade] = useState<FileAsDraft | null>(null);
  const name = workspace.records.files.get(draft.paperFile ?? '')?.name ?? '';
  const open = async () => {
    const bytes = draft.paperFile === null ? null : await workspace.fileBytes(draft.paperFile);
    if (bytes === null) {
      toast.error(words.preview.gone(name));
      return;
    }
    const read = await reader.ask((worker) => worker.readAsDraft(bytes));
    if (read.kind === 'unreadable') toast.error(words.unreadable[read.reason](name, read.detail));
    else setMade(await draftFromFile(workspace, view.assignment.id, read.value));
  };
  return (
    <>
      <Button look="quiet" className="px-0 text-sm" onClick={() => void open()}>
        {revise.writeOn}
      </Button>
      <Dialog
        open={made !== null}
        onClose={() => setMade(null)}
        title={revise.writeOnTitle}
        lead={revise.writeOnLead(name)}
      >
        {made !== null && made.notHeld.length > 0 && (
          <>
            <p className="mt-3 font-semibold">{revise.notHeld}</p>
            <ul className="mt-1 list-disc pl-5">
              {made.notHeld.map(({ what, count }) => (
                <li key={what}>{revise.notHeldWhat[what](count)}</li>
              ))}
            </ul>
          </>
        )}
        {made?.notHeld.length === 0 && <p className="mt-3">{revise.allHeld}</p>}
        <div className="mt-4 flex flex-wrap gap-3">
          <Button
            look="main"
            onClick={() => {
              if (made !== null) void writeOnHere(workspace, draft, made.content);
              setMade(null);
            }}
          >
            {revise.writeOn}
          </Button>
          <Button onClick={() => setMade(null)}>{revise.leaveAsFile}</Button>
        </div>
      </Dialog>
    </>
  );
}

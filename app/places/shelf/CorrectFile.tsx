import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import type { AssignmentId } from '#core/model/ids.ts';
import type { FileRole, StoredFile } from '#core/model/work.ts';
import { Choice } from '../../shared/controls/Choice.tsx';
import { Button } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { undoAndTell } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { moveFile, setFileRole } from '../../workspace/commands/correct.ts';
const PAPER_ROLES: readonly FileRole[] = ['marked', 'sent', 'version', 'brief', 'attachment'];

/** Puts right where a file belongs and what it is. Each change is saved at once and can be undone. */
export function CorrectFile({ file, onClose }: { file: StoredFile | null; onClose: () => void }) {
  const workspace = useWorkspace();
  const assignments = useWorkspaceState((state) => state.records.assignments);
  if (file === null) return null;
  return (
    <Dialog open onClose={onClose} title={words.shelf.correctTitle(file.name)} lead={words.shelf.correctLead}>
      <div className="grid gap-3">
        <Choice
          label={words.shelf.belongs}
          value={file.assignmentId ?? ''}
          options={[...assignments.values()].map(({ id, title }) => [id, title])}
          onChange={(id) => void moveFile(workspace, file, id as AssignmentId)}
        />
        {PAPER_ROLES.includes(file.role) && (
          <Choice
            label={words.shelf.is}
            value={file.role}
            options={PAPER_ROLES.map((role) => [role, words.takeIn.roles[role]])}
            onChange={(role) => void setFileRole(workspace, file, role as FileRole)}
          />
        )}
      </div>
      <div className="mt-5 flex gap-3">
        <Button look="main" onClick={onClose}>
          {words.shelf.done}
        </Button>
        <Button onClick={() => void undoAndTell(workspace, file.assignmentId ?? '')}>
          {words.undo.undo}
        </Button>
      </div>
    </Dialog>
  );
}

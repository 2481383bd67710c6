import { revise } from '../../../words/revising.ts';
import { toast } from 'sonner';
import { fileFault } from '#core/check/file-kind.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import { faultTold } from '../../../shared/files/fault-told.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { AssignmentId } from '#core/model/ids.ts';
import type { RemarkRef } from '#core/model/work.ts';
import { hashOf } from '#formats/hash.ts';
import { bytesOfFile } from '../../../shared/files/file-bytes.ts';
import { answerByFile } from '../../../workspace/commands/answer.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';

/** Takes a file as the answer: a sketch map, a table. */
export function AnswerFile({
  of: ref,
  view,
  draftId,
  assignmentId,
}: {
  of: RemarkRef;
  view: AssignmentView;
  draftId: string | null;
  assignmentId: AssignmentId;
}) {
  const workspace = useWorkspace();
  const bringIn = async (file: File | undefined) => {
    if (file === undefined) return;
    const { fileTypes } = view.assignment.requirements;
    const fault = fileFault(file, fileTypes, MOST_FILE_BYTES);
    if (fault !== null && fault.kind !== 'other kind') {
      toast.error(faultTold(fault));
      return;
    }
    const bytes = await bytesOfFile(file);
    if (typeof bytes === 'string') {
      toast.error(bytes);
      return;
    }
    const stored = {
      hash: await hashOf(bytes),
      name: file.name,
      mediaType: file.type === '' ? 'application/octet-stream' : file.type,
      size: bytes.length,
      cameAt: workspace.now(),
      origin: 'dropped' as const,
      assignmentId,
      role: 'attachment' as const,
      aboutHash: null,
    };
    // What the assignment doesn't take would have all of it refused.
    const goes = fault === null;
    await answerByFile(workspace, assignmentId, ref, stored, bytes, goes ? draftId : null);
    toast(goes ? revise.answeredByFile(file.name) : revise.answeredButStays(file.name, fileTypes), {
      duration: goes ? 4000 : 15_000,
    });
  };
  return (
    <label className="relative cursor-pointer py-1 text-sm font-semibold text-accent focus-within:outline-2 focus-within:outline-accent hover:underline">
      {revise.byFile}
      <input
        type="file"
        className="sr-only"
        aria-label={revise.byFileFor(view.numberByRemark.get(ref.remarkId) ?? 0)}
        onChange={(event) => {
          void bringIn(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </label>
  );
}

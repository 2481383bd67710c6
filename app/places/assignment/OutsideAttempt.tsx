import { Fold } from '../../shared/controls/Fold.tsx';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { useState } from 'react';
import { instantOf } from '#core/model/ids.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { bytesOfFile } from '../../shared/files/file-bytes.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { noteOutsideAttempt } from '../../workspace/commands/own-attempts.ts';
import { toast } from 'sonner';

const field = 'mt-1 block w-full rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5 font-normal';

function localNow(workspace: Workspace): string {
  const at = new Date(workspace.nowMs());
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** Work that was handed in outside of Juncture, noted as an attempt. */
export function OutsideAttempt({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const [open, setOpen] = useState(false);
  const [when, setWhen] = useState('');
  const [note, setNote] = useState('');
  const [file, setFile] = useState<File | null>(null);
  const keep = async () => {
    const at = new Date(when === '' ? localNow(workspace) : when);
    const bytes = file === null ? null : await bytesOfFile(file);
    if (typeof bytes === 'string') {
      toast.error(bytes);
      return;
    }
    await noteOutsideAttempt(
      workspace,
      view.assignment.id,
      instantOf(at.getTime()),
      note.trim(),
      file === null || bytes === null
        ? null
        : { name: file.name, mediaType: file.type || 'application/octet-stream', bytes },
    );
    setOpen(false);
    setNote('');
    setFile(null);
  };
  return (
    <Fold
      open={open}
      onOpenChange={setOpen}
      className="border-t border-rule pt-2 text-sm"
      label={words.assignment.addOutside}
    >
      <p className="mt-1 text-quiet">{words.assignment.addOutsideLead}</p>
      <form
        className="mt-2 grid gap-3 sm:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <label className="font-semibold">
          {words.assignment.outsideWhen}
          <input
            type="datetime-local"
            value={when === '' ? localNow(workspace) : when}
            onChange={(event) => setWhen(event.target.value)}
            className={field}
          />
        </label>
        <label className="font-semibold">
          {words.assignment.outsideFile}
          <input
            type="file"
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
            className={field}
          />
        </label>
        <label className="font-semibold sm:col-span-2">
          {words.assignment.outsideNote}
          <input value={note} onChange={(event) => setNote(event.target.value)} className={field} />
        </label>
        <div>
          <Button type="submit">{words.assignment.outsideSave}</Button>
        </div>
      </form>
    </Fold>
  );
}

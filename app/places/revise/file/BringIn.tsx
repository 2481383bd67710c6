import { revise } from '../../../words/revising.ts';
import { useState } from 'react';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Dialog } from '../../../shared/controls/Dialog.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { readComing, takeComing, type ComingFile } from './bring-in.ts';

/** Takes a file that was written elsewhere as the next version, after asking where it looks like quite another text. */
export function BringIn({
  outlet,
  label,
  className,
}: {
  outlet: AssignmentOutlet;
  label: string;
  className?: string;
}) {
  const workspace = useWorkspace();
  const [asking, ask] = useState<ComingFile | null>(null);
  const [reading, setReading] = useState(false);
  const bringIn = async (file: File | undefined) => {
    if (file === undefined) return;
    setReading(true);
    try {
      const coming = await readComing(workspace, outlet, file);
      if (coming === null) return;
      if (coming.sharesOnly === null) await takeComing(workspace, outlet, coming);
      else ask(coming);
    } finally {
      setReading(false);
    }
  };
  return (
    <>
      <label
        className={
          className ??
          'relative cursor-pointer py-1 text-sm font-semibold text-accent focus-within:outline-2 focus-within:outline-accent hover:underline'
        }
      >
        {reading ? revise.readingFile : label}
        <input
          type="file"
          className="sr-only"
          aria-label={label}
          onChange={(event) => {
            void bringIn(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </label>
      <AnotherText outlet={outlet} coming={asking} onClose={() => ask(null)} />
    </>
  );
}

/** Asks whether a file that shares hardly any words with the marked paper is the right one. */
export function AnotherText({
  outlet,
  coming,
  onClose,
}: {
  outlet: AssignmentOutlet;
  coming: ComingFile | null;
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  return (
    <Dialog
      open={coming !== null}
      onClose={onClose}
      title={revise.anotherText}
      lead={
        coming === null
          ? ''
          : revise.anotherTextLead(coming.file.name, Math.round((coming.sharesOnly ?? 0) * 100))
      }
    >
      <div className="mt-4 flex flex-wrap gap-3">
        <Button look="main" onClick={onClose}>
          {revise.notThisFile}
        </Button>
        <Button
          onClick={() => {
            onClose();
            if (coming !== null) void takeComing(workspace, outlet, coming);
          }}
        >
          {revise.thisFileAllTheSame}
        </Button>
      </div>
    </Dialog>
  );
}

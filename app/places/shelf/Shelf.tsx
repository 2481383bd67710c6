import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import { toast } from 'sonner';
import type { Instant } from '#core/model/ids.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { FileButton } from '../../shared/controls/FileButton.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { offerFile } from '../../shared/page/notify.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import { bytesOfFile } from '../../shared/files/file-bytes.ts';
import * as words from '../../words/en.ts';
import {
  checkBackup,
  restoreBackup,
  writeBackup,
  type CheckedBackup,
} from '../../workspace/storage/backup.ts';
import { CorrectFile } from './CorrectFile.tsx';
import { People } from './People.tsx';

/** Files: what came in and what was made; and the workspace as one ZIP, out and in again. */
export function Shelf() {
  usePlaceTitle(words.places.shelf);
  return (
    <div className="mx-auto max-w-4xl p-6 max-md:p-4">
      <h1 className="font-serif text-xl font-semibold">{words.shelf.title}</h1>
      <p className="mb-5 text-quiet">{words.shelf.lead}</p>
      <Backup />
      <Files />
      <People />
    </div>
  );
}

function Backup() {
  const workspace = useWorkspace();
  const [busy, setBusy] = useState(false);
  const [checked, setChecked] = useState<CheckedBackup | null>(null);
  const saveAll = async () => {
    setBusy(true);
    const notice = toast.loading(words.shelf.saving);
    try {
      const { name, bytes } = await writeBackup(workspace);
      offerFile(name, bytes, 'application/zip');
      toast.success(words.shelf.saved(name, words.sizeOf(bytes.length)), { id: notice });
    } finally {
      setBusy(false);
    }
  };
  const check = async (file: File) => {
    const notice = toast.loading(words.shelf.checking);
    const bytes = await bytesOfFile(file);
    const result = typeof bytes === 'string' ? null : await checkBackup(bytes);
    if (typeof bytes === 'string') toast.error(bytes, { id: notice, duration: 15_000 });
    else if (result?.kind === 'read') {
      toast.dismiss(notice);
      setChecked(result.value);
    } else if (result !== null)
      toast.error(words.unreadable[result.reason](file.name, result.detail), {
        id: notice,
        duration: 15_000,
      });
  };
  const restore = async () => {
    if (checked === null) return;
    await restoreBackup(workspace, checked);
    setChecked(null);
    toast.success(words.shelf.restored);
    workspace.desk?.begin();
  };
  return (
    <div className="flex flex-wrap gap-3">
      <Button look="main" disabled={busy} onClick={() => void saveAll()}>
        {words.shelf.save}
      </Button>
      <FileButton
        label={words.shelf.restore}
        accept=".zip,application/zip"
        onFile={(file) => void check(file)}
      />
      <Dialog
        open={checked !== null}
        onClose={() => setChecked(null)}
        title={words.shelf.restoreTitle}
        lead={
          checked === null
            ? ''
            : words.shelf.restoreLead(
                shownMoment(checked.at as Instant, undefined),
                checked.rows.filter((row) => row.store === 'remarks').length,
              )
        }
      >
        <div className="flex gap-3">
          <Button look="main" onClick={() => void restore()}>
            {words.shelf.replace}
          </Button>
          <Button onClick={() => setChecked(null)}>{words.shelf.cancel}</Button>
        </div>
      </Dialog>
    </div>
  );
}

function Files() {
  const workspace = useWorkspace();
  const files = useWorkspaceState((state) => state.records.files);
  const titles = useWorkspaceState((state) => state.records.assignments);
  const [correcting, setCorrecting] = useState<string | null>(null);
  const list = [...files.values()].sort((x, y) => y.cameAt.localeCompare(x.cameAt));
  const offer = async (hash: string, name: string, type: string) => {
    const bytes = await workspace.fileBytes(hash);
    if (bytes !== null) offerFile(name, bytes, type);
  };
  return (
    <section className="mt-8">
      <SectionTitle>{words.shelf.files}</SectionTitle>
      {list.length === 0 ? (
        <div className="mt-3">
          <Empty>{words.shelf.noFiles}</Empty>
        </div>
      ) : (
        <ul className="mt-2">
          {list.map((file) => (
            <li
              key={file.hash}
              className="flex items-baseline gap-x-4 border-t border-rule py-2 max-md:flex-wrap"
            >
              <span className="min-w-0">
                <b className="mr-3 break-words">{file.name}</b>
                <span className="text-sm text-quiet">
                  {[
                    words.takeIn.roles[file.role],
                    words.shelf.usedIn(titles.get(file.assignmentId ?? '')?.title ?? ''),
                    words.shelf.origins[file.origin],
                    words.sizeOf(file.size),
                    shownMoment(file.cameAt, undefined),
                  ].join(' · ')}
                </span>
              </span>
              <span className="ml-auto flex gap-4 whitespace-nowrap">
                {file.origin === 'dropped' && (
                  <Button
                    look="quiet"
                    className="min-h-0 px-1 text-sm"
                    onClick={() => setCorrecting(file.hash)}
                  >
                    {words.shelf.correct}
                    <span className="sr-only"> {file.name}</span>
                  </Button>
                )}
                <Button
                  look="quiet"
                  className="min-h-0 px-1 text-sm"
                  onClick={() => void offer(file.hash, file.name, file.mediaType)}
                >
                  {words.shelf.get}
                  <span className="sr-only"> {file.name}</span>
                </Button>
              </span>
            </li>
          ))}
        </ul>
      )}
      <CorrectFile file={files.get(correcting ?? '') ?? null} onClose={() => setCorrecting(null)} />
    </section>
  );
}

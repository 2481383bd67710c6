import { useEffect, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { useNavigate } from 'react-router';
import type { Instant } from '#core/model/ids.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { FileButton } from '../../shared/controls/FileButton.tsx';
import { bytesOfFile } from '../../shared/files/file-bytes.ts';
import { saveBackup } from '../../shared/files/save-backup.ts';
import { undoAndTell } from '../../shared/page/notify.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { databaseName } from '../../workspace/identity.ts';
import { useSetting } from '../../workspace/state/settings.ts';
import { useSession } from '../../workspace/state/use-session.ts';
import {
  checkBackup,
  joinBackup,
  mergeWith,
  restoreBackup,
  SHELF_SCOPE,
  type CheckedBackup,
} from '../../workspace/storage/backup.ts';
import type { Merge } from '../../workspace/storage/merge.ts';
import { useNow, useWorkspace } from '../../workspace/use-workspace.ts';

const DAY_MS = 86_400_000;

/** The whole workspace as one ZIP, out and in again; how much room it takes. */
export function KeepSafe() {
  const workspace = useWorkspace();
  const now = useNow();
  const [busy, setBusy] = useState(false);
  const [read, setRead] = useState<{ backup: CheckedBackup; merge: Merge } | null>(null);
  const last = useSetting('lastBackup')?.at ?? null;
  const save = async () => {
    setBusy(true);
    try {
      await saveBackup(workspace, null);
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
      setRead({ backup: result.value, merge: await mergeWith(workspace, result.value) });
    } else if (result !== null)
      toast.error(words.unreadable[result.reason](file.name, result.detail), {
        id: notice,
        duration: 15_000,
      });
  };
  return (
    <section>
      <SectionTitle>{words.shelf.keep}</SectionTitle>
      <p className="mt-1">
        {last === null
          ? words.shelf.neverSaved
          : words.shelf.lastSaved(Math.max(0, Math.floor((now - Date.parse(last)) / DAY_MS)))}
      </p>
      <p className="max-w-prose text-sm text-quiet">{words.shelf.handOver}</p>
      <div className="mt-3 flex flex-wrap gap-3">
        <Button look="main" disabled={busy} onClick={() => void save()}>
          {words.shelf.save}
        </Button>
        <FileButton
          label={words.shelf.read}
          accept=".zip,application/zip"
          onFile={(file) => void check(file)}
        />
      </div>
      <Room />
      {read !== null && <WhatToDo {...read} onDone={() => setRead(null)} />}
    </section>
  );
}

/** What may be done with a ZIP that was read and checked. */
function WhatToDo({ backup, merge, onDone }: { backup: CheckedBackup; merge: Merge; onDone: () => void }) {
  const workspace = useWorkspace();
  const session = useSession();
  const navigate = useNavigate();
  // Without a sign-in nobody can tell whose it is: whoever has the file may go on with it.
  const alone = databaseName({ kind: 'files alone' });
  const mayJoin = [backup.of, workspace.name].includes(alone) || ['', workspace.name].includes(backup.of);
  const isHandedOver = mayJoin && backup.only === null;
  const join = async () => {
    await joinBackup(workspace, backup);
    onDone();
    toast.success(words.shelf.joined, {
      action: { label: words.shelf.undo, onClick: () => void undoAndTell(workspace, SHELF_SCOPE) },
    });
  };
  const replace = async () => {
    await restoreBackup(workspace, backup);
    onDone();
    toast.success(words.shelf.restored);
    workspace.desk?.begin();
  };
  const look = async () => {
    onDone();
    await session.show(backup, backup.by);
    void navigate(backup.only === null ? '/' : `/a/${encodeURIComponent(backup.only)}`);
  };
  const counts = { ...merge, gone: merge.removes.length };
  return (
    <Dialog
      open
      onClose={onDone}
      title={words.shelf.readTitle(backup.by)}
      lead={words.shelf.readLead(
        shownMoment(backup.at as Instant, undefined),
        backup.rows.filter((row) => row.store === 'remarks').length,
      )}
    >
      <ul>
        {mayJoin && (
          <Way lead={words.shelf.joinLead(counts)}>
            <Button look={isHandedOver ? 'main' : 'plain'} onClick={() => void join()}>
              {words.shelf.join}
            </Button>
          </Way>
        )}
        <Way lead={words.shelf.lookLead}>
          <Button look={isHandedOver ? 'plain' : 'main'} onClick={() => void look()}>
            {words.shelf.look}
          </Button>
        </Way>
        {isHandedOver && (
          <Way lead={words.shelf.replaceLead}>
            <Button onClick={() => void replace()}>{words.shelf.replace}</Button>
          </Way>
        )}
      </ul>
      <Button look="quiet" className="mt-2" onClick={onDone}>
        {words.shelf.cancel}
      </Button>
    </Dialog>
  );
}

function Way({ lead, children }: { lead: string; children: ReactNode }) {
  return (
    <li className="border-t border-rule py-3">
      {children}
      <p className="mt-1 text-sm text-quiet">{lead}</p>
    </li>
  );
}

interface Storage {
  readonly used: number;
  readonly of: number;
  readonly isKept: boolean;
}

async function storageNow(): Promise<Storage | null> {
  if (!('storage' in navigator)) return null;
  const [{ usage = 0, quota = 0 }, isKept] = await Promise.all([
    navigator.storage.estimate(),
    navigator.storage.persisted(),
  ]);
  return { used: usage, of: quota, isKept };
}

/** How much room there is, and whether the browser keeps what is here. */
function Room() {
  const [storage, setStorage] = useState<Storage | null>(null);
  useEffect(() => {
    void storageNow().then(setStorage);
  }, []);
  if (storage === null) return null;
  const ask = async () => {
    const kept = await navigator.storage.persist();
    if (!kept) toast(words.shelf.askedInVain);
    setStorage(await storageNow());
  };
  return (
    <p className="mt-3 flex flex-wrap items-center gap-x-3 text-sm text-quiet">
      {words.shelf.used(words.sizeOf(storage.used), words.sizeOf(storage.of))}{' '}
      {storage.isKept ? words.shelf.keptHere : words.shelf.notKept}
      {!storage.isKept && (
        <Button look="quiet" className="min-h-0 text-sm" onClick={() => void ask()}>
          {words.shelf.askToKeep}
        </Button>
      )}
    </p>
  );
}

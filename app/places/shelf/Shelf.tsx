import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import type { StoredFile } from '#core/model/work.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { useUndoKey } from '../../shared/page/hooks.ts';
import { offerFile, redoAndTell, undoAndTell } from '../../shared/page/notify.ts';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { SHELF_SCOPE } from '../../workspace/storage/backup.ts';
import { CorrectFile } from './CorrectFile.tsx';
import { KeepSafe } from './KeepSafe.tsx';
import { People } from './People.tsx';
import { TakeOut } from './TakeOut.tsx';

/** Files: what came in and what was made; and the workspace as one ZIP, out and in again. */
export function Shelf() {
  usePlaceTitle(words.places.shelf);
  const workspace = useWorkspace();
  useUndoKey(
    () => void undoAndTell(workspace, SHELF_SCOPE),
    () => void redoAndTell(workspace, SHELF_SCOPE),
  );
  return (
    <div className="mx-auto max-w-4xl p-6 max-md:p-4">
      <h1 className="font-serif text-xl font-semibold">{words.shelf.title}</h1>
      <p className="mb-5 text-quiet">{words.shelf.lead}</p>
      <KeepSafe />
      <Files />
      <People />
    </div>
  );
}

function Files() {
  const workspace = useWorkspace();
  const files = useWorkspaceState((state) => state.records.files);
  const titles = useWorkspaceState((state) => state.records.assignments);
  const [correcting, setCorrecting] = useState<string | null>(null);
  const [removing, setRemoving] = useState<StoredFile | null>(null);
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
                    ...(file.assignmentId === null
                      ? []
                      : [words.shelf.usedIn(titles.get(file.assignmentId)?.title ?? '')]),
                    words.shelf.origins[file.origin],
                    words.sizeOf(file.size),
                    shownMoment(file.cameAt, undefined),
                    words.shelf.hash(file.hash),
                  ].join(' · ')}
                </span>
              </span>
              <span className="ml-auto flex gap-4 whitespace-nowrap">
                {file.origin === 'dropped' && (
                  <>
                    {file.assignmentId !== null && (
                      <Button
                        look="quiet"
                        className="min-h-0 px-1 text-sm"
                        onClick={() => setCorrecting(file.hash)}
                      >
                        {words.shelf.correct}
                        <span className="sr-only"> {file.name}</span>
                      </Button>
                    )}
                    <Button look="quiet" className="min-h-0 px-1 text-sm" onClick={() => setRemoving(file)}>
                      {words.shelf.remove}
                      <span className="sr-only"> {file.name}</span>
                    </Button>
                  </>
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
      <TakeOut file={removing} onClose={() => setRemoving(null)} />
    </section>
  );
}

import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { fileFault } from '#core/check/file-kind.ts';
import type { FileHash } from '#core/model/ids.ts';
import type { Draft, StoredFile } from '#core/model/work.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import { Button, Empty } from '../../../shared/controls/Controls.tsx';
import { faultTold } from '../../../shared/files/fault-told.ts';
import { StationNotice } from '../../../shared/line/StationNotice.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { addFiles, moveFile, takeFileOut } from '../../../workspace/commands/new-files.ts';
import { useWorkspace, useWorkspaceState } from '../../../workspace/use-workspace.ts';
import { AnswerList } from './AnswerList.tsx';
import { Compared } from './Compared.tsx';

/** New files beside the old ones, and the remarks beside both, each with what was done about it. */
export function NewFiles({ outlet }: { outlet: AssignmentOutlet }) {
  const { view } = outlet;
  const { draft, submission } = view;
  const [focusedId, setFocusedId] = useState<string | null>(null);
  const [drawingFor, setDrawingFor] = useState<string | null>(null);
  const [shownHash, show] = useState<FileHash | null>(null);
  const files = useFiles(draft?.files ?? []);
  const shown = files.find(({ hash }) => hash === shownHash) ?? files.at(0) ?? null;
  const canChange = submission === null;
  return (
    <div className="h-full overflow-auto md:grid md:min-h-0 md:grid-cols-[minmax(0,1fr)_minmax(20rem,29rem)] md:overflow-hidden">
      <section
        aria-label={words.newFiles.title}
        className="border-rule p-5 max-md:p-4 md:min-h-0 md:overflow-auto md:border-r"
      >
        <div className="mb-4 empty:hidden">
          <StationNotice view={view} station="revise" />
        </div>
        {!canChange && <p className="mb-3 text-sm text-quiet">{words.newFiles.sentAlready}</p>}
        <FileList view={view} files={files} shown={shown} onShow={show} canChange={canChange} />
        {shown === null && <Empty>{words.newFiles.empty}</Empty>}
        <Compared
          outlet={outlet}
          shown={shown}
          focusedId={focusedId}
          drawingFor={canChange ? drawingFor : null}
          onDrawn={() => setDrawingFor(null)}
        />
      </section>
      <AnswerList
        outlet={outlet}
        shown={shown}
        focusedId={focusedId}
        onFocus={setFocusedId}
        drawingFor={drawingFor}
        onDraw={setDrawingFor}
        canChange={canChange}
      />
    </div>
  );
}

function useFiles(hashes: readonly FileHash[]): readonly StoredFile[] {
  const files = useWorkspaceState(({ records }) => records.files);
  return hashes.flatMap((hash) => files.get(hash) ?? []);
}

function FileList({
  view,
  files,
  shown,
  onShow,
  canChange,
}: {
  view: AssignmentOutlet['view'];
  files: readonly StoredFile[];
  shown: StoredFile | null;
  onShow: (hash: FileHash) => void;
  canChange: boolean;
}) {
  const workspace = useWorkspace();
  const { assignment, draft, attempts } = view;
  const { fileTypes } = assignment.requirements;
  const bringIn = async (chosen: readonly File[]) => {
    const taken: File[] = [];
    for (const file of chosen) {
      const fault = fileFault(file, fileTypes, MOST_FILE_BYTES);
      if (fault === null) taken.push(file);
      else toast.error(faultTold(fault), { duration: 15_000 });
    }
    if (taken.length === 0) return;
    const read = await Promise.all(
      taken.map(async (file) => ({
        name: file.name,
        mediaType: file.type || 'application/octet-stream',
        bytes: new Uint8Array(await file.arrayBuffer()),
      })),
    );
    await addFiles(workspace, assignment.id, attempts.length + 1, read);
  };
  return (
    <div className="mb-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h2 className="font-serif text-[1.12rem] font-semibold">{words.newFiles.title}</h2>
        {canChange && (
          <label className="ml-auto inline-flex min-h-9 cursor-pointer items-center rounded-md border border-accent bg-accent px-3 font-semibold text-on-accent focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-accent hover:opacity-90">
            {files.length === 0 ? words.newFiles.bringIn : words.newFiles.bringInMore}
            <input
              type="file"
              multiple
              accept={fileTypes.map((type) => `.${type}`).join(',')}
              className="sr-only"
              onChange={(event) => {
                void bringIn([...(event.target.files ?? [])]);
                event.target.value = '';
              }}
            />
          </label>
        )}
      </div>
      <p className="text-sm text-quiet">
        {fileTypes.length === 0 ? words.newFiles.anyKind : words.newFiles.kindsTaken(fileTypes)}
      </p>
      {files.length > 0 && (
        <ol className="mt-2">
          {files.map((file, i) => (
            <li key={file.hash} className="flex flex-wrap items-center gap-x-2 border-t border-rule py-1">
              <button
                type="button"
                aria-pressed={file.hash === shown?.hash}
                onClick={() => onShow(file.hash)}
                className={
                  file.hash === shown?.hash
                    ? 'min-w-0 flex-1 truncate text-left font-bold'
                    : 'min-w-0 flex-1 truncate text-left hover:underline'
                }
              >
                {file.name} <span className="text-sm font-normal text-quiet">{words.sizeOf(file.size)}</span>
              </button>
              {canChange && draft !== null && (
                <FileButtons draft={draft} file={file} at={i} of={files.length} />
              )}
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}

function FileButtons({ draft, file, at, of }: { draft: Draft; file: StoredFile; at: number; of: number }) {
  const workspace = useWorkspace();
  const small = 'min-h-0 px-1.5 py-1';
  return (
    <span className="inline-flex">
      {of > 1 && (
        <>
          <Button
            look="quiet"
            className={small}
            disabled={at === 0}
            aria-label={words.newFiles.up(file.name)}
            onClick={() => void moveFile(workspace, draft, file.hash, -1)}
          >
            <ArrowUp size={16} aria-hidden />
          </Button>
          <Button
            look="quiet"
            className={small}
            disabled={at === of - 1}
            aria-label={words.newFiles.down(file.name)}
            onClick={() => void moveFile(workspace, draft, file.hash, 1)}
          >
            <ArrowDown size={16} aria-hidden />
          </Button>
        </>
      )}
      <Button
        look="quiet"
        className={small}
        aria-label={words.newFiles.takeOut(file.name)}
        onClick={() => void takeFileOut(workspace, draft, file.hash)}
      >
        <X size={16} aria-hidden />
      </Button>
    </span>
  );
}

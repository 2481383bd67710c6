import { Crop, X } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { fileFault } from '#core/check/file-kind.ts';
import type { FileHash } from '#core/model/ids.ts';
import type { Draft, StoredFile } from '#core/model/work.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { SortableList, SortableRow } from '../../../shared/controls/Sortable.tsx';
import { faultTold } from '../../../shared/files/fault-told.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { addFiles, orderFiles, takeFileOut } from '../../../workspace/commands/new-files.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { EditPicture } from './EditPicture.tsx';
import { JoinPictures } from './JoinPictures.tsx';
import { isPicture, useSharpness } from './pictures.ts';

/** The files that go with the next attempt: brought in, put in order, pictures turned, cut and joined, taken out. */
export function FileList({
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
  const { draft } = view;
  const { fileTypes } = view.assignment.requirements;
  const [editing, setEditing] = useState<FileHash | null>(null);
  const edited = files.find(({ hash }) => hash === editing) ?? null;
  return (
    <div className="mb-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h2 className="font-serif text-[1.12rem] font-semibold">{words.newFiles.title}</h2>
        {canChange && <BringIn view={view} isFirst={files.length === 0} />}
      </div>
      <p className="text-sm text-quiet">
        {fileTypes.length === 0 ? words.newFiles.anyKind : words.newFiles.kindsTaken(fileTypes)}
      </p>
      {files.length > 0 && draft !== null && (
        <SortableList
          ids={files.map(({ hash }) => hash)}
          titleOf={(id) => files.find(({ hash }) => hash === id)?.name ?? ''}
          hint={words.newFiles.orderHint}
          onOrder={(order) => orderFiles(workspace, draft, order)}
          className="mt-2"
          row={(id) => {
            const file = files.find(({ hash }) => hash === id);
            return file === undefined ? null : (
              <FileRow
                key={id}
                draft={draft}
                file={file}
                isShown={file.hash === shown?.hash}
                onShow={onShow}
                onEdit={setEditing}
                canChange={canChange}
                isOne={files.length === 1}
              />
            );
          }}
        />
      )}
      {canChange && draft !== null && <JoinPictures view={view} draft={draft} files={files} />}
      {edited !== null && draft !== null && (
        <EditPicture
          draft={draft}
          file={edited}
          onEdited={(hash) => {
            setEditing(hash);
            onShow(hash);
          }}
          onClose={() => setEditing(null)}
        />
      )}
    </div>
  );
}

function BringIn({ view, isFirst }: { view: AssignmentOutlet['view']; isFirst: boolean }) {
  const workspace = useWorkspace();
  const { assignment, attempts } = view;
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
    <label className="ml-auto inline-flex min-h-9 cursor-pointer items-center rounded-md border border-accent bg-accent px-3 font-semibold text-on-accent focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-accent hover:opacity-90">
      {isFirst ? words.newFiles.bringIn : words.newFiles.bringInMore}
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
  );
}

function FileRow({
  draft,
  file,
  isShown,
  onShow,
  onEdit,
  canChange,
  isOne,
}: {
  draft: Draft;
  file: StoredFile;
  isShown: boolean;
  onShow: (hash: FileHash) => void;
  onEdit: (hash: FileHash) => void;
  canChange: boolean;
  isOne: boolean;
}) {
  const workspace = useWorkspace();
  const sharpness = useSharpness(file);
  const small = 'min-h-0 px-1.5 py-1';
  const className = 'flex flex-wrap items-center gap-x-2 border-t border-rule py-1';
  const content = (
    <>
      <button
        type="button"
        aria-pressed={isShown}
        onClick={() => onShow(file.hash)}
        className={
          isShown
            ? 'min-w-0 flex-1 truncate text-left font-bold'
            : 'min-w-0 flex-1 truncate text-left hover:underline'
        }
      >
        {file.name} <span className="text-sm font-normal text-quiet">{words.sizeOf(file.size)}</span>
      </button>
      {canChange && (
        <span className="inline-flex">
          {isPicture(file.mediaType) && (
            <Button
              look="quiet"
              className={small}
              aria-label={words.newFiles.edit(file.name)}
              onClick={() => onEdit(file.hash)}
            >
              <Crop size={16} aria-hidden />
            </Button>
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
      )}
      {sharpness?.sharp === false && <p className="basis-full text-sm">{words.newFiles.soft}</p>}
    </>
  );
  return canChange && !isOne ? (
    <SortableRow id={file.hash} title={file.name} className={className}>
      {content}
    </SortableRow>
  ) : (
    <li className={className}>{content}</li>
  );
}

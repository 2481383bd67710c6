import { RotateCcw, RotateCw } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { PictureShare, PictureSize } from '#core/check/picture-places.ts';
import type { FileHash } from '#core/model/ids.ts';
import type { Draft, StoredFile } from '#core/model/work.ts';
import { WHOLE, type PictureEdit } from '#core/picture/edit.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Dialog } from '../../../shared/controls/Dialog.tsx';
import * as words from '../../../words/en.ts';
import { reader } from '../../../workers/clients.ts';
import { replaceByEdited } from '../../../workspace/commands/new-files.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { PictureView } from './PictureView.tsx';
import { PlaceByKeys } from './PlaceByKeys.tsx';

/** A photograph of a page, turned upright and cut to the page; each step is kept and can be undone. */
export function EditPicture({
  draft,
  file,
  onEdited,
  onClose,
}: {
  draft: Draft;
  file: StoredFile;
  onEdited: (hash: FileHash) => void;
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  const [size, setSize] = useState<PictureSize | null>(null);
  const [crop, setCrop] = useState<PictureShare>(WHOLE);
  const [busy, setBusy] = useState(false);
  const edit = async (how: PictureEdit) => {
    if (size === null) return;
    setBusy(true);
    try {
      const bytes = await workspace.fileBytes(file.hash);
      if (bytes === null) return;
      const read = await reader.ask((worker) => worker.editPicture(bytes, file.mediaType, how));
      if (read.kind === 'unreadable') {
        toast.error(words.unreadable[read.reason](file.name, read.detail));
        return;
      }
      const { width, height, mediaType, bytes: edited } = read.value;
      const name = mediaType === file.mediaType ? file.name : file.name.replace(/(\.\w+)?$/, '.jpg');
      const hash = await replaceByEdited(workspace, draft, file.hash, {
        name,
        mediaType,
        bytes: edited,
        was: size,
        size: { width, height },
        edit: how,
      });
      setCrop(WHOLE);
      onEdited(hash);
    } finally {
      setBusy(false);
    }
  };
  const isWhole = crop.width === 1 && crop.height === 1;
  return (
    <Dialog open onClose={onClose} title={words.newFiles.editTitle} lead={words.newFiles.editLead} wide>
      <div className="grid gap-5 md:grid-cols-[minmax(0,22rem)_minmax(0,1fr)]">
        <PictureView
          hash={file.hash}
          name={file.name}
          marks={isWhole ? [] : [{ id: 'crop', number: null, share: crop, focused: true, isAnswer: true }]}
          onSize={setSize}
          onDraw={setCrop}
        />
        <div>
          <div className="flex flex-wrap gap-3">
            <Button disabled={busy} onClick={() => void edit({ crop: WHOLE, turn: 270 })}>
              <RotateCcw size="1em" aria-hidden />
              {words.newFiles.turnLeft}
            </Button>
            <Button disabled={busy} onClick={() => void edit({ crop: WHOLE, turn: 90 })}>
              <RotateCw size="1em" aria-hidden />
              {words.newFiles.turnRight}
            </Button>
          </div>
          <div className="mt-4">
            <PlaceByKeys place={crop} onChange={setCrop} />
          </div>
          <div className="mt-4 flex flex-wrap gap-3">
            <Button disabled={busy || isWhole} onClick={() => void edit({ crop, turn: 0 })}>
              {words.newFiles.cut}
            </Button>
            <Button look="main" onClick={onClose}>
              {words.newFiles.editDone}
            </Button>
          </div>
        </div>
      </div>
    </Dialog>
  );
}

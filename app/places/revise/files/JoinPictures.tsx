import { useState } from 'react';
import { toast } from 'sonner';
import type { Draft, StoredFile } from '#core/model/work.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { fileSafe } from '../../../shared/files/file-name.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { reader } from '../../../workers/clients.ts';
import type { PictureToJoin } from '../../../workers/protocol.ts';
import { joinFiles } from '../../../workspace/commands/new-files.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { isPicture } from './pictures.ts';

/** Makes the pictures that go the pages of one PDF, in their order; nothing where the assignment takes no PDF. */
export function JoinPictures({
  view: { assignment },
  draft,
  files,
}: {
  view: AssignmentOutlet['view'];
  draft: Draft;
  files: readonly StoredFile[];
}) {
  const workspace = useWorkspace();
  const [busy, setBusy] = useState(false);
  const pictures = files.filter(({ mediaType }) => isPicture(mediaType));
  const { fileTypes } = assignment.requirements;
  if (pictures.length === 0 || (fileTypes.length > 0 && !fileTypes.includes('pdf'))) return null;
  const join = async () => {
    setBusy(true);
    try {
      const pages: PictureToJoin[] = [];
      for (const { hash, name, mediaType } of pictures) {
        const bytes = await workspace.fileBytes(hash);
        if (bytes === null) return;
        pages.push({ bytes, mediaType, alt: words.newFiles.pageAlt(pages.length + 1, name) });
      }
      const about = { title: assignment.title, language: words.language, at: workspace.now() };
      const read = await reader.ask((worker) => worker.joinPictures(pages, about));
      if (read.kind === 'unreadable') {
        toast.error(words.unreadable[read.reason](words.newFiles.joinedName(assignment.title), read.detail));
        return;
      }
      await joinFiles(
        workspace,
        draft,
        pictures.map(({ hash }) => hash),
        {
          name: fileSafe(words.newFiles.joinedName(assignment.title)),
          mediaType: 'application/pdf',
          bytes: read.value,
        },
      );
    } finally {
      setBusy(false);
    }
  };
  return (
    <Button className="mt-2" disabled={busy} onClick={() => void join()}>
      {busy ? words.newFiles.joining : words.newFiles.join(pictures.length)}
    </Button>
  );
}

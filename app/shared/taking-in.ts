import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { hashOf } from '#formats/hash.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import { words } from '../words/en.ts';
import { readerInWorker } from '../workers/reader-client.ts';
import { takeInDroppedPaper } from '../workspace/take-in.ts';
import { useWorkspace } from '../workspace/workspace.ts';

/** The bytes of a chosen file, or the sentence why it isn't even begun. */
export async function bytesOfFile(file: File): Promise<Uint8Array<ArrayBuffer> | string> {
  if (file.size > MOST_FILE_BYTES) return words.unreadable['too large'](file.name, '');
  return new Uint8Array(await file.arrayBuffer());
}

/** Takes a marked PDF in as an assignment of its own and opens it; says in one sentence why it can't. */
export function useTakeIn(): (files: readonly File[]) => Promise<void> {
  const navigate = useNavigate();
  return useCallback(
    async (files) => {
      const file = files.at(0);
      if (file === undefined) return;
      if (files.length > 1) toast(words.takeIn.oneAtATime);
      const notice = toast.loading(words.takeIn.reading(file.name), { duration: Infinity });
      const refuse = (why: string) => toast.error(why, { id: notice, duration: 15_000 });
      const bytes = await bytesOfFile(file);
      if (typeof bytes === 'string') {
        refuse(bytes);
        return;
      }
      if (useWorkspace.getState().records.files.has(await hashOf(bytes))) {
        toast(words.takeIn.known(file.name), { id: notice, duration: 8000 });
        return;
      }
      const pdf = await readerInWorker().readMarkedPdf(bytes, (done, of) => {
        toast.loading(words.takeIn.reading(file.name), {
          id: notice,
          description: words.takeIn.pages(done, of),
        });
      });
      if (pdf.kind === 'unreadable') {
        refuse(words.unreadable[pdf.reason](file.name, pdf.detail));
        return;
      }
      const id = await takeInDroppedPaper(file.name, bytes, pdf.value);
      toast.success(words.takeIn.taken(file.name, pdf.value.marks.length), {
        id: notice,
        description: '',
        duration: 6000,
      });
      void navigate(`/a/${encodeURIComponent(id)}`);
    },
    [navigate],
  );
}

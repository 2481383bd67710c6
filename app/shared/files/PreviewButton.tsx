import { Suspense, useState } from 'react';
import { toast } from 'sonner';
import * as words from '../../words/en.ts';
import { Button } from '../controls/Controls.tsx';
import { Dialog } from '../controls/Dialog.tsx';
import { FilePreview } from './preview.ts';

/** Shows a file as it goes. @param bytesOf null: it is not here any more */
export function PreviewButton({
  name,
  disabled = false,
  bytesOf,
}: {
  name: string;
  disabled?: boolean;
  bytesOf: () => Promise<Uint8Array<ArrayBuffer> | null>;
}) {
  const [bytes, setBytes] = useState<Uint8Array<ArrayBuffer> | null>(null);
  const look = async () => {
    const found = await bytesOf();
    if (found === null) toast.error(words.preview.gone(name));
    else setBytes(found);
  };
  return (
    <>
      <Button
        look="quiet"
        disabled={disabled}
        aria-label={words.preview.lookAt(name)}
        onClick={() => void look()}
      >
        {words.preview.look}
      </Button>
      <Dialog
        open={bytes !== null}
        onClose={() => setBytes(null)}
        title={words.preview.title}
        lead={name}
        wide
      >
        {bytes !== null && (
          <Suspense fallback={<p className="text-quiet">{words.reading.opening}</p>}>
            <FilePreview name={name} bytes={bytes} />
          </Suspense>
        )}
        <Button className="mt-4" onClick={() => setBytes(null)}>
          {words.preview.close}
        </Button>
      </Dialog>
    </>
  );
}

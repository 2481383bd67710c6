import type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { useEffect, useRef, useState } from 'react';
import type { Paper } from '#core/paper/paper.ts';
import { recogniseNamed } from '#formats/recognise.ts';
import { UnreadableFile } from '#formats/unreadable.ts';
import * as words from '../../words/en.ts';
import { reader } from '../../workers/clients.ts';
import { openForDrawing } from '../../workers/pdf-drawing.ts';
import { Button } from '../controls/Controls.tsx';

type Look =
  | { readonly kind: 'picture'; readonly url: string }
  | { readonly kind: 'pages'; readonly document: PDFDocumentProxy }
  | { readonly kind: 'text'; readonly paper: Paper }
  | { readonly kind: 'none' };

/** A file as it is: a picture, the pages of a PDF, the text of a document. Others can only be saved, and that is said. */
export function FilePreview({ name, bytes }: { name: string; bytes: Uint8Array<ArrayBuffer> }) {
  const look = useLook(name, bytes);
  if (look === null) return <p className="text-quiet">{words.reading.opening}</p>;
  switch (look.kind) {
    case 'picture':
      return <img src={look.url} alt={name} className="max-w-full border border-rule" />;
    case 'pages':
      return <Pages document={look.document} name={name} />;
    case 'text':
      return <Text paper={look.paper} name={name} />;
    case 'none':
      return <p className="text-quiet">{words.preview.none(name)}</p>;
  }
}

/** null while the file is opened. */
function useLook(name: string, bytes: Uint8Array<ArrayBuffer>): Look | null {
  const [look, setLook] = useState<Look | null>(null);
  useEffect(() => {
    const over = new AbortController();
    let close: () => void = () => undefined;
    void lookAt(name, bytes).then(([found, leave]) => {
      if (over.signal.aborted) leave();
      else {
        close = leave;
        setLook(found);
      }
    });
    return () => {
      over.abort();
      close();
      setLook(null);
    };
  }, [name, bytes]);
  return look;
}

const nothing = () => undefined;

async function lookAt(name: string, bytes: Uint8Array<ArrayBuffer>): Promise<[Look, () => void]> {
  const { kind, mediaType } = recogniseNamed(bytes, name);
  if (kind === 'picture') {
    const url = URL.createObjectURL(new Blob([bytes], { type: mediaType }));
    return [{ kind: 'picture', url }, () => URL.revokeObjectURL(url)];
  }
  if (kind === 'pdf') {
    try {
      const document = await openForDrawing(bytes);
      return [{ kind: 'pages', document }, () => void document.loadingTask.destroy()];
    } catch (error) {
      if (error instanceof UnreadableFile) return [{ kind: 'none' }, nothing];
      throw error;
    }
  }
  const read = await reader.ask((worker) => worker.readPaper(bytes));
  return read.kind === 'read' && read.value.paper.text !== ''
    ? [{ kind: 'text', paper: read.value.paper }, nothing]
    : [{ kind: 'none' }, nothing];
}

function Text({ paper: { blocks, starts }, name }: { paper: Paper; name: string }) {
  return (
    <div role="document" aria-label={name} className="grid gap-2 border border-rule bg-paper p-5 font-serif">
      {blocks.map((block, index) => (
        <p
          key={starts[index]}
          className={block.kind === 'heading' ? 'font-semibold' : block.kind === 'item' ? 'pl-4' : ''}
        >
          {block.text}
        </p>
      ))}
    </div>
  );
}

/** Wider than this a page is not drawn, in CSS pixels: it would not get clearer. */
const MOST_WIDTH = 800;

function Pages({ document, name }: { document: PDFDocumentProxy; name: string }) {
  const [at, setAt] = useState(1);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const over = new AbortController();
    const draw = async () => {
      const page = await document.getPage(at);
      const target = canvas.current;
      if (over.signal.aborted || target === null) return;
      const width = Math.min(MOST_WIDTH, target.parentElement?.clientWidth ?? MOST_WIDTH);
      const scale = (width / page.getViewport({ scale: 1 }).width) * devicePixelRatio;
      const viewport = page.getViewport({ scale });
      target.width = Math.floor(viewport.width);
      target.height = Math.floor(viewport.height);
      const drawing = page.render({ canvas: target, viewport });
      over.signal.addEventListener('abort', () => drawing.cancel());
      await drawing.promise.catch((error: unknown) => {
        // Another page is wanted, or none any more.
        if (!over.signal.aborted) throw error;
      });
    };
    void draw();
    return () => over.abort();
  }, [document, at]);
  return (
    <div>
      <canvas
        ref={canvas}
        role="img"
        aria-label={words.preview.page(name, at)}
        className="w-full border border-rule bg-page"
      />
      {document.numPages > 1 && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <Button disabled={at === 1} onClick={() => setAt(at - 1)}>
            {words.preview.back}
          </Button>
          <span role="status">{words.preview.at(at, document.numPages)}</span>
          <Button disabled={at === document.numPages} onClick={() => setAt(at + 1)}>
            {words.preview.next}
          </Button>
        </p>
      )}
    </div>
  );
}

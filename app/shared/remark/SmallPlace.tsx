import { useEffect, useRef } from 'react';
import { placeOf, type Remark } from '#core/model/remark.ts';
import * as words from '../../words/en.ts';
import { usePaper } from '../../workspace/state/papers.ts';
import { usePdfDocument } from '../files/pdf-document.ts';
import { useFileUrl } from '../files/file-url.ts';

/** How large the picture of a place is at most, in pixels. */
const WIDTH = 220;
const HEIGHT = 72;
/** So much of the page is shown around a mark, in PDF points. */
const AROUND = 24;

/** A small picture of the place of a mark; nothing for one that has none on a page or a picture. */
export function SmallPlace({ remark }: { remark: Remark }) {
  const place = placeOf(remark);
  const { paperHash } = remark;
  const paper = usePaper(paperHash);
  if (paperHash === null || paper === null) return null;
  if (place.kind === 'region') return <OfPicture hash={paperHash} size={paper.pages[0]} region={place} />;
  const rect = place.kind === 'point' ? place.rect : place.kind === 'words' ? place.rect : null;
  const page = place.kind === 'point' || place.kind === 'words' ? place.page : null;
  if (paper.kind !== 'pdf' || rect === null || page === null) return null;
  return <OfPage hash={paperHash} page={page} rect={rect} />;
}

function OfPicture({
  hash,
  size,
  region,
}: {
  hash: string;
  size: { readonly width: number; readonly height: number };
  region: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}) {
  const url = useFileUrl(hash);
  if (url === null) return null;
  const { x, y, width, height } = region;
  return (
    <svg
      viewBox={`${x} ${y} ${width} ${height}`}
      style={{ maxWidth: WIDTH, height: HEIGHT }}
      className="mt-1 rounded border border-rule"
      role="img"
    >
      <title>{words.slip.placeShown}</title>
      <image href={url} width={size.width} height={size.height} />
    </svg>
  );
}

function OfPage({ hash, page, rect }: { hash: string; page: number; rect: readonly number[] }) {
  const document = usePdfDocument(hash);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (document === null) return;
    const over = new AbortController();
    const draw = async () => {
      const drawn = await document.getPage(page);
      if (over.signal.aborted || canvas.current === null) return;
      const [left, bottom, right, top] = drawn
        .getViewport({ scale: 1 })
        .convertToViewportRectangle([...rect]) as [number, number, number, number];
      const box = {
        x: Math.min(left, right) - AROUND,
        y: Math.min(bottom, top) - AROUND,
        width: Math.abs(right - left) + 2 * AROUND,
        height: Math.abs(top - bottom) + 2 * AROUND,
      };
      const scale = Math.min(1.5, WIDTH / box.width, HEIGHT / box.height);
      const ratio = window.devicePixelRatio;
      canvas.current.width = Math.round(box.width * scale * ratio);
      canvas.current.height = Math.round(box.height * scale * ratio);
      canvas.current.style.width = `${box.width * scale}px`;
      const viewport = drawn.getViewport({ scale, offsetX: -box.x * scale, offsetY: -box.y * scale });
      const task = drawn.render({ canvas: canvas.current, viewport, transform: [ratio, 0, 0, ratio, 0, 0] });
      over.signal.addEventListener('abort', () => task.cancel());
      await task.promise;
    };
    draw().catch((error: unknown) => {
      // Leaving the list while it is drawn stops the drawing; that is no fault.
      if (!over.signal.aborted) throw error;
    });
    return () => over.abort();
  }, [document, page, rect]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={words.slip.placeShown}
      className="mt-1 rounded border border-rule bg-page"
    />
  );
}

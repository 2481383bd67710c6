import clsx from 'clsx';
import { TextLayer, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { memo, useEffect, useRef } from 'react';
import { placeOf, type Remark } from '#core/model/remark.ts';
import type { PageSize } from '#formats/marked-paper.ts';
import { saidBy } from '../../../shared/remark/said.ts';
import * as words from '../../../words/en.ts';
import { drawingTurns } from './drawing-turns.ts';
import { DrawRegion, type Region } from './DrawRegion.tsx';
import { WORDS_DRAWN } from './found-words.ts';
import { hover, useIsHovered } from './hovered.ts';
import { marksOnPage, pageOfTarget, pointsOf } from './geometry.ts';

/** A page of the paper, with its text to select and its marks to point at. */
export const Page = memo(function Page({
  show,
  number,
  size,
  scale,
  top,
  left,
  paperHash,
  remarks,
  numberByRemark,
  focusedId,
  onFocus,
  onDrawn,
}: {
  show: { kind: 'pdf'; document: PDFDocumentProxy } | { kind: 'picture'; url: string };
  number: number;
  size: PageSize;
  scale: number;
  top: number;
  left: number;
  paperHash: string;
  remarks: readonly Remark[];
  numberByRemark: ReadonlyMap<string, number>;
  focusedId: string | null;
  onFocus: (id: string) => void;
  onDrawn: ((region: Region) => void) | null;
}) {
  return (
    <div
      data-page={number}
      role="region"
      aria-label={words.reading.pageLabel(number)}
      className="absolute border border-rule bg-page"
      style={{ top, left, width: size.width * scale, height: size.height * scale }}
    >
      {show.kind === 'pdf' ? (
        <DrawnPage document={show.document} number={number} scale={scale} />
      ) : (
        <img src={show.url} alt="" className="absolute inset-0 h-full w-full" />
      )}
      {remarks.map((remark) => (
        <Marks
          key={remark.id}
          remark={remark}
          foreign={remark.fileHash !== paperHash}
          number={numberByRemark.get(remark.id) ?? 0}
          page={number}
          size={size}
          scale={scale}
          focused={remark.id === focusedId}
          onFocus={onFocus}
        />
      ))}
      {onDrawn !== null && show.kind === 'picture' && <DrawRegion scale={scale} onDrawn={onDrawn} />}
    </div>
  );
});

function DrawnPage({
  document,
  number,
  scale,
}: {
  document: PDFDocumentProxy;
  number: number;
  scale: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const text = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let over = false;
    let stop: () => void = () => undefined;
    const draw = async () => {
      const page = await document.getPage(number);
      if (over || canvas.current === null || text.current === null) return;
      const viewport = page.getViewport({ scale });
      const ratio = window.devicePixelRatio;
      canvas.current.width = Math.round(viewport.width * ratio);
      canvas.current.height = Math.round(viewport.height * ratio);
      canvas.current.removeAttribute('data-drawn');
      const task = page.render({ canvas: canvas.current, viewport, transform: [ratio, 0, 0, ratio, 0, 0] });
      const onto = canvas.current;
      task.onContinue = (proceed: () => void) => drawingTurns.take(onto, proceed);
      text.current.replaceChildren();
      const layer = new TextLayer({
        textContentSource: page.streamTextContent(),
        container: text.current,
        viewport,
      });
      stop = () => {
        task.cancel();
        layer.cancel();
      };
      await Promise.all([
        task.promise.then(() => canvas.current?.setAttribute('data-drawn', '')),
        layer.render().then(() => text.current?.dispatchEvent(new Event(WORDS_DRAWN, { bubbles: true }))),
      ]);
    };
    draw().catch((error: unknown) => {
      // Leaving a page while it is drawn stops the drawing; that is no fault.
      if (!over) throw error;
    });
    return () => {
      over = true;
      stop();
    };
  }, [document, number, scale]);
  return (
    <>
      <canvas ref={canvas} aria-hidden className="absolute inset-0 h-full w-full" />
      <div
        ref={text}
        className="textLayer"
        style={
          {
            '--total-scale-factor': scale,
            '--scale-round-x': '1px',
            '--scale-round-y': '1px',
          } as React.CSSProperties
        }
      />
    </>
  );
}

/** The side of the sign for a mark that the page doesn't show, in pixels. */
const SIGN = 17;

/** How a mark is drawn that the page itself doesn't show, by kind; colours of our own would say something. */
const DRAWN: Readonly<Record<string, string>> = {
  underline: 'border-b-2 border-[#1e2a2c]',
  squiggly: 'border-b-2 border-dotted border-[#1e2a2c]',
  square: 'border-2 border-[#1e2a2c]',
  polygon: 'border-2 border-[#1e2a2c]',
  circle: 'rounded-[50%]! border-2 border-[#1e2a2c]',
  ink: '',
  line: '',
  polyline: '',
  strikeout: 'bg-[linear-gradient(transparent_45%,#1e2a2c_45%,#1e2a2c_55%,transparent_55%)]',
};

function Marks({
  remark,
  foreign,
  number,
  page,
  size,
  scale,
  focused,
  onFocus,
}: {
  remark: Remark;
  /** It came in a file of its own, so that nothing of it is on the page. */
  foreign: boolean;
  number: number;
  page: number;
  size: PageSize;
  scale: number;
  focused: boolean;
  onFocus: (id: string) => void;
}) {
  const hovered = useIsHovered(remark.id);
  const label = words.reading.mark(number, saidBy(remark));
  // Of several places those on this page.
  const target = remark.targets.find((one) => pageOfTarget(one) === page) ?? placeOf(remark);
  const outline = target.kind === 'region' ? target.outline : null;
  const strokes = foreign && target.kind === 'point' ? target.shape : [];
  const signed = target.kind === 'point' && !target.drawn && strokes.length === 0;
  const drawn =
    target.kind === 'region' ? '' : foreign ? (DRAWN[remark.kind] ?? 'bg-[rgb(30_42_44/0.14)]') : '';
  return (
    <>
      {strokes.length > 0 && (
        <svg aria-hidden className="pointer-events-none absolute inset-0 z-10 h-full w-full" fill="none">
          {strokes.map((stroke, index) => (
            <polyline
              key={index}
              points={pointsOf(stroke, size, scale)}
              stroke={remark.color ?? '#1e2a2c'}
              strokeWidth={1.6 * scale}
              strokeLinecap="round"
              strokeLinejoin="round"
            />
          ))}
        </svg>
      )}
      {outline !== null && (
        <svg
          aria-hidden
          className="pointer-events-none absolute inset-0 z-10 h-full w-full"
          viewBox={`0 0 ${size.width} ${size.height}`}
          fill="none"
        >
          <path d={outline} stroke="#fff" strokeWidth={5} vectorEffect="non-scaling-stroke" />
          <path
            d={outline}
            stroke="#1e2a2c"
            strokeWidth={focused ? 3 : 2}
            vectorEffect="non-scaling-stroke"
          />
        </svg>
      )}
      {marksOnPage(remark, page, size, scale).map((box, index) => (
        <button
          key={index}
          type="button"
          tabIndex={-1}
          data-mark={remark.id}
          // A mark over several lines is one to a screen reader.
          aria-hidden={index > 0}
          aria-label={label}
          onClick={() => onFocus(remark.id)}
          onMouseEnter={() => hover(remark.id)}
          onMouseLeave={() => hover(null)}
          className={clsx(
            'absolute z-10 rounded-[2px]',
            drawn,
            target.kind === 'region' &&
              outline === null &&
              'border-2 border-[#1e2a2c] shadow-[0_0_0_1.5px_#fff,inset_0_0_0_1.5px_#fff]',
            signed &&
              'grid place-items-center border border-[#1e2a2c] bg-[#faf7f0] text-[0.65rem] text-[#1e2a2c]',
            // A picture is never covered: what is in focus there has a heavier line.
            target.kind === 'region'
              ? (focused || hovered) && 'outline-2 outline-offset-2 outline-[#1e2a2c]'
              : focused
                ? 'border-b-2 border-[#1e2a2c] bg-(--focus-tint)'
                : hovered &&
                  'bg-[color-mix(in_srgb,var(--focus-tint)_60%,transparent)] outline-1 outline-[#1e2a2c]',
          )}
          // A sign of ours stays small: where the file shows nothing, nothing may be covered.
          style={signed ? { ...box, width: SIGN, height: SIGN } : box}
        >
          {signed && index === 0 && number}
        </button>
      ))}
    </>
  );
}

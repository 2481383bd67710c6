import clsx from 'clsx';
import { useEffect, useLayoutEffect, useMemo, useRef, type CSSProperties, type ReactNode } from 'react';
import type { Remark } from '#core/model/remark.ts';
import { layoutMap, type Layout, type LayoutBlock } from '#core/paper/layout.ts';
import { saidBy } from '../../../shared/remark/said.ts';
import * as words from '../../../words/en.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import { WORDS_DRAWN } from './found-words.ts';
import type { Box } from './geometry.ts';
import { hover, useIsHovered } from './hovered.ts';
import {
  markedSpans,
  segmentsOf,
  type MarkedSpan,
  type Segment,
  type TextState,
} from '#formats/layout-segments.ts';

/** Where each remark begins on the sheet, and how tall the sheet is. */
export interface TextPlaces {
  readonly byRemark: ReadonlyMap<string, Box>;
  readonly height: number;
}
export const NOT_MEASURED: TextPlaces = { byRemark: new Map(), height: 1 };

interface TextSheetProps {
  readonly layout: Layout;
  readonly state: TextState;
  readonly paper: ReadPaper;
  readonly remarks: readonly Remark[];
  readonly numberByRemark: ReadonlyMap<string, number>;
  readonly focusedId: string | null;
  readonly zoom: number;
  readonly place: { readonly left: number; readonly top: number; readonly width: number };
  readonly onFocus: (id: string) => void;
  readonly onMeasured: (places: TextPlaces) => void;
}

/** A paper without pages of its own: headings, lists, tables, pictures and notes in one column. */
export function TextSheet(props: TextSheetProps) {
  const { layout, state, paper, remarks, zoom, place, onMeasured } = props;
  const sheet = useRef<HTMLDivElement>(null);
  const spans = useMemo(
    () => markedSpans(layout, layoutMap(layout, paper.paper), remarks, paper.anchors),
    [layout, paper, remarks],
  );
  useMeasuring(sheet, remarks, onMeasured, `${state} ${zoom} ${place.width}`);
  return (
    <div
      ref={sheet}
      data-page={1}
      data-sheet="text"
      role="region"
      aria-label={words.reading.paper}
      className="absolute border border-rule bg-surface px-[7%] py-10 font-serif leading-relaxed"
      style={{ ...place, fontSize: `${1.02 * zoom}rem` }}
    >
      {groupsOf(layout.blocks).map((group) =>
        group.table === null ? (
          <Block key={group.key} block={group.blocks[0]} {...props} spans={spans} />
        ) : (
          <table key={group.key} className="my-4 w-full border-collapse text-[0.92em]">
            <tbody>
              {rowsOf(group.blocks).map((cells, row) => (
                <tr key={row}>
                  {cells.map((blocks, column) => (
                    <td key={column} className="border border-rule px-2.5 py-1 align-top">
                      {blocks.map((block) => (
                        <Block key={block.from} block={block} {...props} spans={spans} />
                      ))}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        ),
      )}
    </div>
  );
}

/** Tells where the remarks begin whenever the text may have flowed anew. */
function useMeasuring(
  sheet: React.RefObject<HTMLDivElement | null>,
  remarks: readonly Remark[],
  onMeasured: (places: TextPlaces) => void,
  flow: string,
): void {
  const told = useRef('');
  useLayoutEffect(() => {
    const element = sheet.current;
    if (element === null) return;
    const measure = () => {
      const frame = element.getBoundingClientRect();
      const byRemark = new Map<string, Box>();
      for (const mark of element.querySelectorAll<HTMLElement>('[data-mark]')) {
        const box = mark.getBoundingClientRect();
        byRemark.set(mark.dataset.mark ?? '', {
          left: box.left - frame.left,
          top: box.top - frame.top,
          width: box.width,
          height: box.height,
        });
      }
      const now = JSON.stringify([frame.height, [...byRemark]]);
      if (now === told.current) return;
      told.current = now;
      onMeasured({ byRemark, height: frame.height });
    };
    measure();
    element.dispatchEvent(new Event(WORDS_DRAWN, { bubbles: true }));
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [sheet, remarks, onMeasured, flow]);
}

interface Group {
  readonly key: string;
  readonly table: number | null;
  readonly blocks: readonly LayoutBlock[];
}

/** Blocks one by one, and those of a table together. */
function groupsOf(blocks: readonly LayoutBlock[]): Group[] {
  const groups: { key: string; table: number | null; blocks: LayoutBlock[] }[] = [];
  blocks.forEach((block, index) => {
    const table = block.cell?.table ?? null;
    const last = groups.at(-1);
    if (table !== null && last?.table === table) last.blocks.push(block);
    else groups.push({ key: String(index), table, blocks: [block] });
  });
  return groups;
}

function rowsOf(blocks: readonly LayoutBlock[]): LayoutBlock[][][] {
  const rows: LayoutBlock[][][] = [];
  for (const block of blocks) {
    if (block.cell === null) continue;
    const row = (rows[block.cell.row] ??= []);
    (row[block.cell.column] ??= []).push(block);
  }
  return rows.map((row) => Array.from(row, (cell: LayoutBlock[] | undefined) => cell ?? []));
}

function Block({
  block,
  layout,
  state,
  spans,
  ...rest
}: TextSheetProps & { block: LayoutBlock; spans: readonly MarkedSpan[] }) {
  if (block.kind === 'picture') return <Picture layout={layout} index={block.picture} />;
  const segments = segmentsOf(layout, block, spans, state);
  if (segments.every(({ text, begins }) => text.trim() === '' && begins.length === 0)) return null;
  const content = segments.map((segment) => (
    <Piece key={`${segment.from} ${segment.to}`} segment={segment} {...rest} />
  ));
  return <Frame block={block}>{content}</Frame>;
}

function Frame({ block, children }: { block: LayoutBlock; children: ReactNode }) {
  if (block.kind === 'heading') {
    const size = block.level === 1 ? 'text-[1.45em]' : block.level === 2 ? 'text-[1.2em]' : 'text-[1.06em]';
    const Level = block.level === 1 ? 'h2' : block.level === 2 ? 'h3' : 'h4';
    return (
      <Level className={clsx('mt-5 mb-2 leading-snug font-semibold first:mt-0', size)}>{children}</Level>
    );
  }
  if (block.kind === 'item')
    return (
      <p className="relative my-1 pl-6 before:absolute before:left-2 before:content-['•']">{children}</p>
    );
  if (block.kind === 'footnote')
    return (
      <p className="mt-2 border-t border-rule pt-2 text-[0.88em]">
        <span className="mr-1.5 text-quiet">{words.reading.footnote(block.level)}</span>
        {children}
      </p>
    );
  return <p className={block.cell === null ? 'my-3' : ''}>{children}</p>;
}

function Piece({
  segment,
  remarks,
  numberByRemark,
  focusedId,
  onFocus,
}: Pick<TextSheetProps, 'remarks' | 'numberByRemark' | 'focusedId' | 'onFocus'> & {
  segment: Segment;
}) {
  const { marks, begins, change, note } = segment;
  const focused = focusedId !== null && marks.includes(focusedId);
  const hovered = useIsHovered(marks);
  const nearest = marks.at(-1);
  const marker = remarks.find(({ id, color }) => color !== null && marks.includes(id));
  return (
    <>
      {note !== null && <sup className="text-[0.7em] text-quiet">{note}</sup>}
      {begins.map((id) => {
        const remark = remarks.find((one) => one.id === id);
        const number = numberByRemark.get(id) ?? 0;
        return (
          <button
            key={id}
            type="button"
            tabIndex={-1}
            data-mark={id}
            aria-label={words.reading.mark(number, remark === undefined ? '' : saidBy(remark))}
            onClick={() => onFocus(id)}
            onMouseEnter={() => hover(id)}
            onMouseLeave={() => hover(null)}
            className={clsx(
              'relative -top-[0.35em] mx-px rounded-sm px-0.5 font-sans text-[0.62em] leading-none font-semibold select-none',
              id === focusedId ? 'text-ink underline decoration-2' : 'text-quiet hover:text-ink',
            )}
          >
            {number}
          </button>
        );
      })}
      <span
        data-from={segment.from}
        onClick={nearest === undefined ? undefined : () => onFocus(nearest)}
        onMouseEnter={nearest === undefined ? undefined : () => hover(nearest)}
        onMouseLeave={nearest === undefined ? undefined : () => hover(null)}
        style={focused || hovered || marker === undefined ? undefined : lookOf(marker)}
        className={clsx(
          segment.bold && 'font-bold',
          segment.italic && 'italic',
          change === 'insertion' && 'underline decoration-2 underline-offset-3',
          change === 'deletion' && 'text-quiet line-through',
          change === 'format' && 'underline decoration-dotted underline-offset-3',
          marks.length > 0 && 'cursor-pointer rounded-[2px]',
          focused
            ? 'bg-(--focus-tint) text-ink shadow-[0_2px_0_var(--ink)]'
            : hovered
              ? 'bg-[color-mix(in_srgb,var(--focus-tint)_60%,transparent)]'
              : marks.length > 0 && 'bg-sunken shadow-[0_1px_0_var(--rule-strong)]',
        )}
      >
        {segment.text}
      </span>
    </>
  );
}

/** Kinds of mark that are a line at the words and not a colour over them. */
const LINES: Readonly<Record<string, CSSProperties['textDecoration']>> = {
  underline: 'underline 2px',
  squiggly: 'underline wavy 1px',
  strikeout: 'line-through 2px',
};

/** The marker's own colour on the words, as it is in the paper. */
function lookOf({ kind, color }: Remark): CSSProperties {
  const line = LINES[kind];
  return line === undefined
    ? { backgroundColor: `color-mix(in srgb, ${color ?? 'transparent'} 38%, transparent)` }
    : { textDecoration: line, textDecorationColor: color ?? undefined };
}

function Picture({ layout, index }: { layout: Layout; index: number | null }) {
  const picture = index === null ? undefined : layout.pictures.at(index);
  const shown = useRef<HTMLImageElement>(null);
  useEffect(() => {
    if (picture === undefined || shown.current === null) return;
    const url = URL.createObjectURL(new Blob([picture.bytes], { type: picture.mediaType }));
    shown.current.src = url;
    return () => URL.revokeObjectURL(url);
  }, [picture]);
  if (picture === undefined) return null;
  return (
    <img
      ref={shown}
      alt={picture.description || words.reading.picture}
      className="my-4 max-w-full border border-rule"
    />
  );
}

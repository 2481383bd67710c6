import clsx from 'clsx';
import { memo, useEffect, useRef } from 'react';
import type { Paper } from '#core/paper/paper.ts';
import type { Span } from '#core/text/span.ts';

/** A place of a text that is marked in it. */
export interface MarkedPlace extends Span {
  readonly id: string;
  readonly focused: boolean;
}

/** A paper's text to read, with places marked in it; the one in focus is brought into sight. */
export function PaperShown({
  paper,
  places,
  label,
  onPress,
}: {
  paper: Paper;
  places: readonly MarkedPlace[];
  label: string;
  onPress: (id: string) => void;
}) {
  const shown = useRef<HTMLDivElement>(null);
  const focus = places.find(({ focused }) => focused);
  const from = focus?.from ?? null;
  useEffect(() => {
    if (from !== null) shown.current?.querySelector('[data-focus]')?.scrollIntoView({ block: 'center' });
  }, [from]);
  return (
    <div
      ref={shown}
      role="document"
      tabIndex={0}
      aria-label={label}
      className="draft-text font-serif text-[1.02rem] leading-relaxed"
    >
      {paper.blocks.map((block, index) => {
        const start = paper.starts[index];
        const end = start + block.text.length;
        const own = places.filter((one) => one.from <= end && one.to >= start && one.from < end + 1);
        return (
          <Block
            key={index}
            kind={block.kind}
            level={block.level}
            text={block.text}
            start={start}
            own={own.length === 0 ? NONE : own}
            onPress={onPress}
          />
        );
      })}
    </div>
  );
}

const NONE: readonly MarkedPlace[] = [];

const Block = memo(function Block({
  kind,
  level,
  text,
  start,
  own,
  onPress,
}: {
  kind: Paper['blocks'][number]['kind'];
  level: number;
  text: string;
  start: number;
  own: readonly MarkedPlace[];
  onPress: (id: string) => void;
}) {
  const Tag = kind === 'heading' ? (`h${Math.min(6, Math.max(2, level + 1))}` as 'h2') : 'p';
  return (
    <Tag
      data-from={start}
      className={clsx('whitespace-pre-wrap', kind === 'item' && 'pl-5 before:mr-2 before:content-["–"]')}
    >
      {pieces(text, start, own).map(({ from, to, place }) =>
        place === null ? (
          text.slice(from, to)
        ) : (
          <span
            key={`${place.id} ${from}`}
            data-focus={place.focused || undefined}
            className={clsx(
              'followed cursor-pointer',
              place.focused && 'followed-focus',
              from === to && 'followed-gap',
            )}
            onClick={() => {
              if (getSelection()?.isCollapsed ?? true) onPress(place.id);
            }}
          >
            {text.slice(from, to)}
          </span>
        ),
      )}
    </Tag>
  );
});

/** A block's text cut where marked places begin and end; where several lie over one another the one in focus, else the shortest. */
function pieces(text: string, start: number, places: readonly MarkedPlace[]) {
  const within = places.map((one) => ({
    ...one,
    from: Math.max(0, one.from - start),
    to: Math.min(text.length, one.to - start),
  }));
  const cuts = [...new Set([0, text.length, ...within.flatMap(({ from, to }) => [from, to])])].sort(
    (x, y) => x - y,
  );
  const gaps = within.filter(({ from, to }) => from === to);
  const cut: { from: number; to: number; place: MarkedPlace | null }[] = [];
  for (const [index, from] of cuts.entries()) {
    for (const gap of gaps) if (gap.from === from) cut.push({ from, to: from, place: gap });
    const to = cuts.at(index + 1);
    if (to === undefined || to === from) continue;
    const over = within.filter((one) => one.from <= from && one.to >= to && one.to > one.from);
    const place =
      over.find(({ focused }) => focused) ?? over.toSorted((x, y) => x.to - x.from - (y.to - y.from)).at(0);
    cut.push({ from, to, place: place ?? null });
  }
  return cut;
}

/** What is chosen within a shown paper, in its text; null for nothing. */
export function chosenIn(paper: Paper): { from: number; to: number; exact: string } | null {
  const selection = getSelection();
  if (selection === null || selection.rangeCount === 0 || selection.isCollapsed) return null;
  const range = selection.getRangeAt(0);
  const from = offsetOf(range.startContainer, range.startOffset);
  const to = offsetOf(range.endContainer, range.endOffset);
  if (from === null || to === null || to <= from) return null;
  return { from, to, exact: paper.text.slice(from, to) };
}

function offsetOf(node: Node, offset: number): number | null {
  const element = node instanceof Element ? node : node.parentElement;
  const block = element?.closest<HTMLElement>('[data-from]');
  if (block == null) return null;
  const before = document.createRange();
  before.setStart(block, 0);
  before.setEnd(node, offset);
  return Number(block.dataset.from) + before.toString().length;
}

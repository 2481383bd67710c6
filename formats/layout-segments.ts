import type { Span } from '#core/text/span.ts';
import type { Remark } from '#core/model/remark.ts';
import { keptSpans, type Layout, type LayoutBlock, type LayoutMap } from '#core/paper/layout.ts';
import { normaliseText } from '#core/text/normalise.ts';
import type { Anchor } from './marked-paper.ts';

/** Which words of a changed paper are shown: all with their changes, or one state of it. */
export const textStates = ['changes', 'accepted', 'original'] as const;
/** One of these. */
export type TextState = (typeof textStates)[number];

/** A remark's span in the layout; empty for a gap. */
export interface MarkedSpan extends Span {
  readonly id: string;
}

/** A piece of a block that looks the same throughout. */
export interface Segment extends Span {
  readonly text: string;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly change: 'insertion' | 'deletion' | 'format' | null;
  /** The remarks whose words these are. */
  readonly marks: readonly string[];
  /** The remarks that begin just here. */
  readonly begins: readonly string[];
  /** The footnote that is called just before. */
  readonly note: number | null;
}

/** Where each remark's words are in the layout. Words that were taken out are found among the deletions. */
export function markedSpans(
  layout: Layout,
  map: LayoutMap,
  remarks: readonly Remark[],
  anchors: Readonly<Record<string, Anchor>>,
): MarkedSpan[] {
  const free = layout.changes.filter((change) => change.kind === 'deletion');
  return remarks.flatMap((remark): MarkedSpan[] => {
    const anchor = anchors[remark.id] as Anchor | undefined;
    if (anchor === undefined) return [];
    if (remark.change?.kind === 'deletion') {
      const { before } = remark.change;
      const at = free.findIndex(
        ({ from, to }) =>
          normaliseText(layout.text.slice(from, to)) === before &&
          map.toPaper({ from, to: from }).from === anchor.from,
      );
      const found =
        at >= 0
          ? free.splice(at, 1)[0]
          : free.find(({ from, to }) => normaliseText(layout.text.slice(from, to)) === before);
      if (found !== undefined) return [{ id: remark.id, from: found.from, to: found.to }];
    }
    return [{ id: remark.id, ...map.toLayout(anchor) }];
  });
}

/** A block cut wherever its look, its changes or its remarks change, in a state of the text. */
export function segmentsOf(
  layout: Layout,
  block: LayoutBlock,
  spans: readonly MarkedSpan[],
  state: TextState,
): Segment[] {
  const kept = state === 'changes' ? [{ from: 0, to: layout.text.length }] : keptSpans(layout, state);
  const inside = (span: Span) => span.to >= block.from && span.from <= block.to;
  const own = spans.filter(inside);
  const changes = layout.changes.filter(inside);
  const notes = layout.notes.filter(({ at }) => at >= block.from && at <= block.to);
  const cuts = new Set([block.from, block.to]);
  const cut = (at: number) => {
    if (at > block.from && at < block.to) cuts.add(at);
  };
  for (const { from, to } of [...own, ...changes, ...block.styles, ...kept.filter(inside)]) {
    cut(from);
    cut(to);
  }
  for (const { at } of notes) cut(at);
  const at = [...cuts].sort((x, y) => x - y);
  const isKept = (from: number, to: number) => kept.some((span) => span.from <= from && to <= span.to);
  const segments: Segment[] = [];
  const begun = new Set<string>();
  const push = (from: number, to: number) => {
    const style = block.styles.find((one) => one.from <= from && to <= one.to);
    const change = changes.find((one) => one.from <= from && to <= one.to && to > from);
    // A remark begins with its first words that are shown, or at its gap.
    const begins = own.filter(
      (span) =>
        !begun.has(span.id) &&
        span.from >= block.from &&
        (span.from === from ||
          (span.from < from && from < span.to) ||
          (span.from === span.to && span.from === to && to === block.to)),
    );
    for (const { id } of begins) begun.add(id);
    segments.push({
      from,
      to,
      text: layout.text.slice(from, to),
      bold: style?.bold ?? false,
      italic: style?.italic ?? false,
      change: state === 'changes' ? (change?.kind ?? null) : null,
      marks: own.filter((span) => span.from <= from && to <= span.to && to > from).map(({ id }) => id),
      begins: begins.map(({ id }) => id),
      note: notes.find((one) => one.at === from)?.number ?? null,
    });
  };
  for (let i = 0; i + 1 < at.length; i++) if (isKept(at[i], at[i + 1])) push(at[i], at[i + 1]);
  // What hangs on words that are not shown in this state stays at the block's end.
  if (own.some((span) => !begun.has(span.id) && span.from >= block.from)) {
    const rest = own.filter((span) => !begun.has(span.id) && span.from >= block.from).map(({ id }) => id);
    segments.push({
      from: block.to,
      to: block.to,
      text: '',
      bold: false,
      italic: false,
      change: null,
      marks: [],
      begins: rest,
      note: null,
    });
  }
  return segments;
}

import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import type { Span } from '#core/text/span.ts';
import { firstFrom } from '#core/text/ascending.ts';
import { normalised, type Normalised } from '#core/text/normalise.ts';

/** Where a remark's words are in the draft now. */
export interface Followed {
  readonly id: string;
  readonly place: Span;
  readonly focused: boolean;
}

const key = new PluginKey<DecorationSet>('followed');

/** Shows followed passages in the editor. They move along with typing until they are set anew. */
export const FollowedPassages = Extension.create({
  name: 'followedPassages',
  addProseMirrorPlugins() {
    return [
      new Plugin<DecorationSet>({
        key,
        state: {
          init: () => DecorationSet.empty,
          apply(transaction, set) {
            const next = transaction.getMeta(key) as DecorationSet | undefined;
            return next ?? set.map(transaction.mapping, transaction.doc);
          },
        },
        props: { decorations: (state) => key.getState(state) },
      }),
    ];
  },
});

interface PlacedBlock {
  /** Where the block begins in the draft's text, and in the editor's document. */
  readonly start: number;
  readonly position: number;
  readonly own: Normalised;
}

/** The blocks that the draft's text is made of, as paperOfDraft joins them. */
function blocksOf(doc: Node): PlacedBlock[] {
  const blocks: PlacedBlock[] = [];
  let start = 0;
  doc.descendants((node, position) => {
    if (!node.isTextblock) return true;
    const raw = node.textBetween(0, node.content.size, '\n', '\n');
    const own = normalised(raw);
    if (own.text !== '') {
      blocks.push({ start, position: position + 1, own });
      start += own.text.length + 1;
    }
    return false;
  });
  return blocks;
}

/** @param starts where each block begins in the draft's text */
function positionOf(
  blocks: readonly PlacedBlock[],
  starts: readonly number[],
  offset: number,
): number | null {
  const block = blocks.at(Math.max(0, firstFrom(starts, offset + 1) - 1));
  if (block === undefined) return null;
  const { from, to } = block.own;
  const within = offset - block.start;
  return block.position + (within < from.length ? from[within] : to[to.length - 1]);
}

/** The places of a text in the editor's document; those that can't be found are left out. */
export function positionsIn(
  doc: Node,
  places: readonly Followed[],
): (Followed & { from: number; to: number })[] {
  const blocks = blocksOf(doc);
  const starts = blocks.map(({ start }) => start);
  return places.flatMap((followed) => {
    const from = positionOf(blocks, starts, followed.place.from);
    const to = positionOf(blocks, starts, followed.place.to);
    return from === null || to === null ? [] : [{ ...followed, from, to: Math.max(from, to) }];
  });
}

/** What to hand to the editor so that it shows these places. */
export function followedMeta(doc: Node, places: readonly Followed[]): { key: PluginKey; set: DecorationSet } {
  const decorations = positionsIn(doc, places).map(({ id, from, to, focused }) => {
    if (from === to) {
      const gap = () => {
        const mark = document.createElement('span');
        mark.className = focused ? 'followed-gap' : '';
        return mark;
      };
      return Decoration.widget(from, gap, { key: `${id}${focused ? ' focus' : ''}` });
    }
    return Decoration.inline(from, to, { class: focused ? 'followed followed-focus' : 'followed' });
  });
  return { key, set: DecorationSet.create(doc, decorations) };
}

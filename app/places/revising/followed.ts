import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import type { Span } from '#core/anchors/locate.ts';
import { normaliseText, rawOffset } from '#core/text/normalise.ts';

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
  readonly raw: string;
  readonly length: number;
}

/** The blocks that the draft's text is made of, as paperOfDraft joins them. */
function blocksOf(doc: Node): PlacedBlock[] {
  const blocks: PlacedBlock[] = [];
  let start = 0;
  doc.descendants((node, position) => {
    if (!node.isTextblock) return true;
    const raw = node.textBetween(0, node.content.size, '\n', '\n');
    const length = normaliseText(raw).length;
    if (length > 0) {
      blocks.push({ start, position: position + 1, raw, length });
      start += length + 1;
    }
    return false;
  });
  return blocks;
}

function positionOf(blocks: readonly PlacedBlock[], offset: number): number | null {
  const block = blocks.findLast((b) => b.start <= offset);
  if (block === undefined) return null;
  return block.position + rawOffset(block.raw, Math.min(block.length, offset - block.start));
}

/** The places of a text in the editor's document; those that can't be found are left out. */
export function positionsIn(
  doc: Node,
  places: readonly Followed[],
): (Followed & { from: number; to: number })[] {
  const blocks = blocksOf(doc);
  return places.flatMap((followed) => {
    const from = positionOf(blocks, followed.place.from);
    const to = positionOf(blocks, followed.place.to);
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

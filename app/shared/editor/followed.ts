import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { decisionsIn } from '#core/tally/decided.ts';
import type { Span } from '#core/text/span.ts';
import { firstFrom } from '#core/text/ascending.ts';
import { normalised, type Normalised } from '#core/text/normalise.ts';
import type { LookLine } from '#core/look/line.ts';
import { saidOf } from '#core/look/says.ts';
import type { AssignmentOutlet } from '../page/assignment-outlet.ts';

/** Where a remark's words are in the draft now. */
export interface Followed {
  readonly id: string;
  readonly place: Span;
  readonly focused: boolean;
  /** It is no remark's, but a line of the last look; what that says. */
  readonly line?: string;
}

/** Lines of the last look, to be marked in the draft. */
export function linesIn(lines: readonly LookLine[]): Followed[] {
  return lines.map((line) => ({ id: SHOWN, place: line.place, focused: false, line: saidOf(line) }));
}

/**
 * What is marked in the draft: the words of remarks to act on, of the one in focus with what answers it, and a place that is
 * looked at.
 */
export function followedIn(
  { work, live }: Pick<AssignmentOutlet, 'work' | 'live'>,
  focusedId: string | null,
  shown: Span | null,
): Followed[] {
  if (live === null) return [];
  const words = [...live.byRemark].flatMap(([id, outcome]): Followed[] => {
    const focused = id === focusedId;
    const acts = decisionsIn(work.judgements.get(id)).includes('act');
    return focused || (acts && outcome.kind !== 'gone')
      ? [{ id, place: outcome.place, focused: focused && shown === null }]
      : [];
  });
  const taken = [...work.given.values()]
    .filter(({ remarkId }) => remarkId === focusedId)
    .flatMap(({ remarkId, places }) =>
      places.flatMap((pick): Followed[] => {
        const place = live.picks.get(pick)?.place ?? null;
        return place === null ? [] : [{ id: remarkId, place, focused: false }];
      }),
    );
  return [...words, ...taken, ...(shown === null ? [] : [{ id: SHOWN, place: shown, focused: true }])];
}

/** A place that is looked at is no remark's. */
const SHOWN = 'shown';

/** The remark whose words an offset stands in; of several the one with the fewest. null for none. */
export function remarkAt(followed: readonly Followed[], offset: number): string | null {
  const over = followed.filter(({ id, place }) => id !== SHOWN && place.from <= offset && place.to >= offset);
  const [first] = over.toSorted((x, y) => x.place.to - x.place.from - (y.place.to - y.place.from));
  return (first as Followed | undefined)?.id ?? null;
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
  const decorations = positionsIn(doc, places).map(({ id, from, to, focused, line }) => {
    if (line !== undefined) return Decoration.inline(from, to, { class: 'looked-at', title: line });
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

/** The place in a draft's text of a range of the editor's document; null between blocks with words. */
export function placeIn(doc: Node, from: number, to: number): Span | null {
  const blocks = blocksOf(doc);
  const offset = (position: number, isEnd: boolean) => {
    const block = blocks.findLast((one) => one.position <= position);
    if (block === undefined) return null;
    const { from: starts, to: ends, text } = block.own;
    const raw = position - block.position;
    return block.start + Math.min(text.length, isEnd ? firstFrom(ends, raw + 1) : firstFrom(starts, raw));
  };
  const start = offset(from, false);
  const end = from === to ? start : offset(to, true);
  return start === null || end === null || end < start ? null : { from: start, to: end };
}

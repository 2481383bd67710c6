import { Extension, type Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';

/** Words that are looked for in the draft, and put in place of. */

const key = new PluginKey<DecorationSet>('found');

/** Shows where the words stand that are looked for. */
export const FoundWords = Extension.create({
  name: 'foundWords',
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      key,
      state: {
        init: () => DecorationSet.empty,
        apply: (transaction, set) =>
          (transaction.getMeta(key) as DecorationSet | undefined) ??
          set.map(transaction.mapping, transaction.doc),
      },
      props: { decorations: (state) => key.getState(state) },
    }),
  ],
});

/** Where words stand in a document. */
export interface FoundAt {
  readonly from: number;
  readonly to: number;
}

/** All places of some words, capitals or not, each within one paragraph. */
export function placesOf(doc: Node, words: string): FoundAt[] {
  if (words === '') return [];
  const wanted = words.toLocaleLowerCase();
  const found: FoundAt[] = [];
  doc.descendants((node, position) => {
    if (!node.isTextblock) return true;
    // A leaf that is no text takes one place, as this letter does.
    const text = node.textBetween(0, node.content.size, '\n', '\uFFFC').toLocaleLowerCase();
    for (let at = text.indexOf(wanted); at >= 0; at = text.indexOf(wanted, at + wanted.length))
      found.push({ from: position + 1 + at, to: position + 1 + at + wanted.length });
    return false;
  });
  return found;
}

/** Shows places as found, one of them as the one in hand. */
export function showFound(editor: Editor, places: readonly FoundAt[], current: number): void {
  const set = DecorationSet.create(
    editor.state.doc,
    places.map(({ from, to }, index) =>
      Decoration.inline(from, to, { class: index === current ? 'found found-current' : 'found' }),
    ),
  );
  editor.view.dispatch(editor.state.tr.setMeta(key, set).setMeta('addToHistory', false));
  const at = places.at(current);
  if (at === undefined || current < 0) return;
  const { node } = editor.view.domAtPos(at.from);
  (node instanceof Element ? node : node.parentElement)?.scrollIntoView({ block: 'nearest' });
}

/** Puts words in place of others, all in one step of undo. Looks stay as they are at the beginning of each place. */
export function putInPlace(editor: Editor, places: readonly FoundAt[], words: string): void {
  const { tr, schema } = editor.state;
  for (const { from, to } of places.toReversed()) {
    if (words === '') tr.delete(from, to);
    else tr.replaceWith(from, to, schema.text(words, tr.doc.resolve(from + 1).marks()));
  }
  editor.view.dispatch(tr);
}

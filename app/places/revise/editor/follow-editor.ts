import type { Editor } from '@tiptap/react';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { paperOfDraft } from '#core/paper/draft.ts';
import type { LookLine } from '#core/look/line.ts';
import type { Span } from '#core/text/span.ts';
import { placeAsked } from '../../../shared/page/addresses.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import type { TextSide } from '../answers/text-side.ts';
import {
  followedIn,
  followedMeta,
  linesIn,
  placeIn,
  positionsIn,
  remarkAt,
} from '../../../shared/editor/followed.ts';

/** Which remark is in focus beside an editor, and what of the draft is shown for it: the list follows the cursor, and back. */
export function useFollowedEditor(editor: Editor, outlet: AssignmentOutlet, lines: readonly LookLine[]) {
  const { live } = outlet;
  const [search] = useSearchParams();
  const [focusedId, setFocusedId] = useState<string | null>(search.get('remark'));
  const asked = useMemo(() => placeAsked(search), [search]);
  const [shown, setShown] = useState<Span | null>(asked);
  const followed = useMemo(
    () => [...followedIn(outlet, focusedId, shown), ...linesIn(lines)],
    [outlet, focusedId, shown, lines],
  );
  // The place that the address asks for is scrolled to once.
  useEffect(() => {
    if (asked !== null) scrollTo(editor, asked);
  }, [editor, asked]);
  useEffect(() => {
    // Outcomes of an older text than the editor holds wait for the next ones.
    if (live?.paper.text !== textOf(editor)) return;
    const { key, set } = followedMeta(editor.state.doc, followed);
    editor.view.dispatch(editor.state.tr.setMeta(key, set).setMeta('addToHistory', false));
  }, [editor, followed, live]);
  const atCursor = useRef<() => void>(() => undefined);
  useLayoutEffect(() => {
    atCursor.current = () => {
      const { from, to } = editor.state.selection;
      if (from !== to || !editor.isFocused) return;
      const place = placeIn(editor.state.doc, from, to);
      const id = place === null ? null : remarkAt(followed, place.from);
      if (id !== null) setFocusedId(id);
    };
  });
  useEffect(() => {
    const follow = () => atCursor.current();
    editor.on('selectionUpdate', follow);
    return () => {
      editor.off('selectionUpdate', follow);
    };
  }, [editor]);
  const side: TextSide = {
    show: (place) => {
      setShown(place);
      scrollTo(editor, place);
    },
    put: (place, put) => {
      const at = positionsIn(editor.state.doc, [{ id: '', place, focused: true }]).at(0);
      if (at === undefined || live?.paper.text !== textOf(editor)) return false;
      const { tr, schema } = editor.state;
      editor.view.dispatch(
        put === '' ? tr.delete(at.from, at.to) : tr.replaceWith(at.from, at.to, schema.text(put)),
      );
      return true;
    },
    chosen: () => {
      const { from, to } = editor.state.selection;
      if (from === to || live?.paper.text !== textOf(editor)) return null;
      const place = placeIn(editor.state.doc, from, to);
      return place === null ? null : { ...place, exact: live.paper.text.slice(place.from, place.to) };
    },
  };
  const focus = (id: string) => {
    setFocusedId(id);
    setShown(null);
    const outcome = live?.byRemark.get(id);
    if (outcome !== undefined) scrollTo(editor, outcome.place);
  };
  return { focusedId, focus, side };
}

const textOf = (editor: Editor) => paperOfDraft({ schema: 1, doc: editor.getJSON() }).text;

function scrollTo(editor: Editor, place: Span): void {
  const at = positionsIn(editor.state.doc, [{ id: '', place, focused: true }]).at(0);
  if (at === undefined) return;
  const { node } = editor.view.domAtPos(at.from);
  const element = node instanceof Element ? node : node.parentElement;
  element?.scrollIntoView({ block: 'center' });
}

/** The offset of the draft's text that stands at the top of what scrolls; null where none can be told. */
export function offsetAtTop(editor: Editor, scroller: HTMLElement): number | null {
  const box = scroller.getBoundingClientRect();
  const at = editor.view.posAtCoords({ left: box.left + box.width / 2, top: box.top + 8 });
  return at === null ? null : (placeIn(editor.state.doc, at.pos, at.pos)?.from ?? null);
}

import { revise } from '../../../words/revising.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import type { Workspace } from '../../../workspace/workspace.ts';
import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import * as v from 'valibot';
import { DraftContent, type Draft } from '#core/model/work.ts';
import { saveDraft } from '../../../workspace/commands/draft.ts';
import { Keeper } from '../../../workspace/state/keeper.ts';
import { draftKit } from './kit.ts';
import { cleanHtml } from '#formats/text/clean-html.ts';
import { urlsOf } from './pictures.ts';
import { UndoLog } from './undo-log.ts';

/** What was typed last before the page went away, if it was not kept. @param field what it is kept under */
export function lastTyped(workspace: Workspace, field: string): DraftContent | null {
  const text = workspace.journal.read(field);
  if (text === null) return null;
  const parsed = v.safeParse(DraftContent, JSON.parse(text));
  return parsed.success ? parsed.output : null;
}

/**
 * Keeps what is typed in an editor.
 * @param field the name under which the last words before a page goes away are found again
 */
export function useKeeping(
  field: string,
  save: (content: DraftContent) => Promise<void>,
  onFailed: () => void,
) {
  const workspace = useWorkspace();
  const [ours] = useState(() => new WeakSet<DraftContent>());
  const keeper = useMemo(
    () => new Keeper<DraftContent>(workspace, field, (content) => JSON.stringify(content)),
    [workspace, field],
  );
  useLayoutEffect(() => {
    keeper.keepBy((content) => {
      ours.add(content);
      return save(content);
    }, onFailed);
  });
  useEffect(() => {
    const leave = () => keeper.leave();
    window.addEventListener('pagehide', leave);
    document.addEventListener('visibilitychange', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      document.removeEventListener('visibilitychange', leave);
      leave();
    };
  }, [keeper]);
  return { ours, keeper };
}

/** Keeps what is typed, and takes over what another command or tab made of the draft. */
export function useDraftEditor(
  draft: Draft,
  content: DraftContent,
  editable: boolean,
  onFailed: () => void,
): Editor {
  const workspace = useWorkspace();
  const { ours, keeper } = useKeeping(draft.id, (typed) => saveDraft(workspace, draft.id, typed), onFailed);
  const latest = useRef(keeper);
  useLayoutEffect(() => {
    latest.current = keeper;
  });
  const [kit] = useState(() => draftKit(urlsOf(workspace)));
  const [undoLog] = useState(() => new UndoLog(`juncture/undo/${draft.id}`));
  const editor = useEditor({
    extensions: kit,
    content: content.doc,
    editable,
    editorProps: {
      transformPastedHTML: cleanHtml,
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': revise.editorLabel },
    },
    onCreate: ({ editor: made }) => undoLog.restore(made),
    onTransaction: ({ transaction }) => undoLog.add(transaction),
    onUpdate: ({ editor: typed }) => latest.current.changed(() => ({ schema: 1, doc: typed.getJSON() })),
  });
  const shown = useRef(content);
  useEffect(() => {
    editor.setEditable(editable, false);
    const last = editable ? lastTyped(workspace, draft.id) : null;
    if (last !== null) editor.commands.setContent(last.doc);
  }, [editor, editable, draft.id, workspace]);
  useEffect(() => {
    const leave = () => undoLog.keep();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [undoLog]);
  useEffect(() => {
    if (shown.current === content) return;
    shown.current = content;
    if (!ours.has(content)) editor.commands.setContent(content.doc, { emitUpdate: false });
  }, [editor, content, ours]);
  return editor;
}

export function DraftEditor({ editor }: { editor: Editor }) {
  return (
    <EditorContent
      editor={editor}
      className="draft-text draft-editor font-serif text-[1.02rem] leading-relaxed"
    />
  );
}

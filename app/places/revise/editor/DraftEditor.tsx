import { revise } from '../../../words/revising.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Draft, DraftContent } from '#core/model/work.ts';
import { saveDraft } from '../../../workspace/commands/draft.ts';
import { draftKit } from '../../../shared/editor/kit.ts';
import { lastTyped, useKeeping } from '../../../shared/editor/keeping.ts';
import { cleanHtml } from '#formats/text/clean-html.ts';
import { urlsOf } from '../../../shared/editor/pictures.ts';
import { UndoLog } from './undo-log.ts';

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

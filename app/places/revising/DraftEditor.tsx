import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import clsx from 'clsx';
import { Bold, Heading2, Heading3, Italic, List, Pilcrow, Redo2, Undo2, type LucideIcon } from 'lucide-react';
import { useEffect, useLayoutEffect, useRef } from 'react';
import * as v from 'valibot';
import { DraftContent, type Draft } from '#core/model/work.ts';
import { words } from '../../words/en.ts';
import { saveDraft } from '../../workspace/draft.ts';
import { journalise, journalled, settling } from '../../workspace/journal.ts';
import { holdSaving, type Unkept } from '../../workspace/workspace.ts';
import { FollowedPassages } from './followed.ts';

/** What was typed is kept after so long at the latest. */
const KEEP_AFTER_MS = 200;

/** What was typed last before the page went away, if it didn't reach the draft. */
function lastTyped(draftId: string): DraftContent | null {
  const text = journalled(draftId);
  if (text === null) return null;
  const parsed = v.safeParse(DraftContent, JSON.parse(text));
  return parsed.success ? parsed.output : null;
}

/** Keeps what is typed in an editor; `keep` at once. */
function useKeeping(draftId: string, onFailed: () => void) {
  const ours = useRef(new WeakSet<DraftContent>());
  const unkept = useRef<{ editor: Editor; hold: Unkept } | null>(null);
  const typedIn = useRef<Editor | null>(null);
  const underWay = useRef(0);
  const stuck = useRef<Unkept | null>(null);
  const failed = useRef(onFailed);
  useLayoutEffect(() => {
    failed.current = onFailed;
  });
  const keep = useRef(async () => {
    const nothingElse = () => unkept.current === null && underWay.current === 1;
    if (unkept.current === null) return;
    const { editor, hold } = unkept.current;
    unkept.current = null;
    const content: DraftContent = { schema: 1, doc: editor.getJSON() };
    ours.current.add(content);
    const settled = settling(draftId);
    underWay.current++;
    try {
      await saveDraft(draftId, content);
      // An entry made meanwhile is of this content, unless more was typed.
      await (nothingElse() ? settling(draftId) : settled)();
      hold.kept();
      stuck.current?.kept();
      stuck.current = null;
    } catch {
      journalise(draftId, JSON.stringify(content));
      hold.failed();
      stuck.current?.kept();
      stuck.current = hold;
      failed.current();
    } finally {
      underWay.current--;
    }
  });
  useEffect(() => {
    const flush = keep.current;
    const leave = () => {
      // What is under way may not arrive any more.
      const unsaved = unkept.current !== null || underWay.current > 0;
      const editor = typedIn.current;
      if (unsaved && editor !== null)
        journalise(draftId, JSON.stringify({ schema: 1, doc: editor.getJSON() }));
      void flush();
    };
    window.addEventListener('pagehide', leave);
    document.addEventListener('visibilitychange', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      document.removeEventListener('visibilitychange', leave);
      leave();
    };
  }, [draftId]);
  const changed = useRef((editor: Editor) => {
    if (unkept.current !== null) return;
    unkept.current = { editor, hold: holdSaving() };
    typedIn.current = editor;
    // Not put off by further typing: a killed tab loses no more than this.
    setTimeout(() => void keep.current(), KEEP_AFTER_MS);
  });
  return { ours, changed };
}

/** Keeps what is typed, and takes over what another command or tab made of the draft. */
export function useDraftEditor(draft: Draft, editable: boolean, onFailed: () => void): Editor {
  const { ours, changed } = useKeeping(draft.id, onFailed);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({
        heading: { levels: [1, 2, 3] },
        blockquote: false,
        codeBlock: false,
        code: false,
        horizontalRule: false,
        link: false,
        strike: false,
        underline: false,
        orderedList: false,
      }),
      FollowedPassages,
    ],
    content: draft.content.doc,
    editable,
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': words.revise.editorLabel },
    },
    onUpdate: ({ editor: typed }) => changed.current(typed),
  });
  const shown = useRef(draft.content);
  useEffect(() => {
    editor.setEditable(editable, false);
    const last = editable ? lastTyped(draft.id) : null;
    if (last !== null) editor.commands.setContent(last.doc);
  }, [editor, editable, draft.id]);
  useEffect(() => {
    if (shown.current === draft.content) return;
    shown.current = draft.content;
    if (!ours.current.has(draft.content))
      editor.commands.setContent(draft.content.doc, { emitUpdate: false });
  }, [editor, draft.content, ours]);
  return editor;
}

export function DraftEditor({ editor }: { editor: Editor }) {
  return <EditorContent editor={editor} className="draft-text font-serif text-[1.02rem] leading-relaxed" />;
}

interface Tool {
  readonly label: string;
  readonly icon: LucideIcon;
  readonly isOn: (editor: Editor) => boolean;
  readonly run: (editor: Editor) => unknown;
}

const TOOLS: readonly Tool[] = [
  {
    label: words.revise.paragraph,
    icon: Pilcrow,
    isOn: (e) => e.isActive('paragraph') && !e.isActive('bulletList'),
    run: (e) => e.chain().focus().setParagraph().run(),
  },
  {
    label: words.revise.heading,
    icon: Heading2,
    isOn: (e) => e.isActive('heading', { level: 2 }),
    run: (e) => e.chain().focus().toggleHeading({ level: 2 }).run(),
  },
  {
    label: words.revise.subheading,
    icon: Heading3,
    isOn: (e) => e.isActive('heading', { level: 3 }),
    run: (e) => e.chain().focus().toggleHeading({ level: 3 }).run(),
  },
  {
    label: words.revise.bold,
    icon: Bold,
    isOn: (e) => e.isActive('bold'),
    run: (e) => e.chain().focus().toggleBold().run(),
  },
  {
    label: words.revise.italic,
    icon: Italic,
    isOn: (e) => e.isActive('italic'),
    run: (e) => e.chain().focus().toggleItalic().run(),
  },
  {
    label: words.revise.list,
    icon: List,
    isOn: (e) => e.isActive('bulletList'),
    run: (e) => e.chain().focus().toggleBulletList().run(),
  },
  { label: words.revise.undo, icon: Undo2, isOn: () => false, run: (e) => e.chain().focus().undo().run() },
  { label: words.revise.redo, icon: Redo2, isOn: () => false, run: (e) => e.chain().focus().redo().run() },
];

export function Toolbar({ editor }: { editor: Editor }) {
  return (
    <div role="toolbar" aria-label={words.revise.toolbar} className="flex gap-0.5">
      {TOOLS.map(({ label, icon: Icon, isOn, run }) => (
        <button
          key={label}
          type="button"
          title={label}
          aria-label={label}
          aria-pressed={isOn(editor)}
          onClick={() => run(editor)}
          className={clsx('rounded p-1.5', isOn(editor) ? 'bg-sunken text-ink' : 'text-quiet hover:text-ink')}
        >
          <Icon size={16} aria-hidden />
        </button>
      ))}
    </div>
  );
}

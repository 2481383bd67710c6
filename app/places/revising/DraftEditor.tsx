import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import clsx from 'clsx';
import { Bold, Heading2, Heading3, Italic, List, Pilcrow, Redo2, Undo2, type LucideIcon } from 'lucide-react';
import { useEffect, useRef } from 'react';
import type { Draft, DraftContent } from '#core/model/work.ts';
import { words } from '../../words/en.ts';
import { saveDraft } from '../../workspace/draft.ts';
import { FollowedPassages } from './followed.ts';

/** What was typed is kept after so long at the latest. */
const KEEP_AFTER_MS = 250;

/** Keeps what is typed, and takes over what another command or tab made of the draft. */
export function useDraftEditor(draft: Draft, editable: boolean, onFailed: () => void): Editor {
  const ours = useRef(new WeakSet<DraftContent>([draft.content]));
  const unkept = useRef<Editor | null>(null);
  const failed = useRef(onFailed);
  useEffect(() => {
    failed.current = onFailed;
  });
  const draftId = draft.id;
  const keep = useRef(() => {
    const editor = unkept.current;
    if (editor === null) return;
    unkept.current = null;
    const content: DraftContent = { schema: 1, doc: editor.getJSON() };
    ours.current.add(content);
    saveDraft(draftId, content).catch(() => failed.current());
  });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
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
    onUpdate: ({ editor: changed }) => {
      unkept.current = changed;
      // Not put off by further typing: a killed tab loses no more than this.
      timer.current ??= setTimeout(() => {
        timer.current = null;
        keep.current();
      }, KEEP_AFTER_MS);
    },
  });
  useEffect(() => {
    editor.setEditable(editable, false);
  }, [editor, editable]);
  useEffect(() => {
    if (ours.current.has(draft.content)) return;
    ours.current.add(draft.content);
    editor.commands.setContent(draft.content.doc, { emitUpdate: false });
  }, [editor, draft.content]);
  useEffect(() => {
    const flush = keep.current;
    window.addEventListener('pagehide', flush);
    document.addEventListener('visibilitychange', flush);
    return () => {
      window.removeEventListener('pagehide', flush);
      document.removeEventListener('visibilitychange', flush);
      flush();
    };
  }, []);
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

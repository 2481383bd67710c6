import { Tooltip } from '../../shared/controls/Tooltip.tsx';
import { Toolbar as Radix } from 'radix-ui';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { EditorContent, useEditor, type Editor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import clsx from 'clsx';
import { Bold, Heading2, Heading3, Italic, List, Pilcrow, Redo2, Undo2, type LucideIcon } from 'lucide-react';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import * as v from 'valibot';
import { DraftContent, type Draft } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import { saveDraft } from '../../workspace/commands/draft.ts';
import { Keeper } from '../../workspace/state/keeper.ts';
import { FollowedPassages } from './followed.ts';

/** What was typed last before the page went away, if it didn't reach the draft. */
function lastTyped(workspace: Workspace, draftId: string): DraftContent | null {
  const text = workspace.journal.read(draftId);
  if (text === null) return null;
  const parsed = v.safeParse(DraftContent, JSON.parse(text));
  return parsed.success ? parsed.output : null;
}

/** Keeps what is typed in an editor. */
function useKeeping(draftId: string, onFailed: () => void) {
  const workspace = useWorkspace();
  const [ours] = useState(() => new WeakSet<DraftContent>());
  const keeper = useMemo(
    () => new Keeper<DraftContent>(workspace, draftId, (content) => JSON.stringify(content)),
    [workspace, draftId],
  );
  useLayoutEffect(() => {
    keeper.keepBy((content) => {
      ours.add(content);
      return saveDraft(workspace, draftId, content);
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
  const { ours, keeper } = useKeeping(draft.id, onFailed);
  const latest = useRef(keeper);
  useLayoutEffect(() => {
    latest.current = keeper;
  });
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
    content: content.doc,
    editable,
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': words.revise.editorLabel },
    },
    onUpdate: ({ editor: typed }) => latest.current.changed(() => ({ schema: 1, doc: typed.getJSON() })),
  });
  const shown = useRef(content);
  useEffect(() => {
    editor.setEditable(editable, false);
    const last = editable ? lastTyped(workspace, draft.id) : null;
    if (last !== null) editor.commands.setContent(last.doc);
  }, [editor, editable, draft.id, workspace]);
  useEffect(() => {
    if (shown.current === content) return;
    shown.current = content;
    if (!ours.has(content)) editor.commands.setContent(content.doc, { emitUpdate: false });
  }, [editor, content, ours]);
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
    <Radix.Root aria-label={words.revise.toolbar} className="flex gap-0.5">
      {TOOLS.map(({ label, icon: Icon, isOn, run }) => (
        <Tooltip key={label} text={label}>
          <Radix.Button
            aria-label={label}
            aria-pressed={isOn(editor)}
            onClick={() => run(editor)}
            className={clsx(
              'rounded p-1.5',
              isOn(editor) ? 'bg-sunken text-ink' : 'text-quiet hover:text-ink',
            )}
          >
            <Icon size={16} aria-hidden />
          </Radix.Button>
        </Tooltip>
      ))}
    </Radix.Root>
  );
}

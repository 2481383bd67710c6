import { look } from '../../../words/look.ts';
import { revise } from '../../../words/revising.ts';
import { useEditorState, type Editor } from '@tiptap/react';
import {
  addColumnAfter,
  addRowAfter,
  deleteColumn,
  deleteRow,
  deleteTable,
  isInTable,
} from '@tiptap/pm/tables';
import clsx from 'clsx';
import {
  Asterisk,
  BetweenHorizontalEnd,
  BetweenVerticalEnd,
  Bold,
  FoldHorizontal,
  FoldVertical,
  Grid2x2X,
  Heading2,
  Heading3,
  ImagePlus,
  Italic,
  Link2,
  List,
  ListOrdered,
  Pilcrow,
  Quote,
  Redo2,
  ScanSearch,
  Search,
  Subscript,
  Superscript,
  Table2,
  Undo2,
  type LucideIcon,
} from 'lucide-react';
import { Toolbar as Radix } from 'radix-ui';
import { Tooltip } from '../../../shared/controls/Tooltip.tsx';

interface Tool {
  readonly label: string;
  readonly icon: LucideIcon;
  readonly isOn: (editor: Editor) => boolean;
  readonly run: (editor: Editor) => unknown;
}

const never = () => false;

const TOOLS: readonly Tool[] = [
  {
    label: revise.paragraph,
    icon: Pilcrow,
    isOn: (e) => e.isActive('paragraph') && !e.isActive('listItem') && !e.isActive('blockquote'),
    run: (e) => e.chain().focus().clearNodes().run(),
  },
  {
    label: revise.heading,
    icon: Heading2,
    isOn: (e) => e.isActive('heading', { level: 2 }),
    run: (e) => e.chain().focus().toggleHeading({ level: 2 }).run(),
  },
  {
    label: revise.subheading,
    icon: Heading3,
    isOn: (e) => e.isActive('heading', { level: 3 }),
    run: (e) => e.chain().focus().toggleHeading({ level: 3 }).run(),
  },
  {
    label: revise.bold,
    icon: Bold,
    isOn: (e) => e.isActive('bold'),
    run: (e) => e.chain().focus().toggleBold().run(),
  },
  {
    label: revise.italic,
    icon: Italic,
    isOn: (e) => e.isActive('italic'),
    run: (e) => e.chain().focus().toggleItalic().run(),
  },
  {
    label: revise.list,
    icon: List,
    isOn: (e) => e.isActive('bulletList'),
    run: (e) => e.chain().focus().toggleBulletList().run(),
  },
  {
    label: revise.numbered,
    icon: ListOrdered,
    isOn: (e) => e.isActive('orderedList'),
    run: (e) => e.chain().focus().toggleOrderedList().run(),
  },
  {
    label: revise.quotation,
    icon: Quote,
    isOn: (e) => e.isActive('blockquote'),
    run: (e) => e.chain().focus().toggleBlockquote().run(),
  },
  {
    label: revise.superscript,
    icon: Superscript,
    isOn: (e) => e.isActive('superscript'),
    run: (e) => e.chain().focus().toggleMark('superscript').run(),
  },
  {
    label: revise.subscript,
    icon: Subscript,
    isOn: (e) => e.isActive('subscript'),
    run: (e) => e.chain().focus().toggleMark('subscript').run(),
  },
];

const HISTORY: readonly Tool[] = [
  { label: revise.undo, icon: Undo2, isOn: never, run: (e) => e.chain().focus().undo().run() },
  { label: revise.redo, icon: Redo2, isOn: never, run: (e) => e.chain().focus().redo().run() },
];

/** Rows and columns that a new table begins with: a head and two rows of three. */
const NEW_TABLE = { rows: 3, columns: 3 };

function insertTable(editor: Editor): void {
  const cellOf = (type: string) => ({ type, content: [{ type: 'paragraph' }] });
  const content = Array.from({ length: NEW_TABLE.rows }, (_, row) => ({
    type: 'tableRow',
    content: Array.from({ length: NEW_TABLE.columns }, () => cellOf(row === 0 ? 'tableHeader' : 'tableCell')),
  }));
  editor.chain().focus().insertContent({ type: 'table', content }).run();
}

/** What is put in by name, and what of it needs a word first. */
export interface Inserting {
  readonly onLink: () => void;
  readonly onFootnote: () => void;
  readonly onPicture: () => void;
  readonly onFind: () => void;
}

const TABLE: readonly Tool[] = [
  {
    label: revise.addRow,
    icon: BetweenHorizontalEnd,
    isOn: never,
    run: (e) => addRowAfter(e.state, e.view.dispatch),
  },
  {
    label: revise.addColumn,
    icon: BetweenVerticalEnd,
    isOn: never,
    run: (e) => addColumnAfter(e.state, e.view.dispatch),
  },
  {
    label: revise.deleteRow,
    icon: FoldVertical,
    isOn: never,
    run: (e) => deleteRow(e.state, e.view.dispatch),
  },
  {
    label: revise.deleteColumn,
    icon: FoldHorizontal,
    isOn: never,
    run: (e) => deleteColumn(e.state, e.view.dispatch),
  },
  {
    label: revise.deleteTable,
    icon: Grid2x2X,
    isOn: never,
    run: (e) => deleteTable(e.state, e.view.dispatch),
  },
];

/** Whether lines of the last look are marked in the text, and how that is changed. */
interface Marking {
  readonly on: boolean;
  readonly turn: () => void;
}

export function Toolbar({
  editor,
  inserting,
  marking,
}: {
  editor: Editor;
  inserting: Inserting;
  marking: Marking;
}) {
  const insert: readonly Tool[] = [
    { label: revise.link, icon: Link2, isOn: (e) => e.isActive('link'), run: inserting.onLink },
    {
      label: revise.footnote,
      icon: Asterisk,
      isOn: (e) => e.isActive('footnote'),
      run: inserting.onFootnote,
    },
    { label: revise.picture, icon: ImagePlus, isOn: (e) => e.isActive('figure'), run: inserting.onPicture },
    { label: revise.table, icon: Table2, isOn: (e) => isInTable(e.state), run: insertTable },
  ];
  const inTable = useEditorState({ editor, selector: (now) => isInTable(now.editor.state) });
  const tools = [
    ...TOOLS,
    ...insert,
    ...(inTable ? TABLE : []),
    { label: revise.findAndReplace, icon: Search, isOn: never, run: inserting.onFind },
    { label: look.marks, icon: ScanSearch, isOn: () => marking.on, run: marking.turn },
    ...HISTORY,
  ];
  const on = useEditorState({
    editor,
    selector: (now) => tools.map(({ isOn }) => isOn(now.editor)),
    equalityFn: (x, y) => y !== null && x.length === y.length && x.every((one, index) => one === y[index]),
  });
  return (
    <Radix.Root aria-label={revise.toolbar} className="flex flex-wrap gap-0.5">
      {tools.map(({ label, icon: Icon, run }, index) => (
        <Tooltip key={label} text={label}>
          <Radix.Button
            aria-label={label}
            aria-pressed={on[index] ?? false}
            // The text keeps the focus, so that what is typed next goes there at once.
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => run(editor)}
            className={clsx('rounded p-1.5', on[index] ? 'bg-sunken text-ink' : 'text-quiet hover:text-ink')}
          >
            <Icon size={16} aria-hidden />
          </Radix.Button>
        </Tooltip>
      ))}
    </Radix.Root>
  );
}

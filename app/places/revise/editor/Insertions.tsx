import { revise } from '../../../words/revising.ts';
import type { Editor } from '@tiptap/react';
import { useRef, useState, type RefObject } from 'react';
import { toast } from 'sonner';
import type { StoredFile } from '#core/model/work.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Dialog } from '../../../shared/controls/Dialog.tsx';
import * as words from '../../../words/en.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { keepPicture } from '../../../shared/editor/pictures.ts';
import type { Inserting } from './Toolbar.tsx';

/** What a picture in a draft may have: more makes a file that nobody can send. */
const MOST_PICTURE_BYTES = 20 * 1024 * 1024;
const PICTURES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp'];
/** In CSS pixels: as wide as the text. */
const MOST_WIDTH = 620;

/** Puts in what needs a word first: where a link leads, what a footnote says, which picture. */
export function useInsertions(
  editor: Editor,
  assignmentId: StoredFile['assignmentId'],
  onFind: () => void,
): { readonly inserting: Inserting; readonly dialogs: React.ReactNode } {
  const [asking, ask] = useState<'link' | 'footnote' | null>(null);
  const picture = useRef<HTMLInputElement>(null);
  const inserting: Inserting = {
    onLink: () => ask('link'),
    onFootnote: () => ask('footnote'),
    onPicture: () => picture.current?.click(),
    onFind,
  };
  const dialogs = (
    <>
      {asking !== null && <Asked key={asking} what={asking} editor={editor} onClose={() => ask(null)} />}
      <PictureInput input={picture} editor={editor} assignmentId={assignmentId} />
    </>
  );
  return { inserting, dialogs };
}

function Asked({
  what,
  editor,
  onClose,
}: {
  what: 'link' | 'footnote';
  editor: Editor;
  onClose: () => void;
}) {
  const told = revise.ask[what];
  const before: unknown =
    what === 'link' ? editor.getAttributes('link').href : editor.getAttributes('footnote').text;
  const isThere = typeof before === 'string' && before !== '';
  const [text, setText] = useState(isThere ? before : '');
  const put = () => {
    const said = text.trim();
    const chain = editor.chain().focus();
    if (what === 'link') {
      const href = said === '' || /^(?:https?|mailto):/i.test(said) ? said : `https://${said}`;
      if (href === '') chain.extendMarkRange('link').unsetLink().run();
      else if (editor.state.selection.empty && !isThere)
        chain.insertContent({ type: 'text', text: href, marks: [{ type: 'link', attrs: { href } }] }).run();
      else chain.extendMarkRange('link').setLink({ href }).run();
    } else if (said === '') {
      if (isThere) chain.deleteSelection().run();
    } else if (isThere) chain.updateAttributes('footnote', { text: said }).run();
    else {
      const { to } = editor.state.selection;
      chain.insertContentAt(to, { type: 'footnote', attrs: { text: said } }).run();
    }
    onClose();
  };
  return (
    <Dialog open onClose={onClose} title={told.title} lead={told.lead}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          put();
        }}
      >
        <input
          autoFocus
          value={text}
          aria-label={told.title}
          onChange={(event) => setText(event.target.value)}
          className="block w-full rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5"
        />
        <div className="mt-4 flex gap-3">
          <Button look="main" type="submit">
            {revise.put}
          </Button>
          <Button onClick={onClose}>{revise.dontPut}</Button>
        </div>
      </form>
    </Dialog>
  );
}

function PictureInput({
  input,
  editor,
  assignmentId,
}: {
  input: RefObject<HTMLInputElement | null>;
  editor: Editor;
  assignmentId: StoredFile['assignmentId'];
}) {
  const workspace = useWorkspace();
  const put = async (file: File | undefined) => {
    if (file === undefined) return;
    if (!PICTURES.includes(file.type)) {
      toast.error(revise.noPicture(file.name));
      return;
    }
    if (file.size > MOST_PICTURE_BYTES) {
      toast.error(revise.largePicture(file.name, words.sizeOf(file.size)));
      return;
    }
    const drawn = await createImageBitmap(file).catch(() => null);
    if (drawn === null) {
      toast.error(revise.noPicture(file.name));
      return;
    }
    const share = Math.min(1, MOST_WIDTH / drawn.width);
    const size = { width: Math.round(drawn.width * share), height: Math.round(drawn.height * share) };
    drawn.close();
    const bytes = new Uint8Array(await file.arrayBuffer());
    const hash = await keepPicture(workspace, assignmentId, { name: file.name, mediaType: file.type, bytes });
    const alt = file.name.replace(/\.\w+$/, '');
    editor
      .chain()
      .focus()
      .insertContent([
        { type: 'figure', attrs: { hash, mediaType: file.type, alt, ...size } },
        { type: 'paragraph' },
      ])
      .run();
  };
  return (
    <span className="relative">
      <input
        ref={input}
        type="file"
        accept={PICTURES.join(',')}
        tabIndex={-1}
        className="sr-only"
        aria-label={revise.choosePicture}
        onChange={(event) => {
          void put(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </span>
  );
}

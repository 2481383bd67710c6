import { EditorContent, useEditor } from '@tiptap/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { SheetChoice } from '#core/model/look.ts';
import type { DraftContent } from '#core/model/work.ts';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { Fold } from '../../shared/controls/Fold.tsx';
import { Toggles } from '../../shared/controls/Toggles.tsx';
import type { SheetEntry } from '../../shared/files/response-sheet.ts';
import { SaveDocument } from '../../shared/files/SaveDocument.tsx';
import { sheetEntries, writtenSheet } from '../../shared/files/written-sheet.ts';
import { useAssignment, type AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import * as words from '../../words/en.ts';
import { changeSheet, sheetChoiceOf } from '../../workspace/commands/response-sheet.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { lastTyped, useKeeping } from '../../shared/editor/keeping.ts';
import { draftKit } from '../../shared/editor/kit.ts';
import { urlsOf } from '../../shared/editor/pictures.ts';

/** The account of all remarks for the instructor: written from what was decided and done, changed as text, saved in three forms. */
export function Responding() {
  const outlet = useAssignment();
  const { work, text, live, marked } = outlet;
  const isComing = (work.markedFile !== null && marked === null) || (text !== null && live === null);
  if (work.remarks.length === 0)
    return (
      <div className="p-8">
        <Empty>{words.response.nothing}</Empty>
      </div>
    );
  if (isComing)
    return (
      <p role="status" className="p-8 text-quiet">
        {words.response.coming}
      </p>
    );
  return <Sheet outlet={outlet} />;
}

function Sheet({ outlet }: { outlet: AssignmentOutlet }) {
  const workspace = useWorkspace();
  const { id } = outlet.work.assignment;
  const choice = useWorkspaceState(({ records }) => sheetChoiceOf(records.settings, id));
  const { work, live, answers, marked, text } = outlet;
  const entries = useMemo(
    () => sheetEntries({ work, live, answers, marked, text }),
    [work, live, answers, marked, text],
  );
  const content = useMemo(
    () => writtenSheet(workspace, { work, live, answers, marked, text }, choice),
    [workspace, work, live, answers, marked, text, choice],
  );
  return (
    <div className="flex h-full flex-col max-md:overflow-auto">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule px-5 py-2">
        <h1 className="font-serif text-[1.12rem] font-semibold">{words.response.place}</h1>
        <span className="ml-auto">
          <SaveDocument
            view={outlet.view}
            label={words.response.save}
            is={words.send.responseIs}
            title={words.response.place}
            content={() => writtenSheet(workspace, outlet)}
          />
        </span>
      </div>
      <div className="grid min-h-0 flex-1 grid-cols-1 md:grid-cols-[minmax(0,1fr)_22rem]">
        <SheetEditor key={id} id={id} content={content} />
        <aside aria-label={words.response.how} className="relative bg-paper p-5 md:overflow-auto">
          <p className="mb-4 text-sm text-quiet">{words.response.lead}</p>
          {choice.content === null ? (
            <Choices outlet={outlet} choice={choice} entries={entries} />
          ) : (
            <WriteAnew outlet={outlet} />
          )}
        </aside>
      </div>
    </div>
  );
}

/** The sheet as text. What is typed is kept, and the sheet is the student's from then on. */
function SheetEditor({
  id,
  content,
}: {
  id: AssignmentOutlet['work']['assignment']['id'];
  content: DraftContent;
}) {
  const workspace = useWorkspace();
  const field = `response/${id}`;
  const [kit] = useState(() => draftKit(urlsOf(workspace)));
  const { ours, keeper } = useKeeping(
    field,
    (typed) => changeSheet(workspace, id, (choice) => ({ ...choice, content: typed }), field),
    () => undefined,
  );
  const editor = useEditor({
    extensions: kit,
    content: content.doc,
    editorProps: {
      attributes: { role: 'textbox', 'aria-multiline': 'true', 'aria-label': words.response.text },
    },
    onUpdate: ({ editor: typed }) => keeper.changed(() => ({ schema: 1, doc: typed.getJSON() })),
  });
  const shown = useRef(content);
  useEffect(() => {
    const last = lastTyped(workspace, field);
    if (last !== null) editor.commands.setContent(last.doc);
  }, [editor, workspace, field]);
  useEffect(() => {
    if (shown.current === content) return;
    shown.current = content;
    // What comes back as it was typed stays, with the cursor in it.
    const isTyped = ours.has(content) || JSON.stringify(content.doc) === JSON.stringify(editor.getJSON());
    if (!isTyped) editor.commands.setContent(content.doc, { emitUpdate: false });
  }, [editor, content, ours]);
  return (
    <div className="relative min-w-0 bg-surface md:overflow-auto">
      <div className="mx-auto max-w-[52rem] px-8 py-7 max-md:px-4">
        <EditorContent editor={editor} className="draft-text draft-editor font-serif leading-relaxed" />
      </div>
    </div>
  );
}

function Choices({
  outlet,
  choice,
  entries,
}: {
  outlet: AssignmentOutlet;
  choice: SheetChoice;
  entries: readonly SheetEntry[];
}) {
  const workspace = useWorkspace();
  const { id } = outlet.work.assignment;
  const change = (to: Partial<SheetChoice>) => void changeSheet(workspace, id, (now) => ({ ...now, ...to }));
  const turned = (list: readonly string[], one: string, on: boolean) => [
    ...list.filter((other) => other !== one),
    ...(on ? [one] : []),
  ];
  return (
    <div className="grid grid-cols-1 gap-4">
      <p className="-mb-3 text-sm text-quiet">{words.response.form}</p>
      <Toggles
        label={words.response.form}
        options={[
          ['table', words.response.forms.table],
          ['letter', words.response.forms.letter],
        ]}
        chosen={choice.form}
        onChoose={(form) => change({ form })}
      />
      {outlet.work.rubric !== null && <p className="-mb-3 text-sm text-quiet">{words.response.by}</p>}
      {outlet.work.rubric !== null && (
        <Toggles
          label={words.response.by}
          options={[
            ['what came of it', words.response.orders['what came of it']],
            ['criterion', words.response.orders.criterion],
          ]}
          chosen={choice.by}
          onChoose={(by) => change({ by })}
        />
      )}
      <Fold label={words.response.which(choice.leftOut.length)}>
        <ul className="mt-2">
          {entries.map(({ remark, number, said }) => (
            <li key={remark.id} className="border-b border-rule py-1.5 text-sm">
              <label className="flex items-baseline gap-2">
                <CheckBox
                  label={words.response.put(number, said)}
                  checked={!choice.leftOut.includes(remark.id)}
                  onChange={(on) => change({ leftOut: turned(choice.leftOut, remark.id, !on) })}
                />
                <span className="line-clamp-2 min-w-0">
                  {number}. {said}
                </span>
              </label>
              <label className="flex items-baseline gap-2 pl-7 text-quiet">
                <CheckBox
                  label={words.response.helped(number)}
                  checked={choice.helped.includes(remark.id)}
                  onChange={(on) => change({ helped: turned(choice.helped, remark.id, on) })}
                />
                {words.response.helpedMe}
              </label>
            </li>
          ))}
        </ul>
      </Fold>
    </div>
  );
}

function WriteAnew({ outlet }: { outlet: AssignmentOutlet }) {
  const workspace = useWorkspace();
  const [isAsking, setAsking] = useState(false);
  const { id } = outlet.work.assignment;
  return (
    <>
      <p>{words.response.edited}</p>
      <Button className="mt-3" onClick={() => setAsking(true)}>
        {words.response.anew}
      </Button>
      <Dialog
        open={isAsking}
        onClose={() => setAsking(false)}
        title={words.response.anewTitle}
        lead={words.response.anewLead}
      >
        <Button
          look="main"
          onClick={() => {
            setAsking(false);
            void changeSheet(workspace, id, (now) => ({ ...now, content: null }));
          }}
        >
          {words.response.anew}
        </Button>
      </Dialog>
    </>
  );
}

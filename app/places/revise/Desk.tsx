import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { paperOfDraft, richBlocksOf } from '#core/paper/draft.ts';
import type { Draft, DraftContent } from '#core/model/work.ts';
import { needsOf } from '#core/check/needs.ts';
import { countWords } from '#core/text/words.ts';
import { hashOf } from '#formats/hash.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { needTold } from '../../shared/line/needs-told.ts';
import { offerFile } from '../../shared/page/notify.ts';
import { bytesOfFile } from '../../shared/files/file-bytes.ts';
import * as words from '../../words/en.ts';
import { reader } from '../../workers/clients.ts';
import { bringInVersion } from '../../workspace/commands/draft.ts';
import { WORD_TYPE } from '../../workspace/commands/send.ts';
import { DraftEditor, Toolbar, useDraftEditor } from './DraftEditor.tsx';
import { useDraftLock } from './draft-lock.ts';
import { followedMeta, positionsIn, type Followed } from './followed.ts';
import { OutcomeList } from './OutcomeList.tsx';

/** The draft in an editor, and beside it the remarks with what became of their passages. */
export function Desk({
  outlet,
  draft,
  content,
  above = null,
  beside = null,
}: {
  outlet: AssignmentOutlet;
  draft: Draft;
  content: DraftContent;
  /** What is chosen about the text, over it. */
  above?: ReactNode;
  /** What is read while one writes, over the remarks. */
  beside?: ReactNode;
}) {
  const workspace = useWorkspace();
  const { work: view, live } = outlet;
  const [focusedId, setFocusedId] = useState<string | null>(null);
  const [failed, setFailed] = useState(false);
  const lock = useDraftLock(draft.id);
  const sent = view.submission !== null;
  const editor = useDraftEditor(draft, content, lock && !sent, () => setFailed(true));
  const followed = useMemo(
    () =>
      [...(live?.byRemark ?? [])].flatMap(([id, outcome]): Followed[] => {
        const focused = id === focusedId;
        const acts = view.judgements.get(id)?.decision === 'act';
        return focused || (acts && outcome.kind !== 'gone') ? [{ id, place: outcome.place, focused }] : [];
      }),
    [live, focusedId, view.judgements],
  );
  useEffect(() => {
    // Outcomes of an older text than the editor holds wait for the next ones.
    const text = paperOfDraft({ schema: 1, doc: editor.getJSON() }).text;
    if (live?.paper.text !== text) return;
    const { key, set } = followedMeta(editor.state.doc, followed);
    editor.view.dispatch(editor.state.tr.setMeta(key, set).setMeta('addToHistory', false));
  }, [editor, followed, live]);
  const show = (id: string) => {
    setFocusedId(id);
    const outcome = live?.byRemark.get(id);
    const at =
      outcome === undefined
        ? undefined
        : positionsIn(editor.state.doc, [{ id, place: outcome.place, focused: true }]).at(0);
    if (at === undefined) return;
    const { node } = editor.view.domAtPos(at.from);
    const element = node instanceof Element ? node : node.parentElement;
    element?.scrollIntoView({ block: 'center' });
  };
  return (
    <div className="h-full overflow-auto md:grid md:min-h-0 md:grid-cols-[minmax(0,1fr)_minmax(20rem,29rem)] md:overflow-hidden">
      <section
        aria-label={words.revise.draft}
        className="flex min-w-0 flex-col border-rule md:min-h-0 md:border-r"
      >
        <Head outlet={outlet} draft={draft} editorTools={<Toolbar editor={editor} />} />
        {above !== null && <div className="border-b border-rule px-5 py-2">{above}</div>}
        {!lock && <Note>{words.revise.elsewhere}</Note>}
        {sent && <Note>{words.revise.sentAlready}</Note>}
        {failed && (
          <Note>
            {words.revise.notSaved}{' '}
            <Button onClick={() => void saveAsFile(workspace, view, editor.getJSON())}>
              {words.revise.asFile}
            </Button>
          </Note>
        )}
        <div className="bg-surface max-md:min-h-[45vh] md:min-h-0 md:flex-1 md:overflow-auto">
          <div className="mx-auto max-w-[42rem] px-8 py-7 max-md:px-4">
            <DraftEditor editor={editor} />
          </div>
        </div>
      </section>
      <aside aria-label={words.revise.slips} className="bg-paper p-4 md:min-h-0 md:overflow-auto">
        {beside !== null && <div className="mb-4">{beside}</div>}
        <OutcomeList outlet={outlet} focusedId={focusedId} onShow={show} />
      </aside>
    </div>
  );
}

async function saveAsFile(
  workspace: Workspace,
  view: AssignmentOutlet['view'],
  doc: Record<string, unknown>,
): Promise<void> {
  const bytes = await reader.ask((worker) =>
    worker.writeDraftDocx(richBlocksOf({ schema: 1, doc }), view.assignment.title),
  );
  offerFile(fileNameOf(workspace, view, words.send.paperIs, 'docx'), bytes, WORD_TYPE);
}

function Note({ children }: { children: React.ReactNode }) {
  return (
    <p role="status" className="border-b border-rule bg-sunken px-5 py-2 text-sm">
      {children}
    </p>
  );
}

function Head({
  outlet: { view, live },
  draft,
  editorTools,
}: {
  outlet: AssignmentOutlet;
  draft: Draft;
  editorTools: React.ReactNode;
}) {
  const workspace = useWorkspace();
  const { assignment } = view;
  const needs = useMemo(
    () => (live === null ? null : needsOf(assignment, live.paper.text)),
    [assignment, live],
  );
  const count = useMemo(() => (live === null ? 0 : countWords(live.paper.text)), [live]);
  const bringIn = async (file: File | undefined) => {
    if (file === undefined) return;
    const bytes = await bytesOfFile(file);
    if (typeof bytes === 'string') {
      toast.error(bytes);
      return;
    }
    const text = await reader.ask((worker) => worker.readDocx(bytes));
    if (text.kind === 'unreadable') {
      toast.error(words.unreadable[text.reason](file.name, text.detail), { duration: 15_000 });
      return;
    }
    const stored = {
      hash: await hashOf(bytes),
      name: file.name,
      mediaType: WORD_TYPE,
      size: bytes.length,
      cameAt: workspace.now(),
      origin: 'dropped' as const,
      assignmentId: view.assignment.id,
      role: 'version' as const,
      aboutHash: null,
    };
    await bringInVersion(workspace, draft, text.value.blocks, stored, bytes);
    toast(words.revise.broughtIn(file.name));
  };
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-5 py-1 max-md:px-3">
      {editorTools}
      <ul aria-label={words.needs.title} className="flex flex-wrap gap-x-4 text-sm text-quiet">
        {needs !== null && !needs.some(({ kind }) => kind === 'words') && (
          <li className="font-semibold text-ink">{words.revise.wordCount(count)}</li>
        )}
        {needs?.map((need) => (
          <li
            key={`${need.kind} ${need.kind === 'reading' ? need.name : ''}`}
            className={need.met ? undefined : 'font-semibold text-ink'}
          >
            {needTold(need)}
          </li>
        ))}
      </ul>
      {view.submission === null && (
        <label className="ml-auto cursor-pointer py-1 text-sm font-semibold text-accent focus-within:outline-2 focus-within:outline-accent hover:underline">
          {words.revise.bringIn}
          <input
            type="file"
            accept=".docx"
            className="sr-only"
            onChange={(event) => {
              void bringIn(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
      )}
    </div>
  );
}

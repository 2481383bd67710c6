import { revise } from '../../words/revising.ts';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { needsOf } from '#core/check/needs.ts';
import type { Draft, DraftContent } from '#core/model/work.ts';
import type { Span } from '#core/text/span.ts';
import { countWords } from '#core/text/words.ts';
import type { LookLine } from '#core/look/line.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { Toggles } from '../../shared/controls/Toggles.tsx';
import { draftDocx } from '../../shared/files/draft-files.ts';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { SaveDocument } from '../../shared/files/SaveDocument.tsx';
import { needTold } from '../../shared/line/needs-told.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { useNarrow } from '../../shared/page/hooks.ts';
import { offerFile } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { beginStretch } from '../../workspace/commands/draft.ts';
import { markLines } from '../../workspace/commands/look.ts';
import { WORD_TYPE } from '../../workspace/commands/send.ts';
import { useLastLook } from '../../workspace/state/last-look.ts';
import { useSetting } from '../../workspace/state/settings.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { AnswersList } from './answers/AnswersList.tsx';
import { DraftEditor, useDraftEditor } from './editor/DraftEditor.tsx';
import { useDraftLock } from './editor/draft-lock.ts';
import { FindReplace } from './editor/FindReplace.tsx';
import { offsetAtTop, useFollowedEditor } from './editor/follow-editor.ts';
import { useInsertions } from './editor/Insertions.tsx';
import { Toolbar } from './editor/Toolbar.tsx';
import { Panes, type MarkedLook } from './Panes.tsx';
import { BackToLook } from './BackToLook.tsx';
import { BringIn } from './file/BringIn.tsx';
import { MarkedVersion, useInStep } from './MarkedVersion.tsx';
import { Versions } from './versions/Versions.tsx';

/** The draft in an editor, and beside it the remarks with what became of their passages, and the marked version where wanted. */
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
  const narrow = useNarrow();
  const { work: view, marked } = outlet;
  const [failed, setFailed] = useState(false);
  const [onPhone, setOnPhone] = useState<'both' | 'slips'>('both');
  const [look, setLook] = useState<MarkedLook>('hidden');
  const [opened, open] = useState<'find' | 'versions' | null>(null);
  const lock = useDraftLock(draft.id);
  const sent = outlet.view.submission !== null;
  const canChange = lock && !sent;
  const editor = useDraftEditor(draft, content, canChange, () => setFailed(true));
  useStretch(workspace, draft.id, canChange);
  const { inserting, dialogs } = useInsertions(editor, outlet.view.assignment.id, () => open('find'));
  const isLooking = useSetting('lookMarks')?.on ?? false;
  const lookedOver = useLastLook(
    view,
    isLooking ? (outlet.text?.paper ?? null) : null,
    marked?.paper ?? null,
  );
  const { focusedId, focus, side } = useFollowedEditor(editor, outlet, lookedOver?.lines ?? NO_LINES);
  const showAgain = (place: Span) => {
    setOnPhone('both');
    // It can be scrolled to once it is there.
    requestAnimationFrame(() => side.show(place));
  };
  const scroller = useRef<HTMLDivElement>(null);
  const markedScroller = useRef<HTMLDivElement>(null);
  const keepInStep = useInStep(outlet, look === 'hidden' ? null : marked, markedScroller);
  const written = () => ({ schema: 1 as const, doc: editor.getJSON() });
  const head = (
    <>
      <Head
        outlet={outlet}
        editorTools={
          <Toolbar
            editor={editor}
            inserting={inserting}
            marking={{
              on: isLooking,
              turn: () => void markLines(workspace, outlet.view.assignment.id, !isLooking),
            }}
          />
        }
      >
        {marked !== null && !narrow && (
          <Toggles
            look="words"
            label={revise.marked}
            options={[
              ['hidden', `${revise.marked}: ${revise.markedHidden}`],
              ['beside', revise.markedBeside],
              ['above', revise.markedAbove],
            ]}
            chosen={look}
            onChoose={setLook}
          />
        )}
        <Button look="quiet" className="min-h-8 px-0 text-sm" onClick={() => open('versions')}>
          {revise.versions}
        </Button>
        <BackToLook view={outlet.view} />
        <SaveDocument
          view={outlet.view}
          label={revise.saveAs}
          is={words.send.paperIs}
          title={outlet.view.assignment.title}
          content={written}
        />
        {!sent && <BringIn outlet={outlet} label={revise.bringIn} />}
      </Head>
      {dialogs}
      {opened === 'find' && <FindReplace editor={editor} onClose={() => open(null)} />}
      {opened === 'versions' && (
        <Versions outlet={outlet} draft={draft} canChange={canChange} onClose={() => open(null)} />
      )}
    </>
  );
  const paper = (
    <section aria-label={revise.draft} className="flex h-full min-w-0 flex-col">
      {above !== null && <div className="border-b border-rule px-5 py-2">{above}</div>}
      {!lock && <Note>{revise.elsewhere}</Note>}
      {sent && <Note>{revise.sentAlready}</Note>}
      {failed && (
        <Note>
          {revise.notSaved}{' '}
          <Button onClick={() => void saveAsFile(workspace, view, editor.getJSON())}>{revise.asFile}</Button>
        </Note>
      )}
      <div
        ref={scroller}
        className="relative bg-surface max-md:min-h-[45vh] md:min-h-0 md:flex-1 md:overflow-auto"
        onScroll={() => {
          const at = scroller.current === null ? null : offsetAtTop(editor, scroller.current);
          if (at !== null) keepInStep(at);
        }}
      >
        <div className="mx-auto max-w-[42rem] px-8 py-7 max-md:px-4">
          <DraftEditor editor={editor} />
        </div>
      </div>
    </section>
  );
  const slips = (
    <aside aria-label={revise.slips} className="relative h-full bg-paper p-4 md:overflow-auto">
      {beside !== null && <div className="mb-4">{beside}</div>}
      <AnswersList
        outlet={outlet}
        side={onPhone === 'both' ? side : { ...side, show: showAgain }}
        focusedId={focusedId}
        onFocus={focus}
        canChange={canChange}
      />
    </aside>
  );
  if (narrow)
    return (
      <div className="h-full overflow-auto">
        <Toggles
          className="px-3 pt-2"
          label={revise.which}
          options={[
            ['both', revise.draftAndSlips],
            ['slips', revise.slips],
          ]}
          chosen={onPhone}
          onChoose={setOnPhone}
        />
        {/* What is typed stays where it is. */}
        <div hidden={onPhone === 'slips'}>
          {head}
          {paper}
        </div>
        {slips}
      </div>
    );
  const markedVersion = marked !== null && look !== 'hidden' && (
    <MarkedVersion
      outlet={outlet}
      marked={marked}
      focusedId={focusedId}
      onFocus={focus}
      scroller={markedScroller}
    />
  );
  return (
    <div className="flex h-full flex-col">
      {head}
      <Panes look={look} markedVersion={markedVersion} paper={paper} slips={slips} />
    </div>
  );
}

const NO_LINES: readonly LookLine[] = [];

/** What is there when a stretch of work begins is kept as a version. */
function useStretch(workspace: Workspace, draftId: string, canChange: boolean): void {
  useEffect(() => {
    if (canChange) workspace.inBackground(() => beginStretch(workspace, draftId));
  }, [workspace, draftId, canChange]);
}

async function saveAsFile(
  workspace: Workspace,
  view: AssignmentOutlet['view'],
  doc: Record<string, unknown>,
): Promise<void> {
  const bytes = await draftDocx(workspace, { schema: 1, doc }, view.assignment.title);
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
  editorTools,
  children,
}: {
  outlet: AssignmentOutlet;
  editorTools: React.ReactNode;
  children: React.ReactNode;
}) {
  const { assignment } = view;
  const needs = useMemo(
    () => (live === null ? null : needsOf(assignment, live.paper.text)),
    [assignment, live],
  );
  const count = useMemo(() => (live === null ? 0 : countWords(live.paper.text)), [live]);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-5 py-1 max-md:px-3">
      {editorTools}
      <ul aria-label={words.needs.title} className="flex flex-wrap gap-x-4 text-sm text-quiet">
        {needs !== null && !needs.some(({ kind }) => kind === 'words') && (
          <li className="font-semibold text-ink">{revise.wordCount(count)}</li>
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
      <span className="ml-auto flex flex-wrap items-center gap-x-4">{children}</span>
    </div>
  );
}

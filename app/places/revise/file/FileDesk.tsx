import { revise } from '../../../words/revising.ts';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { needsOf } from '#core/check/needs.ts';
import type { Draft } from '#core/model/work.ts';
import { countWords } from '#core/text/words.ts';
import type { Span } from '#core/text/span.ts';
import { Button, Empty } from '../../../shared/controls/Controls.tsx';
import { Toggles } from '../../../shared/controls/Toggles.tsx';
import { PreviewButton } from '../../../shared/files/PreviewButton.tsx';
import { needTold } from '../../../shared/line/needs-told.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { placeAsked } from '../../../shared/page/addresses.ts';
import { useKeys, useNarrow } from '../../../shared/page/hooks.ts';
import * as words from '../../../words/en.ts';
import { useWorkspace, useWorkspaceState } from '../../../workspace/use-workspace.ts';
import { AnswersList } from '../answers/AnswersList.tsx';
import type { TextSide } from '../answers/text-side.ts';
import { followedIn } from '../../../shared/editor/followed.ts';
import { BackToLook } from '../BackToLook.tsx';
import { chosenIn, PaperShown } from '../PaperShown.tsx';
import { AnotherText, BringIn } from './BringIn.tsx';
import { readComing, takeComing, type ComingFile } from './bring-in.ts';
import { canWatch, chooseToWatch, useSavedAgain, type FileHandle } from './watched.ts';
import { WriteOn } from './WriteOn.tsx';

/** A draft that is written elsewhere: its text to read, the remarks beside it, and the next file taken in. */
export function FileDesk({ outlet, draft }: { outlet: AssignmentOutlet; draft: Draft }) {
  const workspace = useWorkspace();
  const narrow = useNarrow();
  const { view, text, live } = outlet;
  const [search] = useSearchParams();
  const [focusedId, setFocusedId] = useState<string | null>(search.get('remark'));
  const [shown, setShown] = useState<Span | null>(() => placeAsked(search));
  const [side, setSide] = useState<'remarks' | 'text'>(shown === null ? 'remarks' : 'text');
  const file = useWorkspaceState(({ records }) => records.files.get(draft.paperFile ?? ''));
  const sent = view.submission !== null;
  const isCurrent = live !== null && text !== null && live.textHash === text.hash;
  const places = useMemo(
    () =>
      isCurrent
        ? followedIn(outlet, focusedId, shown).map(({ id, place, focused }) => ({ id, ...place, focused }))
        : [],
    [outlet, focusedId, shown, isCurrent],
  );
  const textSide: TextSide = {
    show: (place) => {
      setShown(place);
      setSide('text');
    },
    put: null,
    chosen: () => (text === null || !isCurrent ? null : chosenIn(text.paper)),
  };
  const focus = (id: string) => {
    setFocusedId(id);
    setShown(null);
  };
  const needs = text === null ? [] : needsOf(view.assignment, text.paper.text);
  const paper = (
    <section
      aria-label={revise.draft}
      className="flex min-w-0 flex-col border-rule max-md:min-h-[60vh] md:min-h-0 md:border-r"
    >
      <div className="relative bg-surface md:min-h-0 md:flex-1 md:overflow-auto">
        <div className="mx-auto max-w-[42rem] px-8 py-7 max-md:px-4">
          {text === null ? (
            <Empty>{revise.readingFile}</Empty>
          ) : (
            <PaperShown paper={text.paper} places={places} label={revise.fileText} onPress={focus} />
          )}
        </div>
      </div>
    </section>
  );
  const remarks = (
    <aside aria-label={revise.slips} className="relative bg-paper p-4 max-md:p-3 md:min-h-0 md:overflow-auto">
      <AnswersList outlet={outlet} side={textSide} focusedId={focusedId} onFocus={focus} canChange={!sent} />
    </aside>
  );
  return (
    <div className="flex h-full flex-col max-md:overflow-auto">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-5 py-1.5 max-md:px-3">
        <b className="min-w-0 truncate">{file?.name}</b>
        <span className="text-sm text-quiet">{revise.asFileLead}</span>
        <BackToLook view={view} />
        <ul aria-label={words.needs.title} className="flex flex-wrap gap-x-4 text-sm text-quiet">
          {text !== null && !needs.some(({ kind }) => kind === 'words') && (
            <li className="font-semibold text-ink">{revise.wordCount(countWords(text.paper.text))}</li>
          )}
          {needs.map((need) => (
            <li key={`${need.kind} ${need.kind === 'reading' ? need.name : ''}`}>{needTold(need)}</li>
          ))}
        </ul>
        <span className="ml-auto flex flex-wrap items-center gap-x-4">
          {file !== undefined && (
            <PreviewButton name={file.name} bytesOf={() => workspace.fileBytes(file.hash)} />
          )}
          {!sent && <BringIn outlet={outlet} label={revise.newerFile} />}
          {!sent && <WriteOn outlet={outlet} draft={draft} />}
        </span>
      </div>
      {!sent && <Watch outlet={outlet} />}
      {sent && (
        <p role="status" className="border-b border-rule bg-sunken px-5 py-2 text-sm">
          {revise.sentAlready}
        </p>
      )}
      {narrow ? (
        <>
          <Toggles
            className="px-3 py-2"
            label={revise.which}
            options={[
              ['remarks', revise.slips],
              ['text', revise.fileText],
            ]}
            chosen={side}
            onChoose={setSide}
          />
          {side === 'remarks' ? remarks : paper}
        </>
      ) : (
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(20rem,29rem)] overflow-hidden">
          {paper}
          {remarks}
        </div>
      )}
    </div>
  );
}

/** Offers to watch the file where the browser can, and takes in what was saved again there with one key. */
function Watch({ outlet }: { outlet: AssignmentOutlet }) {
  const workspace = useWorkspace();
  const [handle, setHandle] = useState<FileHandle | null>(null);
  const [takenAt, setTakenAt] = useState(0);
  const [asking, ask] = useState<ComingFile | null>(null);
  const saved = useSavedAgain(handle, takenAt);
  const take = async (file: File) => {
    setTakenAt(file.lastModified);
    const coming = await readComing(workspace, outlet, file);
    if (coming === null) return;
    if (coming.sharesOnly === null) await takeComing(workspace, outlet, coming);
    else ask(coming);
  };
  const watch = async () => {
    const chosen = await chooseToWatch();
    if (chosen === null) return;
    setHandle(chosen);
    await take(await chosen.getFile());
  };
  useKeys({ t: () => (saved === null ? undefined : void take(saved)) });
  if (!canWatch()) return null;
  return (
    <div
      role="status"
      className="flex flex-wrap items-center gap-x-4 border-b border-rule bg-sunken px-5 py-1 text-sm max-md:px-3"
    >
      {handle === null ? (
        <Button look="quiet" className="min-h-7 px-0 text-sm" onClick={() => void watch()}>
          {revise.watch}
        </Button>
      ) : saved === null ? (
        <span className="py-1 text-quiet">{revise.watching}</span>
      ) : (
        <>
          <b>{revise.savedAgain(saved.name)}</b>
          <Button className="min-h-7 py-0 text-sm" onClick={() => void take(saved)}>
            {revise.takeIn} <span className="font-normal text-quiet">t</span>
          </Button>
        </>
      )}
      <AnotherText outlet={outlet} coming={asking} onClose={() => ask(null)} />
    </div>
  );
}

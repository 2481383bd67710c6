import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { inReadingOrder, pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import { stances, type Decision } from '#core/model/work.ts';
import { isRead } from '#core/tally/tally.ts';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { useAddress } from '../../shared/page/address.ts';
import { useKeys, useNarrow } from '../../shared/page/hooks.ts';
import { nextUnreadAnywhere } from '../../shared/remark/next-unread.ts';
import { saidBy } from '../../shared/remark/said.ts';
import { words } from '../../words/en.ts';
import { type AssignmentView } from '#core/assignment/view.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';
import { decideRemark, markRead, setStance, toggleCarry } from '../../workspace/commands/decide.ts';
import { passes } from './filter.ts';
import { FilterRow } from './bars/FilterRow.tsx';
import { FindRow, useFinding } from './bars/FindRow.tsx';
import { flowingPaper } from './flowing.ts';
import { KeysDialog } from './bars/KeysDialog.tsx';
import {
  firstMaterial,
  isPaperMaterial,
  materialOf,
  materials,
  paperShowing,
  papersIn,
  remarksIn,
  type Material,
} from './materials.ts';
import { MaterialTabs } from './bars/MaterialTabs.tsx';
import { PaperMaterial } from './paper/PaperMaterial.tsx';
import { useReadingClock } from './reading-clock.ts';
import { LEAST_ZOOM, MOST_ZOOM, useReadingState, withinZoom, type ReadingState } from './reading-state.ts';
import { ReadingBar } from './bars/ReadingBar.tsx';
import { Recordings } from './slips/Recordings.tsx';
import { RemarkIndex } from './bars/RemarkIndex.tsx';
import { RubricView } from './rubric/RubricView.tsx';
import { confirmSuggestion } from '../../workspace/state/suggestions.ts';
import { useShownPaper } from './replaced.ts';
import { Sheet } from './paper/Sheet.tsx';
import { useMatchesOn } from './together.ts';
import { BriefView, OverallView } from './slips/Wordings.tsx';
import { remarkAddress } from '../../shared/page/addresses.ts';

const ZOOMS = [LEAST_ZOOM, 0.67, 0.8, 1, 1.25, 1.5, 2, 3, MOST_ZOOM];

/** What is open and in focus: kept in the address, so that a link leads just there. */
function useReadingPlace(view: AssignmentView, state: ReadingState) {
  const [search, setSearch] = useAddress();
  const remarkId = search.get('remark');
  const found = view.remarks.find((r) => r.id === remarkId);
  // A link to a remark whose words stand elsewhere too leads to the one that counts.
  const main = [...view.doubles].find(([, doubles]) => doubles.some(({ id }) => id === remarkId))?.[0];
  const remark = found ?? view.remarks.find((r) => r.id === main);
  const given = search.get('material');
  // A match may be read with the remarks of the paper.
  const joined = given === 'paper' && remark?.channel === 'overlap';
  const material: Material =
    remark !== undefined && !joined
      ? materialOf(remark)
      : (materials.find((one) => one === given) ?? firstMaterial(view));
  const papers = papersIn(view, material);
  // One that stands in two copies of a paper is shown in the one that is open.
  const own = remark === undefined ? [] : [remark, ...(view.doubles.get(remark.id) ?? [])];
  const named = search.get('file');
  const stays = joined || own.some(({ paperHash }) => paperHash === named);
  const wanted = stays ? named : (remark?.paperHash ?? named);
  const chosen = papers.find(({ hash }) => hash === wanted);
  // Of the brief the words come first; its files and resources open when they are chosen.
  const file = chosen ?? (material === 'brief' ? null : (papers.at(0) ?? null));
  const focus = (id: string) => {
    const isMatch = view.remarks.find((one) => one.id === id)?.channel === 'overlap';
    setSearch({
      remark: id,
      ...(file !== null && { file: file.hash }),
      ...(isMatch && material === 'paper' && state.together && { material }),
    });
  };
  const open = (next: Material) => setSearch({ material: next });
  const openFile = (hash: string) => setSearch({ material, file: hash });
  return { material, papers, file, focusedId: remark?.id ?? null, focus, open, openFile };
}

/** The heart: the paper with its remarks in their places, the rubric, the overall words. */
export function Reading() {
  const workspace = useWorkspace();
  const { view } = useAssignment();
  const [state, change] = useReadingState(view.assignment.id);
  const { material, papers, file, focusedId, focus, open, openFile } = useReadingPlace(view, state);
  const onPaper = isPaperMaterial(material) || (material === 'brief' && file !== null);
  const everywhere = useAllViews();
  const navigate = useNavigate();
  const { paper: kept, older, key } = useShownPaper(view.assignment.id, file, papers);
  const { zoom, filter } = state;
  const [going, setGoing] = useState({ page: 1, times: 0 });
  const [keysOpen, setKeysOpen] = useState(false);
  const [asked, setAsked] = useState(false);
  const frame = useRef<HTMLDivElement>(null);
  const place = useRef<HTMLDivElement>(null);
  const narrow = useNarrow();
  const unread = (remark: Remark) => !isRead(remark, view.readings.get(remark.id));
  const shown = useMemo(() => {
    const now = remarksIn(view, material, file);
    if (older === null || file === null) return now;
    // What is new in a changed paper comes with its remarks; until then those of the older form stand.
    const standing = now.length > 0 ? now : remarksIn(view, material, { ...file, hash: older });
    return kept?.layout ? standing.filter(({ anchorId }) => anchorId in kept.anchors) : standing;
  }, [view, material, file, older, kept]);
  const onFile = useMemo(() => paperShowing(kept, shown), [kept, shown]);
  const joined = useMatchesOn(view, material === 'paper' ? onFile : null);
  const together = state.together && joined.matches.length > 0;
  const all = useMemo(
    () => inReadingOrder([...shown.map(({ remark }) => remark), ...(together ? joined.matches : [])]),
    [shown, together, joined.matches],
  );
  const filtered = Object.keys(filter).length > 0;
  const inMaterial = useMemo(
    // The one in focus stays: a link to it leads there whatever is filtered.
    () => all.filter((remark) => remark.id === focusedId || passes(view, remark, filter)),
    [all, view, filter, focusedId],
  );
  const asPages = together ? joined.paper : onFile;
  const paper = useMemo(
    () => (asPages?.kind === 'pdf' && state.flowing ? flowingPaper(asPages) : asPages),
    [asPages, state.flowing],
  );
  const flows = paper !== asPages;
  const found = useFinding(paper, flows ? 'accepted' : state.text);
  useReadingClock(frame, view, focusedId);
  useEffect(() => {
    // Where the place doesn't fit below the line, what came into focus is seen with what is said about it.
    if (focusedId !== null) place.current?.scrollIntoView({ block: 'nearest' });
  }, [focusedId]);

  // With a filter, one steps through what is shown.
  const steps = filtered ? inMaterial : view.remarks;
  const at = steps.findIndex((remark) => remark.id === focusedId);
  const step = (by: number) => {
    const next = at < 0 ? inMaterial.at(0) : steps.at(Math.min(steps.length - 1, Math.max(0, at + by)));
    if (next !== undefined) focus(next.id);
  };
  const nextUnread = () => {
    const next = steps.slice(at + 1).find(unread) ?? steps.find(unread) ?? view.remarks.find(unread);
    if (next !== undefined) {
      focus(next.id);
      return;
    }
    // Nothing is left here: on to the next assignment that has something.
    const elsewhere = nextUnreadAnywhere(everywhere, view.assignment.id);
    if (elsewhere === null) toast(words.reading.allReadEverywhere);
    else {
      toast(words.reading.nextElsewhere(elsewhere.view.assignment.title));
      void navigate(remarkAddress(elsewhere.remark));
    }
  };
  const filterBy = (open: boolean) => {
    setAsked(open);
    change({ filtering: open });
  };
  const larger = (by: number) => {
    const now = zoom === 'page' ? 1 : zoom;
    const near = ZOOMS.findIndex((one) => one >= now);
    change({ zoom: ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, near + by))] });
  };
  const focused = steps.at(at);
  const listed = state.listed !== null && all.length > 1;
  const once = (act: (remark: Remark) => void) => (held: boolean) => {
    if (!held && at >= 0 && focused !== undefined) act(focused);
  };
  const decide = (decision: Decision) => once((remark) => void decideRemark(workspace, remark, decision));
  useKeys({
    n: () => step(1),
    p: () => step(-1),
    '.': nextUnread,
    a: decide('act'),
    q: decide('ask'),
    k: decide('keep'),
    d: decide('decline'),
    c: once((remark) => void toggleCarry(workspace, remark)),
    r: once((remark) => void markRead(workspace, remark, unread(remark))),
    l: once((remark) => void confirmSuggestion(workspace, view, remark)),
    ...Object.fromEntries(
      stances.map((stance, i) => [
        String(i + 1),
        once((remark) => void setStance(workspace, remark, stance)),
      ]),
    ),
    '0': once((remark) => void setStance(workspace, remark, null)),
    '+': () => larger(1),
    '=': () => larger(1),
    '-': () => larger(-1),
    '/': () => filterBy(true),
    f: () => found.show(),
    '?': () => setKeysOpen(true),
  });

  return (
    // Where little is left below the line, the place scrolls with it rather than vanish.
    <div ref={place} className="flex h-full flex-col max-md:min-h-[min(26rem,78dvh)]">
      <div className="flex items-center gap-x-2 border-b border-rule px-5 max-md:flex-wrap max-md:overflow-x-auto max-md:px-4">
        <MaterialTabs view={view} material={material} onOpen={open} />
        <ReadingBar
          view={view}
          state={state}
          onState={change}
          onFilter={() => filterBy(!state.filtering)}
          onPaper={onPaper}
          file={file}
          papers={papers}
          onFile={openFile}
          paper={paper}
          count={all.length}
          onGo={(wanted) => setGoing((before) => ({ page: wanted, times: before.times + 1 }))}
          onLarger={larger}
          finding={found.open}
          onFind={found.toggle}
          mayJoin={joined.matches.length > 0}
          onKeys={() => setKeysOpen(true)}
        />
      </div>
      {found.open && onPaper && !listed && paper !== null && <FindRow found={found} />}
      {state.filtering && all.length > 1 && (
        <FilterRow
          view={view}
          remarks={all}
          filter={filter}
          onChange={(next) => change({ filter: next })}
          asked={asked}
          onClose={() => filterBy(false)}
        />
      )}
      <div ref={frame} className="relative flex min-h-0 flex-1 flex-col">
        <div tabIndex={onPaper && !listed ? undefined : 0} className="min-h-0 flex-1 overflow-auto">
          {listed ? (
            <RemarkIndex
              view={view}
              remarks={inMaterial}
              by={state.listed ?? 'page'}
              onBy={(by) => change({ listed: by })}
              onOpen={() => change({ listed: null })}
            />
          ) : onPaper ? (
            <PaperMaterial
              key={key}
              view={view}
              file={file}
              paper={paper}
              textState={flows ? 'accepted' : state.text}
              focusedId={focusedId}
              onFocus={focus}
              zoom={zoom}
              going={going}
              finding={found.finding}
              onPinched={(factor) => change({ zoom: withinZoom((zoom === 'page' ? 1 : zoom) * factor) })}
              remarks={inMaterial}
            />
          ) : (
            <div
              className={clsx('mx-auto p-6 max-md:p-4', material === 'criteria' ? 'max-w-6xl' : 'max-w-4xl')}
            >
              {material === 'brief' && <BriefView view={view} />}
              {material === 'criteria' && <RubricView view={view} focusedId={focusedId} onFocus={focus} />}
              {material === 'overall' && (
                <OverallView view={view} remarks={inMaterial} focusedId={focusedId} onFocus={focus} />
              )}
              {material === 'recordings' && (
                <Recordings view={view} remarks={inMaterial} focusedId={focusedId} onFocus={focus} />
              )}
            </div>
          )}
        </div>
        {narrow && onPaper && !listed && (
          <Sheet
            view={view}
            remark={at >= 0 ? focused : undefined}
            onStep={step}
            at={inMaterial.findIndex(({ id }) => id === focusedId) + 1}
            of={inMaterial.length}
          />
        )}
      </div>
      {/* Keys move what is in focus here and not the focus of the page, so it is said. */}
      <p aria-live="polite" className="sr-only">
        {focused !== undefined &&
          at >= 0 &&
          `${words.slip.position(view.numberByRemark.get(focused.id) ?? 0, quotedWords(focused), pageOf(focused))}. ${saidBy(focused)}`}
      </p>
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
    </div>
  );
}

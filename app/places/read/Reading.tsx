import { Tabs } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { pageOf, quotedWords } from '#core/model/remark.ts';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { useNarrow } from '../../shared/page/hooks.ts';
import { saidBy } from '../../shared/remark/said.ts';
import * as words from '../../words/en.ts';
import { FilterRow } from '../../shared/remark/FilterRow.tsx';
import { FindRow, useFinding } from './bars/FindRow.tsx';
import { KeysDialog } from './bars/KeysDialog.tsx';
import { MaterialTabs } from './bars/MaterialTabs.tsx';
import { ReadingBar } from './bars/ReadingBar.tsx';
import { RemarkIndex } from './bars/RemarkIndex.tsx';
import { isPaperMaterial, materials } from './materials.ts';
import { MaterialWords } from './MaterialWords.tsx';
import { PaperMaterial } from './paper/PaperMaterial.tsx';
import { Sheet } from './paper/Sheet.tsx';
import { useReadingClock } from './reading-clock.ts';
import { useReadingKeys } from './reading-keys.ts';
import { useReadingPlace } from './reading-place.ts';
import { LEAST_ZOOM, MOST_ZOOM, useReadingState, withinZoom } from './reading-state.ts';
import { useReadingSteps } from './reading-steps.ts';
import { useRemarksShown } from './remarks-shown.ts';

const ZOOMS = [LEAST_ZOOM, 0.67, 0.8, 1, 1.25, 1.5, 2, 3, MOST_ZOOM];

/** The heart: the paper with its remarks in their places, the rubric, the overall words. */
export function Reading() {
  const { view } = useAssignment();
  const [state, change] = useReadingState(view.assignment.id);
  const place = useReadingPlace(view, state);
  const { material, papers, file, focusedId, focus, open, openFile } = place;
  const onPaper = isPaperMaterial(material) || (material === 'brief' && file !== null);
  const { zoom, filter } = state;
  const [going, setGoing] = useState({ page: 1, times: 0 });
  const [led, setLed] = useState<number | null>(null);
  if (led !== place.wanted.page) {
    setLed(place.wanted.page);
    if (place.wanted.page !== null) setGoing({ page: place.wanted.page, times: going.times + 1 });
  }
  const [keysOpen, setKeysOpen] = useState(false);
  const [asked, setAsked] = useState(false);
  const frame = useRef<HTMLDivElement>(null);
  const deskPlace = useRef<HTMLDivElement>(null);
  const narrow = useNarrow();
  const { paper, flows, paperKey, all, passing, mayJoin } = useRemarksShown(view, state, place);
  const textState = flows ? 'accepted' : state.text;
  const found = useFinding(paper, textState, place.wanted.find);
  useReadingClock(frame, view, focusedId);
  useEffect(() => {
    // Where the place doesn't fit below the line, what came into focus is seen with what is said about it.
    if (focusedId !== null) deskPlace.current?.scrollIntoView({ block: 'nearest' });
  }, [focusedId]);

  const steps = useReadingSteps(view, passing, Object.keys(filter).length > 0, focusedId, focus);
  const { focused } = steps;
  const filterBy = (open: boolean) => {
    setAsked(open);
    change({ filtering: open });
  };
  const larger = (by: number) => {
    const now = zoom === 'page' ? 1 : zoom;
    const near = ZOOMS.findIndex((one) => one >= now);
    change({ zoom: ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, near + by))] });
  };
  useReadingKeys(view, steps, {
    larger,
    filter: () => filterBy(true),
    find: found.show,
    keys: () => setKeysOpen(true),
  });
  const listed = state.listed !== null && all.length > 1;

  return (
    // Where little is left below the line, the place scrolls with it rather than vanish.
    <Tabs.Root
      ref={deskPlace}
      value={material}
      onValueChange={(next) => {
        const chosen = materials.find((one) => one === next);
        if (chosen !== undefined) open(chosen);
      }}
      className="flex h-full flex-col max-md:min-h-[min(26rem,78dvh)]"
    >
      <div className="flex items-center gap-x-2 border-b border-rule px-5 max-md:flex-wrap max-md:overflow-x-auto max-md:px-4">
        <MaterialTabs view={view} material={material} />
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
          mayJoin={mayJoin}
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
      <Tabs.Content
        ref={frame}
        value={material}
        tabIndex={-1}
        className="relative flex min-h-0 flex-1 flex-col"
      >
        <div tabIndex={onPaper && !listed ? undefined : 0} className="min-h-0 flex-1 overflow-auto">
          {listed ? (
            <RemarkIndex
              view={view}
              remarks={passing}
              by={state.listed ?? 'page'}
              onBy={(by) => change({ listed: by })}
              onOpen={() => change({ listed: null })}
            />
          ) : onPaper ? (
            <PaperMaterial
              key={paperKey}
              view={view}
              file={file}
              paper={paper}
              textState={textState}
              focusedId={focusedId}
              onFocus={focus}
              zoom={zoom}
              going={going}
              finding={found.finding}
              onPinched={(factor) => change({ zoom: withinZoom((zoom === 'page' ? 1 : zoom) * factor) })}
              remarks={passing}
            />
          ) : (
            <MaterialWords
              view={view}
              material={material}
              remarks={passing}
              focusedId={focusedId}
              onFocus={focus}
            />
          )}
        </div>
        {narrow && onPaper && !listed && (
          <Sheet
            view={view}
            remark={focused}
            onStep={steps.step}
            at={passing.findIndex(({ id }) => id === focusedId) + 1}
            of={passing.length}
          />
        )}
      </Tabs.Content>
      {/* Keys move what is in focus here and not the focus of the page, so it is said. */}
      <p aria-live="polite" className="sr-only">
        {focused !== undefined &&
          `${words.slip.position(view.numberByRemark.get(focused.id) ?? 0, quotedWords(focused), pageOf(focused))}. ${saidBy(focused)}`}
      </p>
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
    </Tabs.Root>
  );
}

import clsx from 'clsx';
import { Minus, Plus } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Channel, Remark } from '#core/model/remark.ts';
import type { Decision } from '#core/model/work.ts';
import { isRead } from '#core/tally/tally.ts';
import { useAssignment } from '../../shared/assignment-outlet.ts';
import { useAddress } from '../../shared/address.ts';
import { Button, Empty } from '../../shared/Controls.tsx';
import { useKeys, useNarrow } from '../../shared/hooks.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';
import { decideRemark, markRead, toggleCarry } from '../../workspace/decide.ts';
import { usePaper } from '../../workspace/papers.ts';
import { KeysDialog } from './KeysDialog.tsx';
import type { TextState } from './layout-segments.ts';
import { PaperMaterial } from './PaperMaterial.tsx';
import { useReadingClock } from './reading-clock.ts';
import { Recordings } from './Recordings.tsx';
import { RubricView } from './RubricView.tsx';
import { Sheet } from './Sheet.tsx';
import { SlipList } from './SlipList.tsx';

type Material = 'brief' | 'paper' | 'criteria' | 'overall' | 'recordings';
const MATERIALS: readonly Material[] = ['brief', 'paper', 'criteria', 'overall', 'recordings'];
const CHANNELS_BY_MATERIAL: Record<Material, readonly Channel[]> = {
  brief: [],
  paper: ['passage', 'region'],
  criteria: ['criterion'],
  overall: ['overall'],
  recordings: ['recording'],
};
const LABELS: Record<Material, string> = {
  brief: words.reading.brief,
  paper: words.reading.paper,
  criteria: words.reading.rubric,
  overall: words.reading.overall,
  recordings: words.reading.recordings,
};
const TEXT_STATES: readonly TextState[] = ['changes', 'accepted', 'original'];
const ZOOMS = [0.5, 0.67, 0.8, 1, 1.25, 1.5, 2, 3, 4];

function materialOf(remark: Remark): Material {
  return MATERIALS.find((material) => CHANNELS_BY_MATERIAL[material].includes(remark.channel)) ?? 'paper';
}

/** What is open and in focus: kept in the address, so that a link leads just there. */
function useReadingPlace(view: AssignmentView) {
  const [search, setSearch] = useAddress();
  const remarkId = search.get('remark');
  const remark = view.remarks.find((r) => r.id === remarkId);
  const given = search.get('material');
  const first: Material =
    view.papers.length > 0 ? 'paper' : view.recordings.length > 0 ? 'recordings' : 'overall';
  const material: Material =
    remark !== undefined ? materialOf(remark) : (MATERIALS.find((one) => one === given) ?? first);
  const wanted = remark?.paperHash ?? search.get('file');
  const file = view.papers.find(({ hash }) => hash === wanted) ?? view.papers.at(0) ?? null;
  const focus = (id: string) => setSearch({ remark: id });
  const open = (next: Material) => setSearch({ material: next });
  const openFile = (hash: string) => setSearch({ material: 'paper', file: hash });
  return { material, file, focusedId: remark === undefined ? null : remarkId, focus, open, openFile };
}

/** The heart: the paper with its remarks in their places, the rubric, the overall words. */
export function Reading() {
  const { view } = useAssignment();
  const { material, file, focusedId, focus, open, openFile } = useReadingPlace(view);
  const paper = usePaper(file?.hash ?? null);
  const [textState, setTextState] = useState<TextState>('changes');
  const [zoom, setZoom] = useState(1);
  const [page, setPage] = useState(1);
  const [keysOpen, setKeysOpen] = useState(false);
  const frame = useRef<HTMLDivElement>(null);
  const narrow = useNarrow();
  const unread = (remark: Remark) => !isRead(remark, view.readings.get(remark.id));
  const inMaterial = view.remarks.filter(
    (remark) =>
      materialOf(remark) === material &&
      (material !== 'paper' || file === null || remark.paperHash === file.hash),
  );
  useReadingClock(frame, view, focusedId);

  const at = view.remarks.findIndex((remark) => remark.id === focusedId);
  const step = (by: number) => {
    const next =
      at < 0 ? inMaterial.at(0) : view.remarks.at(Math.min(view.remarks.length - 1, Math.max(0, at + by)));
    if (next !== undefined) focus(next.id);
  };
  const nextUnread = () => {
    const next = view.remarks.slice(at + 1).find(unread) ?? view.remarks.find(unread);
    if (next !== undefined) focus(next.id);
  };
  const larger = (by: number) =>
    setZoom((now) => ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, ZOOMS.indexOf(now) + by))]);
  const focused = view.remarks.at(at);
  const once = (act: (remark: Remark) => void) => (held: boolean) => {
    if (!held && at >= 0 && focused !== undefined) act(focused);
  };
  const decide = (decision: Decision) => once((remark) => void decideRemark(remark, decision));
  useKeys({
    n: () => step(1),
    p: () => step(-1),
    '.': nextUnread,
    a: decide('act'),
    q: decide('ask'),
    k: decide('keep'),
    d: decide('decline'),
    c: once((remark) => void toggleCarry(remark)),
    r: once((remark) => void markRead(remark, unread(remark))),
    '+': () => larger(1),
    '=': () => larger(1),
    '-': () => larger(-1),
    '?': () => setKeysOpen(true),
  });

  return (
    <div className="flex h-full flex-col">
      <div className="flex flex-wrap items-center gap-x-6 border-b border-rule px-5 max-md:overflow-x-auto max-md:px-4">
        <Materials view={view} material={material} onOpen={open} />
        {material === 'paper' && (
          <div className="flex items-center gap-2 py-1 text-sm md:ml-auto">
            {file !== null && view.papers.length > 1 && (
              <select
                aria-label={words.reading.chooseFile}
                value={file.hash}
                onChange={(event) => openFile(event.target.value)}
                className="max-w-56 rounded border border-rule bg-surface px-1.5 py-1"
              >
                {view.papers.map(({ hash, name }) => (
                  <option key={hash} value={hash}>
                    {name}
                  </option>
                ))}
              </select>
            )}
            {paper !== null && (paper.layout?.changes.length ?? 0) > 0 && (
              <select
                aria-label={words.reading.viewLabel}
                value={textState}
                onChange={(event) =>
                  setTextState(TEXT_STATES.find((one) => one === event.target.value) ?? 'changes')
                }
                className="rounded border border-rule bg-surface px-1.5 py-1"
              >
                {TEXT_STATES.map((state) => (
                  <option key={state} value={state}>
                    {words.reading.states[state]}
                  </option>
                ))}
              </select>
            )}
          </div>
        )}
        <div
          className={clsx(
            'flex items-center gap-1 py-0.5 text-sm max-md:hidden',
            material !== 'paper' && 'ml-auto',
          )}
        >
          {material === 'paper' && paper !== null && (
            <>
              {paper.pages.length > 1 && (
                <span className="mr-3">{words.reading.pageOf(page, paper.pages.length)}</span>
              )}
              <Button
                look="quiet"
                className="min-h-8 px-1.5"
                aria-label={words.reading.zoomOut}
                onClick={() => larger(-1)}
              >
                <Minus size={15} aria-hidden />
              </Button>
              <button
                type="button"
                title={words.reading.fitWidth}
                className="w-13 text-quiet"
                onClick={() => setZoom(1)}
              >
                {Math.round(zoom * 100)} %
              </button>
              <Button
                look="quiet"
                className="min-h-8 px-1.5"
                aria-label={words.reading.zoomIn}
                onClick={() => larger(1)}
              >
                <Plus size={15} aria-hidden />
              </Button>
            </>
          )}
          <Button look="quiet" className="min-h-8" onClick={() => setKeysOpen(true)}>
            {words.reading.keys}
          </Button>
        </div>
      </div>
      <div ref={frame} className="relative flex min-h-0 flex-1 flex-col">
        <div tabIndex={material === 'paper' ? undefined : 0} className="min-h-0 flex-1 overflow-auto">
          {material === 'paper' ? (
            <PaperMaterial
              view={view}
              file={file}
              paper={paper}
              textState={textState}
              focusedId={focusedId}
              onFocus={focus}
              zoom={zoom}
              onPage={setPage}
              remarks={inMaterial}
            />
          ) : (
            <div className="mx-auto max-w-4xl p-6 max-md:p-4">
              {material === 'brief' && (
                <p className="max-w-prose font-serif whitespace-pre-wrap">
                  {view.assignment.brief || words.reading.noBrief}
                </p>
              )}
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
        {narrow && material === 'paper' && (
          <Sheet
            view={view}
            remark={at >= 0 ? focused : undefined}
            onStep={step}
            at={inMaterial.findIndex(({ id }) => id === focusedId) + 1}
            of={inMaterial.length}
          />
        )}
      </div>
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
    </div>
  );
}

function Materials({
  view,
  material,
  onOpen,
}: {
  view: AssignmentView;
  material: Material;
  onOpen: (material: Material) => void;
}) {
  const count = (of: Material) => {
    const counts = view.tally.byChannel.filter((c) => CHANNELS_BY_MATERIAL[of].includes(c.channel));
    if (counts.length === 0) return undefined;
    return {
      read: counts.reduce((sum, c) => sum + c.read, 0),
      received: counts.reduce((sum, c) => sum + c.received, 0),
    };
  };
  const all = MATERIALS.filter((one) => one !== 'recordings' || view.recordings.length > 0);
  return (
    <div role="tablist" aria-label={words.reading.materials} className="flex gap-5">
      {all.map((each) => {
        const counted = count(each);
        return (
          <button
            key={each}
            type="button"
            role="tab"
            aria-selected={each === material}
            onClick={() => onOpen(each)}
            className={clsx(
              'border-b-2 py-2 whitespace-nowrap',
              each === material ? 'border-accent' : 'border-transparent',
            )}
          >
            <span className={clsx(each === material && 'font-bold')}>{LABELS[each]}</span>
            {counted !== undefined && (
              <span className="ml-1.5 text-sm text-quiet">
                {words.line.of(counted.read, counted.received)}
              </span>
            )}
          </button>
        );
      })}
    </div>
  );
}

function OverallView({
  view,
  remarks,
  focusedId,
  onFocus,
}: {
  view: AssignmentView;
  remarks: readonly Remark[];
  focusedId: string | null;
  onFocus: (id: string) => void;
}) {
  if (remarks.length === 0) return <Empty>{words.reading.noOverall}</Empty>;
  return <SlipList view={view} remarks={remarks} focusedId={focusedId} onFocus={onFocus} />;
}

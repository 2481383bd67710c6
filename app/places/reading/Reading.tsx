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
import { Slip } from '../../shared/Slip.tsx';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';
import { decideRemark, markRead, toggleCarry } from '../../workspace/decide.ts';
import type { ReadPaper } from '../../workspace/records.ts';
import { useWorkspace } from '../../workspace/workspace.ts';
import { KeysDialog } from './KeysDialog.tsx';
import { PaperDesk } from './PaperDesk.tsx';
import { usePdfDocument } from './pdf-document.ts';
import { useReadingClock } from './reading-clock.ts';
import { RubricView } from './RubricView.tsx';
import { Sheet } from './Sheet.tsx';

type Material = 'brief' | 'paper' | 'criteria' | 'overall';
const CHANNEL_BY_MATERIAL: Record<Exclude<Material, 'brief'>, Channel> = {
  paper: 'passage',
  criteria: 'criterion',
  overall: 'overall',
};
const LABELS: Record<Material, string> = {
  brief: words.reading.brief,
  paper: words.reading.paper,
  criteria: words.reading.rubric,
  overall: words.reading.overall,
};
const ZOOMS = [0.5, 0.67, 0.8, 1, 1.25, 1.5, 2, 3, 4];

function materialOf(remark: Remark): Material {
  return remark.channel === 'criterion' ? 'criteria' : remark.channel === 'overall' ? 'overall' : 'paper';
}

/** What is open and in focus: kept in the address, so that a link leads just there. */
function useReadingPlace(view: AssignmentView) {
  const [search, setSearch] = useAddress();
  const remarkId = search.get('remark');
  const remark = view.remarks.find((r) => r.id === remarkId);
  const given = search.get('material');
  const hasPaper = view.markedFile !== null;
  const first: Material = hasPaper ? 'paper' : 'overall';
  const material: Material =
    remark !== undefined
      ? materialOf(remark)
      : given === 'brief' || given === 'criteria' || given === 'overall' || given === 'paper'
        ? given
        : first;
  const focus = (id: string) => setSearch({ remark: id });
  const open = (next: Material) => setSearch({ material: next });
  return { material, focusedId: remark === undefined ? null : remarkId, focus, open };
}

/** The heart: the paper with its remarks in their places, the rubric, the overall words. */
export function Reading() {
  const { view, marked } = useAssignment();
  const { material, focusedId, focus, open } = useReadingPlace(view);
  const [zoom, setZoom] = useState(1);
  const [page, setPage] = useState(1);
  const [keysOpen, setKeysOpen] = useState(false);
  const frame = useRef<HTMLDivElement>(null);
  const narrow = useNarrow();
  const unread = (remark: Remark) => !isRead(remark, view.readings.get(remark.id));
  const inMaterial = view.remarks.filter((remark) => materialOf(remark) === material);
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
        <div className="ml-auto flex items-center gap-1 py-0.5 text-sm max-md:hidden">
          {material === 'paper' && marked !== null && (
            <>
              <span className="mr-3">{words.reading.pageOf(page, marked.pages.length)}</span>
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
              marked={marked}
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
            </div>
          )}
        </div>
        {narrow && material === 'paper' && (
          <Sheet view={view} remark={at >= 0 ? focused : undefined} onStep={step} of={inMaterial.length} />
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
  const count = (of: Material) =>
    of === 'brief' ? undefined : view.tally.byChannel.find((c) => c.channel === CHANNEL_BY_MATERIAL[of]);
  const all: Material[] = ['brief', 'paper', 'criteria', 'overall'];
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

function PaperMaterial(props: {
  view: AssignmentView;
  marked: ReadPaper | null;
  remarks: readonly Remark[];
  focusedId: string | null;
  onFocus: (id: string) => void;
  zoom: number;
  onPage: (page: number) => void;
}) {
  const { view, marked } = props;
  const isHere = useWorkspace((state) => state.records.files.has(view.markedFile?.hash ?? ''));
  if (marked !== null) return <OpenPaper {...props} marked={marked} />;
  return (
    <div className="p-6">
      <Empty>
        {view.markedFile === null
          ? words.reading.noPaper
          : isHere
            ? words.reading.opening
            : words.reading.notHere}
      </Empty>
    </div>
  );
}

function OpenPaper(props: {
  view: AssignmentView;
  marked: ReadPaper;
  remarks: readonly Remark[];
  focusedId: string | null;
  onFocus: (id: string) => void;
  zoom: number;
  onPage: (page: number) => void;
}) {
  const document = usePdfDocument(props.marked.hash);
  if (document === null) return <p className="p-6 text-quiet">{words.reading.opening}</p>;
  return <PaperDesk {...props} document={document} />;
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
  return (
    <ol className="grid gap-3">
      {remarks.map((remark) => (
        <li key={remark.id}>
          <Slip
            view={view}
            remark={remark}
            focused={remark.id === focusedId}
            onFocus={() => onFocus(remark.id)}
          />
        </li>
      ))}
    </ol>
  );
}

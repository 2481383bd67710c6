import { useWorkspace } from '../../workspace/use-workspace.ts';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import type { Remark } from '#core/model/remark.ts';
import { stances, type Decision } from '#core/model/work.ts';
import { isDecided } from '#core/tally/decided.ts';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { useAddress } from '../../shared/page/address.ts';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { DecisionButtons } from '../../shared/remark/Decisions.tsx';
import { useKeys } from '../../shared/page/hooks.ts';
import { NoteField, StanceChoice } from '../../shared/remark/Judging.tsx';
import { sayWhatMoves } from '../../shared/remark/moved.ts';
import { confirmSuggestion } from '../../workspace/state/suggestions.ts';
import { CriterionChoice } from '../../shared/remark/CriterionChoice.tsx';
import { PointsBehind } from '../../shared/remark/PointsBehind.tsx';
import { PartsSaid } from '../../shared/remark/PartsSaid.tsx';
import { SlipExtras } from '../../shared/remark/SlipExtras.tsx';
import * as words from '../../words/en.ts';
import { criterionFor, type AssignmentView } from '#core/assignment/view.ts';
import { carryInHand, decideInHand, sayInHand, takeNextPart } from '../../shared/remark/in-hand.ts';
import {
  decideAlike,
  ProposedDecision,
  SameCalls,
  takeProposed,
} from '../../shared/remark/ProposedDecision.tsx';
import { PartsBar } from '../../shared/remark/PartsBar.tsx';
import { Passage } from './Passage.tsx';
import { Summary } from './Summary.tsx';
import { Throughout } from './Throughout.tsx';
import type { ReadPaper } from '../../workspace/storage/records.ts';
import { remarkAddress } from '../../shared/page/addresses.ts';

/** One remark at a time, large: its passage, what was said, what it is worth, and the five decisions. */
export function Deciding() {
  const workspace = useWorkspace();
  const { view, marked } = useAssignment();
  const [search, setSearch] = useAddress();
  const undecided = view.remarks.filter((remark) => !isDecided(view.judgements.get(remark.id)));
  const wanted = search.get('remark');
  const remark =
    view.remarks.find((r) => r.id === wanted) ?? (wanted === 'none' ? undefined : undecided.at(0));
  const at = remark === undefined ? -1 : view.remarks.indexOf(remark);
  const go = (to: Remark | undefined) => setSearch({ remark: to?.id ?? 'none' });
  const step = (by: number) => {
    const next = at + by;
    if (next >= 0) go(view.remarks.at(next));
  };
  const nextUndecided = () =>
    go(
      view.remarks.slice(at + 1).find((r) => undecided.includes(r)) ??
        undecided.find((r) => r.id !== remark?.id),
    );
  const decide = (decision: Decision) => (held: boolean) => {
    if (!held && remark !== undefined) void hold(decideInHand(workspace, view, remark, decision));
  };
  // The address names the remark, so that it stays when it is no longer the first undecided one.
  const hold = async (done: Promise<void>) => {
    go(remark);
    await done;
  };
  useKeys({
    n: () => step(1),
    p: () => step(-1),
    '.': nextUndecided,
    a: decide('act'),
    q: decide('ask'),
    k: decide('keep'),
    d: decide('decline'),
    ...Object.fromEntries(
      stances.map((stance, i) => [
        String(i + 1),
        () => {
          if (remark !== undefined) void hold(sayInHand(workspace, view, remark, stance));
        },
      ]),
    ),
    '0': () => {
      if (remark !== undefined) void hold(sayInHand(workspace, view, remark, null));
    },
    l: (held) => {
      if (!held && remark !== undefined)
        void hold(sayWhatMoves(workspace, view, remark, confirmSuggestion(workspace, view, remark)));
    },
    c: (held) => {
      if (!held && remark !== undefined) void hold(carryInHand(workspace, view, remark));
    },
    y: (held) => {
      if (!held && remark !== undefined) void hold(takeProposed(workspace, view, remark));
    },
    e: (held) => {
      if (!held && remark !== undefined) void hold(decideAlike(workspace, view, remark));
    },
    s: () => {
      if (remark !== undefined) takeNextPart(view, remark);
    },
  });
  if (view.remarks.length === 0)
    return (
      <div className="p-6">
        <Empty>{words.deciding.none}</Empty>
      </div>
    );
  if (remark === undefined) return <Summary view={view} onOpen={go} />;
  return (
    <div
      className="mx-auto max-w-6xl p-6 max-md:p-4"
      onClickCapture={() => wanted !== remark.id && go(remark)}
    >
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <h2 className="font-serif text-lg font-semibold">
          {words.deciding.title(at + 1, view.remarks.length)}
        </h2>
        <p className="text-sm text-quiet">{words.deciding.left(undecided.length)}</p>
        <div className="ml-auto flex gap-2">
          <Button aria-label={words.reading.previous} disabled={at === 0} onClick={() => step(-1)}>
            <ChevronLeft size={18} aria-hidden />
          </Button>
          <Button
            aria-label={words.reading.next}
            onClick={() => (at + 1 < view.remarks.length ? step(1) : go(undefined))}
          >
            <ChevronRight size={18} aria-hidden />
          </Button>
          <Button onClick={nextUndecided}>{words.deciding.nextUndecided}</Button>
          <Button look="quiet" onClick={() => go(undefined)}>
            {words.deciding.toSummary}
          </Button>
        </div>
      </div>
      <div className="grid gap-6 md:grid-cols-2">
        <Passage view={view} main={marked} remark={remark} />
        <Said key={remark.id} view={view} remark={remark} marked={marked} />
      </div>
    </div>
  );
}

function Said({ view, remark, marked }: { view: AssignmentView; remark: Remark; marked: ReadPaper | null }) {
  const criterion = criterionFor(view, remark);
  const scaled = view.criteria.find((one) => one.criterion.id === criterion?.id);
  const level = scaled?.result?.level;
  return (
    <section>
      <p className="text-sm text-quiet">
        <b className="text-ink">{remark.author.name}</b>
        {` · ${words.channels[remark.channel]}`}
        {criterion !== null && ` · ${criterion.title}`}
      </p>
      <p className="mt-1 text-[1.15rem] leading-snug whitespace-pre-wrap">
        <PartsSaid view={view} remark={remark} explained />
      </p>
      <SlipExtras view={view} remark={remark} focused />
      <div className="my-4 flex flex-wrap items-baseline justify-between gap-3 border-y border-dashed border-rule py-2 text-sm text-quiet">
        <StanceChoice view={view} remark={remark} />
        <CriterionChoice view={view} remark={remark} />
        {level && <span>{words.deciding.nextLevel(level)}</span>}
        <PointsBehind view={view} remark={remark} />
        <PartsBar view={view} remark={remark} />
      </div>
      <DecisionButtons view={view} remark={remark} large />
      <ProposedDecision view={view} remark={remark} />
      <NoteField view={view} remark={remark} />
      <SameCalls view={view} remark={remark} />
      <Throughout view={view} remark={remark} marked={marked} />
      <p className="mt-3 text-sm">
        <Link to={remarkAddress(remark)} className="font-semibold text-accent hover:underline">
          {words.deciding.inItsPlace}
        </Link>
      </p>
    </section>
  );
}

import { ChevronLeft, ChevronRight } from 'lucide-react';
import { Link } from 'react-router';
import { blockAt } from '#core/paper/paper.ts';
import { placeOf, type Remark } from '#core/model/remark.ts';
import type { Decision } from '#core/model/work.ts';
import { isDecided } from '#core/tally/tally.ts';
import { useAssignment } from '../../shared/assignment-outlet.ts';
import { useAddress } from '../../shared/address.ts';
import { Button, Empty } from '../../shared/Controls.tsx';
import { DecisionButtons } from '../../shared/Decisions.tsx';
import { useKeys } from '../../shared/hooks.ts';
import { NoteField, StanceChoice } from '../../shared/Slip.tsx';
import { saidBy } from '../../shared/said.ts';
import { words } from '../../words/en.ts';
import { pointsOf, type AssignmentView } from '../../workspace/assignment-view.ts';
import { decideRemark, toggleCarry } from '../../workspace/decide.ts';
import { usePaper } from '../../workspace/papers.ts';
import type { ReadPaper } from '../../workspace/records.ts';
import { Summary } from './Summary.tsx';

/** One remark at a time, large: its passage, what was said, what it is worth, and the five decisions. */
export function Deciding() {
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
    if (!held && remark !== undefined) void hold(decideRemark(remark, decision));
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
    c: (held) => {
      if (!held && remark !== undefined) void hold(toggleCarry(remark));
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
        <Said key={remark.id} view={view} remark={remark} />
      </div>
    </div>
  );
}

/** The passage in its surroundings: its paragraph, with the remark's own words marked. */
function Passage({
  view,
  main,
  remark,
}: {
  view: AssignmentView;
  /** The paper that most remarks are on. */
  main: ReadPaper | null;
  remark: Remark;
}) {
  const other = usePaper(remark.paperHash === main?.hash ? null : remark.paperHash);
  const marked = remark.paperHash === main?.hash ? main : other;
  const anchor = marked?.anchors[remark.id];
  const criterion = view.rubric?.criteria.find((c) => c.id === remark.criterionId);
  if (marked === null || anchor === undefined)
    return (
      <section className="border-l-2 border-rule pl-5 text-quiet">
        {placeOf(remark).kind === 'criterion' && criterion !== undefined
          ? words.deciding.aboutCriterion(criterion.title)
          : words.deciding.noPassage}
      </section>
    );
  const block = blockAt(marked.paper, anchor.from);
  const { text } = marked.paper.blocks[block];
  const from = anchor.from - marked.paper.starts[block];
  const to = Math.min(text.length, anchor.to - marked.paper.starts[block]);
  const heading = marked.paper.blocks.slice(0, block).findLast((b) => b.kind === 'heading');
  return (
    <section
      aria-label={words.deciding.passage}
      className="rounded-lg border border-rule bg-surface p-5 font-serif leading-relaxed"
    >
      {heading !== undefined && <p className="mb-2 text-sm text-quiet">{heading.text}</p>}
      {anchor.exactly ? (
        <p>
          {text.slice(0, from)}
          <mark className="border-b-2 border-ink bg-(--focus-tint) text-ink">{text.slice(from, to)}</mark>
          {text.slice(to)}
        </p>
      ) : (
        <>
          <p className="mb-2 font-sans text-sm text-quiet">{words.slip.onNoWords}</p>
          <p>{text}</p>
        </>
      )}
    </section>
  );
}

function Said({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const judgement = view.judgements.get(remark.id);
  const criterion = view.rubric?.criteria.find((c) => c.id === remark.criterionId);
  const level = view.attempts
    .at(0)
    ?.marking?.criteria.find((r) => r.criterionId === remark.criterionId)?.level;
  const points = pointsOf(view, remark.id);
  return (
    <section>
      <p className="text-sm text-quiet">
        <b className="text-ink">{remark.author.name}</b>
        {criterion !== undefined && ` · ${criterion.title}`}
      </p>
      <p className="mt-1 text-[1.15rem] leading-snug whitespace-pre-wrap">{saidBy(remark)}</p>
      <div className="my-4 flex flex-wrap items-baseline justify-between gap-3 border-y border-dashed border-rule py-2 text-sm text-quiet">
        <StanceChoice remark={remark} judgement={judgement} />
        {points !== null && (
          <span>
            {level && `${words.deciding.nextLevel(level)} `}
            <b className="text-ink">{points.behind}</b> {words.slip.lost('', points.lost).trim()}
          </span>
        )}
      </div>
      <DecisionButtons remark={remark} judgement={judgement} large />
      <NoteField remark={remark} judgement={judgement} />
      <p className="mt-3 text-sm">
        <Link
          to={`/a/${encodeURIComponent(view.assignment.id)}/read?remark=${encodeURIComponent(remark.id)}`}
          className="font-semibold text-accent hover:underline"
        >
          {words.deciding.inItsPlace}
        </Link>
      </p>
    </section>
  );
}

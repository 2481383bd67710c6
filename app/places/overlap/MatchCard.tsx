import { useState } from 'react';
import { Link } from 'react-router';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import type { ShownMatch } from '#core/overlap/items.ts';
import type { SidePiece } from '#core/overlap/side-by-side.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { remarkAddress } from '../../shared/page/addresses.ts';
import { DecisionButtons } from '../../shared/remark/Decisions.tsx';
import { saidBy } from '../../shared/remark/said.ts';
import * as words from '../../words/en.ts';
import { useSides, type HereSource, type ShownOverlap } from '../../workspace/state/overlap.ts';
import type { Choosing } from './choice.ts';
import type { AboutMatch } from './decide-match.ts';

/** The match in focus: both texts side by side, what it calls for and why, and what is decided about it. */
export function MatchCard({
  view,
  shown,
  match,
  about,
  choosing,
  onChoose,
}: {
  view: AssignmentView;
  shown: ShownOverlap;
  match: ShownMatch;
  about: AboutMatch;
  choosing: Choosing;
  onChoose: (id: string) => void;
}) {
  const sides = useSides(shown.paper, match);
  const source = shown.sources[match.source];
  const at = shown.matches.indexOf(match);
  const others = shown.matches.filter(({ sourceId }) => sourceId === match.sourceId);
  return (
    <section
      data-card
      aria-label={words.overlap.match(match.letter, match.words, source.work.title)}
      className="rounded-lg border border-ink bg-surface p-4"
    >
      <div className="flex items-baseline gap-3">
        <b className="text-lg">{match.letter}</b>
        <p className="min-w-0 flex-1 text-sm text-quiet">
          {words.overlap.words(match.words)} · <SourceTitle source={source} /> ·{' '}
          {words.overlap.relation[source.work.relation]}
        </p>
        <span className="text-sm whitespace-nowrap text-quiet tabular-nums">
          {words.overlap.place(at + 1, shown.matches.length)}
        </span>
      </div>
      <div className="mt-2 grid max-h-72 gap-4 overflow-auto sm:grid-cols-2" tabIndex={0}>
        <Side title={words.overlap.inDraft} pieces={sides?.draft ?? null} />
        <Side title={words.overlap.inSource} pieces={sides?.source ?? null} />
      </div>
      <div className="mt-3 border-t border-dashed border-rule-strong pt-3">
        <p className="font-semibold">{words.overlap.advice[match.advice]}</p>
        <p className="text-sm text-quiet">
          {words.overlap.reason[match.reason]} {words.overlap.equal(match.equal, match.words)}
        </p>
      </div>
      <Reported about={about} />
      <div className="mt-3">
        <DecisionButtons view={view} remark={about.remark} onDecide={about.decide} />
      </div>
      <div className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        <Aside id={match.id} label={words.overlap.setAside} choosing={choosing} />
        <Aside id={match.sourceId} label={words.overlap.setAsideSource} choosing={choosing} />
      </div>
      {others.length > 1 && (
        <p className="mt-2 flex flex-wrap items-baseline gap-1 text-sm">
          <span className="mr-1 text-quiet">{words.overlap.others}</span>
          {others.map((other) => (
            <Button
              key={other.id}
              look="quiet"
              className="min-h-0 px-1.5 py-0"
              aria-pressed={other.id === match.id}
              onClick={() => onChoose(other.id)}
            >
              {other.letter}
            </Button>
          ))}
        </p>
      )}
    </section>
  );
}

/** A source by who wrote it, what it is called, and when. */
export function SourceTitle({ source: { work, isAttempt } }: { source: HereSource }) {
  return (
    <>
      {isAttempt && `${words.overlap.attempt}, `}
      {work.authors !== '' && `${work.authors}, `}
      <i>{work.title}</i>
      {work.year !== null && `, ${work.year}`}
    </>
  );
}

function Side({ title, pieces }: { title: string; pieces: readonly SidePiece[] | null }) {
  return (
    <div>
      <p className="text-xs text-quiet">{title}</p>
      <p className="font-serif text-[0.95rem]">
        {pieces?.map((piece, i) =>
          piece.same ? (
            <span key={i} className="underline decoration-ink/60 underline-offset-4">
              {piece.text}
            </span>
          ) : (
            <span key={i} className="text-quiet italic">
              {piece.text}
            </span>
          ),
        )}
      </p>
    </div>
  );
}

/** What came back about the same words. */
function Reported({ about }: { about: AboutMatch }) {
  const { reported, beside } = about;
  return (
    <>
      {reported !== null && (
        <p className="mt-2 text-sm">
          <span className="text-quiet">{words.overlap.cameBack}</span> <RemarkLink remark={reported} />
        </p>
      )}
      {beside.length > 0 && (
        <div className="mt-2 text-sm">
          <p className="text-quiet">{words.overlap.aboutSame}</p>
          <ul>
            {beside.map((remark) => (
              <li key={remark.id}>
                <RemarkLink remark={remark} />
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}

export function RemarkLink({ remark }: { remark: Remark }) {
  return (
    <Link to={remarkAddress(remark)} className="text-accent hover:underline">
      {saidBy(remark)}
    </Link>
  );
}

/** Leaves a match or a source out of the count, with a reason, or counts it again. */
function Aside({ id, label, choosing }: { id: string; label: string; choosing: Choosing }) {
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState('');
  const reason = choosing.reasonOf(id);
  if (reason !== null)
    return (
      <span className="text-sm">
        {words.overlap.isAside(reason)}{' '}
        <Button look="quiet" className="min-h-0 px-1 py-0 text-sm" onClick={() => choosing.countAgain(id)}>
          {words.overlap.countAgain}
        </Button>
      </span>
    );
  return (
    <>
      <Button look="quiet" className="min-h-0 px-0 py-0 text-sm" onClick={() => setOpen(true)}>
        {label}
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title={words.overlap.setAsideTitle}
        lead={words.overlap.setAsideLead}
      >
        <form
          onSubmit={(event) => {
            event.preventDefault();
            choosing.setAside(id, why.trim());
            setOpen(false);
          }}
        >
          <label className="block">
            <span className="font-semibold">{words.overlap.reasonLabel}</span>
            <input
              value={why}
              onChange={(event) => setWhy(event.target.value)}
              className="mt-1 block w-full rounded-md border border-rule-strong/60 bg-paper px-2 py-1.5"
            />
          </label>
          <div className="mt-4 flex gap-3">
            <Button look="main" type="submit">
              {words.overlap.setAsideDone}
            </Button>
            <Button type="button" onClick={() => setOpen(false)}>
              {words.overlap.cancel}
            </Button>
          </div>
        </form>
      </Dialog>
    </>
  );
}

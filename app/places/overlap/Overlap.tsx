import clsx from 'clsx';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { changedMatches, figuresOf, type ShownMatch } from '#core/overlap/items.ts';
import { onlyReported } from '#core/overlap/reported.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { Span } from '#core/text/span.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Toggles } from '../../shared/controls/Toggles.tsx';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { useKeys } from '../../shared/page/hooks.ts';
import { shownDay } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { useOverlap, useSources, type HereSource, type ShownOverlap } from '../../workspace/state/overlap.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { Citations } from './Citations.tsx';
import { useChoice } from './choice.ts';
import { Count } from './Count.tsx';
import { aboutMatch } from './decide-match.ts';
import { MatchCard, RemarkLink } from './MatchCard.tsx';
import { MatchedText } from './MatchedText.tsx';
import { saveOverlap } from './save-overlap.ts';
import { AddSources, Sources } from './Sources.tsx';

type Of = 'marked' | 'draft';

/** Room above the match in focus. */
const CARD_BELOW_PX = 12;

/** What a paper shares with sources: its text with the matches, the figure and what it leaves out, each match beside its source. */
export function OverlapPlace() {
  const { view, work, marked, text, live } = useAssignment();
  const [asked, setAsked] = useSearchParams();
  const markedPaper = marked?.paper ?? null;
  const draftPaper = text?.paper ?? null;
  const wanted: Of = asked.get('of') === 'marked' || draftPaper === null ? 'marked' : 'draft';
  const of: Of = wanted === 'marked' && markedPaper === null ? 'draft' : wanted;
  const sources = useSources(view);
  const { id } = view.assignment;
  const ofMarked = useOverlap(`${id} marked`, markedPaper, sources);
  const ofDraft = useOverlap(`${id} draft`, draftPaper, sources);
  if (markedPaper === null && draftPaper === null)
    return (
      <div className="p-8">
        <Empty>
          <b>{words.overlap.nothing}</b> {words.overlap.nothingLead}
        </Empty>
      </div>
    );
  const shown = of === 'marked' ? ofMarked : ofDraft;
  if (shown === null)
    return (
      <p role="status" className="p-8 text-quiet">
        {words.overlap.comparing}
      </p>
    );
  const placeOf = (remark: Remark): Span | null =>
    of === 'marked' ? (marked?.anchors[remark.id] ?? null) : (live?.byRemark.get(remark.id)?.place ?? null);
  return (
    <Compared
      view={work}
      shown={shown}
      placeOf={placeOf}
      older={of === 'draft' ? ofMarked : null}
      sources={sources}
      choice={
        markedPaper !== null && draftPaper !== null ? (
          <Toggles
            label={words.overlap.of}
            options={[
              ['marked', words.overlap.marked],
              ['draft', words.overlap.draft],
            ]}
            chosen={of}
            onChoose={(next) => setAsked({ of: next }, { replace: true })}
          />
        ) : null
      }
      version={of === 'marked' ? words.overlap.marked : words.overlap.draft}
    />
  );
}

function Compared({
  view,
  shown,
  placeOf,
  older,
  sources,
  choice,
  version,
}: {
  view: AssignmentView;
  shown: ShownOverlap;
  placeOf: (remark: Remark) => Span | null;
  older: ShownOverlap | null;
  sources: readonly HereSource[];
  choice: ReactNode;
  version: string;
}) {
  const workspace = useWorkspace();
  const choosing = useChoice(view);
  const [chosenId, setChosen] = useState<string | null>(null);
  const [place, setPlace] = useState<Span | null>(null);
  const { matches, overlap, paper } = shown;
  const aside = useMemo(() => new Set(choosing.choice.aside.map(({ of }) => of)), [choosing.choice]);
  const figures = useMemo(
    () =>
      figuresOf(
        overlap,
        matches,
        shown.sources,
        { least: choosing.choice.least, without: new Set(choosing.choice.without) },
        aside,
      ),
    [overlap, matches, shown.sources, choosing.choice, aside],
  );
  const changed = useMemo(
    () => (older === null ? null : changedMatches(older.matches, matches)),
    [older, matches],
  );
  const chosen = matches.find(({ id }) => id === chosenId) ?? null;
  const reportedOnly = onlyReported(matches, view.remarks, placeOf);
  const choose = (id: string) => {
    setPlace(null);
    setChosen(id);
  };
  const step = (by: 1 | -1, among: readonly ShownMatch[]) => {
    if (among.length === 0) return;
    const at = chosen === null ? -1 : among.indexOf(chosen);
    const next = chosen === null && by < 0 ? among.length - 1 : (at + by + among.length) % among.length;
    choose(among[next].id);
  };
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const card = panel.current?.querySelector<HTMLElement>('[data-card]');
    if (chosenId === null || panel.current === null || card === undefined || card === null) return;
    const { scrollTop, clientHeight } = panel.current;
    const isInSight =
      card.offsetTop >= scrollTop && card.offsetTop + card.offsetHeight <= scrollTop + clientHeight;
    if (!isInSight) panel.current.scrollTo({ top: card.offsetTop - CARD_BELOW_PX });
  }, [chosenId]);
  const about = chosen === null ? null : aboutMatch(workspace, view, shown, chosen, placeOf);
  const sameSource = matches.filter(({ sourceId }) => sourceId === chosen?.sourceId);
  useKeys({
    n: () => step(1, matches),
    p: () => step(-1, matches),
    s: () => step(1, sameSource),
    a: () => about?.decide('act'),
    q: () => about?.decide('ask'),
    k: () => about?.decide('keep'),
    d: () => about?.decide('decline'),
  });
  const compared = words.overlap.compared(
    version,
    shown.sources.length,
    shownDay(workspace.now(), undefined),
  );
  return (
    <div className="grid h-full grid-cols-1 overflow-hidden max-md:grid-rows-2 md:grid-cols-[4rem_minmax(0,1fr)_minmax(24rem,34rem)]">
      <Strip paper={paper} matches={matches} chosen={chosen} onChoose={choose} />
      <MatchedText
        paper={paper}
        matches={matches}
        sources={shown.sources}
        chosen={chosen?.id ?? null}
        place={place}
        onChoose={choose}
      />
      <div
        ref={panel}
        className="relative overflow-auto border-rule p-5 max-md:border-t max-md:p-4 md:border-l"
      >
        <div className="grid grid-cols-1 gap-5">
          {choice}
          {sources.length === 0 ? (
            <Empty>
              <b>{words.overlap.noSources}</b> {words.overlap.noSourcesLead}
              <AddSources view={view} />
            </Empty>
          ) : (
            <Count figures={figures} choosing={choosing} />
          )}
          {chosen !== null && about !== null && (
            <MatchCard
              view={view}
              shown={shown}
              match={chosen}
              about={about}
              choosing={choosing}
              onChoose={choose}
            />
          )}
          {sources.length > 0 && (
            <MatchList shown={shown} chosen={chosen} fresh={changed?.fresh ?? null} onChoose={choose} />
          )}
          {changed !== null && changed.gone.length > 0 && older !== null && (
            <Gone gone={changed.gone} older={older} />
          )}
          {reportedOnly.length > 0 && (
            <section>
              <SectionTitle>{words.overlap.notHere}</SectionTitle>
              <ul className="mt-1">
                {reportedOnly.map((remark) => (
                  <li key={remark.id} className="border-t border-rule py-1.5 text-sm">
                    <RemarkLink remark={remark} />
                  </li>
                ))}
              </ul>
            </section>
          )}
          {sources.length > 0 && (
            <Sources view={view} shown={shown} figures={figures} choosing={choosing} onChoose={choose} />
          )}
          <Citations
            paper={paper}
            onShow={(at) => {
              setChosen(null);
              setPlace(at);
            }}
          />
          <footer className="text-sm text-quiet">
            <p>{compared}</p>
            <p>{words.overlap.notCompared}</p>
            {matches.length > 0 && (
              <Button
                className="mt-2"
                onClick={() => saveOverlap(workspace, view, shown, figures, choosing, compared)}
              >
                {words.overlap.save}
              </Button>
            )}
          </footer>
        </div>
      </div>
    </div>
  );
}

/** The whole text as a narrow map, with each match at its height. */
function Strip({
  paper,
  matches,
  chosen,
  onChoose,
}: {
  paper: Paper;
  matches: readonly ShownMatch[];
  chosen: ShownMatch | null;
  onChoose: (id: string) => void;
}) {
  const share = (at: number) => `${(100 * at) / Math.max(1, paper.text.length)}%`;
  return (
    <div aria-hidden className="relative m-3 mr-6 border border-rule bg-surface max-md:hidden">
      {matches.map((match) => (
        <button
          key={match.id}
          type="button"
          tabIndex={-1}
          onClick={() => onChoose(match.id)}
          style={{ top: share(match.place.from), height: share(match.place.to - match.place.from) }}
          className={clsx(
            'absolute -right-3 left-0 min-h-1 border-r-4',
            match === chosen ? 'border-ink bg-sunken' : 'border-rule-strong hover:border-ink',
          )}
        />
      ))}
    </div>
  );
}

function MatchList({
  shown: { matches, paper },
  chosen,
  fresh,
  onChoose,
}: {
  shown: ShownOverlap;
  chosen: ShownMatch | null;
  fresh: ReadonlySet<string> | null;
  onChoose: (id: string) => void;
}) {
  return (
    <section>
      <SectionTitle>{words.overlap.matches}</SectionTitle>
      {matches.length === 0 && <p className="text-sm text-quiet">{words.overlap.noMatches}</p>}
      <ul className="mt-1">
        {matches.map((match) => (
          <li key={match.id} className="border-t border-rule text-sm">
            <button
              type="button"
              aria-pressed={match === chosen}
              onClick={() => onChoose(match.id)}
              className={clsx(
                'flex w-full items-baseline gap-3 py-1.5 text-left hover:bg-sunken',
                match === chosen && 'font-semibold',
              )}
            >
              <b className="w-6">{match.letter}</b>
              <span className="min-w-0 flex-1 truncate font-serif">
                {paper.text.slice(match.place.from, match.place.to)}
              </span>
              {fresh?.has(match.id) === true && <b>{words.overlap.fresh}</b>}
              <span className="whitespace-nowrap text-quiet tabular-nums">
                {words.overlap.words(match.words)} · {words.overlap.adviceShort[match.advice]}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Matches of the marked version that the draft has no more. */
function Gone({ gone, older }: { gone: readonly ShownMatch[]; older: ShownOverlap }) {
  return (
    <section>
      <SectionTitle>{words.overlap.gone}</SectionTitle>
      <ul className="mt-1">
        {gone.map((match) => (
          <li key={match.id} className="flex items-baseline gap-3 border-t border-rule py-1.5 text-sm">
            <b className="w-6">{match.letter}</b>
            <s className="min-w-0 flex-1 truncate font-serif text-quiet">
              {older.paper.text.slice(match.place.from, match.place.to)}
            </s>
            <span className="text-quiet">{words.overlap.words(match.words)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

import { useDeferredValue, useEffect, useMemo, useRef, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Draft } from '#core/model/work.ts';
import { changedMatches, figuresOf } from '#core/overlap/items.ts';
import { onlyReported } from '#core/overlap/reported.ts';
import type { Paper } from '#core/paper/paper.ts';
import type { Span } from '#core/text/span.ts';
import { Button, Empty } from '../../shared/controls/Controls.tsx';
import { Toggles } from '../../shared/controls/Toggles.tsx';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { useKeys } from '../../shared/page/hooks.ts';
import { shownDay } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { useOverlap, useSources, type ShownOverlap } from '../../workspace/state/overlap.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { Citations } from './Citations.tsx';
import { useChoice } from './choice.ts';
import { useChosenMatch, type ChosenMatch } from './choosing-match.ts';
import { Count } from './Count.tsx';
import { aboutMatch } from './decide-match.ts';
import { MatchCard } from './MatchCard.tsx';
import { MatchedText } from './MatchedText.tsx';
import { Gone, MatchList, OnlyReported } from './MatchLists.tsx';
import { References } from './References.tsx';
import { saveOverlap } from './save-overlap.ts';
import { AddSources, Sources } from './Sources.tsx';
import { Strip } from './Strip.tsx';

type Of = 'marked' | 'draft';

/** Room above the match in focus. */
const CARD_BELOW_PX = 12;

const withWords = (paper: Paper | undefined) => (paper === undefined || paper.text === '' ? null : paper);

/** What a paper shares with sources: its text with the matches, the figure and what it leaves out, each match beside its source. */
export function OverlapPlace() {
  const { work, marked, text, live } = useAssignment();
  const [asked, setAsked] = useSearchParams();
  const markedPaper = withWords(marked?.paper);
  const draftPaper = withWords(text?.paper);
  const wanted: Of = asked.get('of') === 'marked' || draftPaper === null ? 'marked' : 'draft';
  const of: Of = wanted === 'marked' && markedPaper === null ? 'draft' : wanted;
  const { id } = work.assignment;
  const ofMarked = useOverlap(`${id} marked`, markedPaper, useSources(work, 'marked'));
  const ofDraft = useOverlap(`${id} draft`, draftPaper, useSources(work, 'draft'));
  const isOpening = work.markedFile !== null && marked === null;
  if (markedPaper === null && draftPaper === null && !isOpening)
    return (
      <div className="p-8">
        <Empty>
          <b>{marked === null ? words.overlap.nothing : words.overlap.noWords}</b>{' '}
          {marked === null ? words.overlap.nothingLead : words.overlap.noWordsLead}
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
  return (
    <Compared
      view={work}
      shown={shown}
      placeOf={({ id: remark }) =>
        of === 'marked' ? (marked?.anchors[remark] ?? null) : (live?.byRemark.get(remark)?.place ?? null)
      }
      older={of === 'draft' ? ofMarked : null}
      draft={of === 'draft' && work.draft !== null && work.draft.bodyHash !== null ? work.draft : null}
      version={of === 'marked' ? words.overlap.marked : words.overlap.draft}
      choice={
        markedPaper !== null &&
        draftPaper !== null && (
          <Toggles
            label={words.overlap.of}
            options={[
              ['marked', words.overlap.marked],
              ['draft', words.overlap.draft],
            ]}
            chosen={of}
            onChoose={(next) => setAsked({ of: next }, { replace: true })}
          />
        )
      }
    />
  );
}

interface ComparedProps {
  readonly view: AssignmentView;
  readonly shown: ShownOverlap;
  /** Where a remark's words are in the text that is shown. */
  readonly placeOf: (remark: Remark) => Span | null;
  /** The marked version, beside a draft. */
  readonly older: ShownOverlap | null;
  /** The draft, where it is what is shown and is written here. */
  readonly draft: Draft | null;
  readonly version: string;
  readonly choice: ReactNode;
}

function Compared(props: ComparedProps) {
  const { paper, matches, sources } = props.shown;
  const focus = useChosenMatch(matches);
  return (
    <div className="grid h-full grid-cols-1 overflow-hidden max-md:grid-rows-2 md:grid-cols-[5.5rem_minmax(0,1fr)_minmax(24rem,34rem)]">
      <Strip paper={paper} matches={matches} chosen={focus.chosen} onChoose={focus.choose} />
      <MatchedText
        paper={paper}
        matches={matches}
        sources={sources}
        chosen={focus.chosen?.id ?? null}
        place={focus.place}
        onChoose={focus.choose}
      />
      <Panel {...props} focus={focus} />
    </div>
  );
}

/** Beside the text: the figure, the match in focus, all of them, what it was compared with, and its citations. */
function Panel({
  view,
  shown,
  placeOf,
  older,
  draft,
  version,
  choice,
  focus,
}: ComparedProps & { focus: ChosenMatch }) {
  const workspace = useWorkspace();
  const choosing = useChoice(view);
  const { counting, aside } = choosing;
  const { matches, counted, overlap, sources, paper } = shown;
  const { chosen, choose, step } = focus;
  const figures = useMemo(
    () => figuresOf(overlap, counted, sources, counting, aside),
    [overlap, counted, sources, counting, aside],
  );
  const changed = useMemo(
    () => (older === null ? null : changedMatches(older.matches, matches)),
    [older, matches],
  );
  const about = chosen === null ? null : aboutMatch(workspace, view, shown, chosen, placeOf);
  useKeys({
    n: () => step(1, matches),
    p: () => step(-1, matches),
    s: () =>
      step(
        1,
        matches.filter(({ sourceId }) => sourceId === chosen?.sourceId),
      ),
    a: () => about?.decide('act'),
    q: () => about?.decide('ask'),
    k: () => about?.decide('keep'),
    d: () => about?.decide('decline'),
  });
  // What is below the fold comes once the text is there.
  const isRestDue = useDeferredValue(true, false);
  const compared = words.overlap.compared(version, sources.length, shownDay(workspace.now(), undefined));
  return (
    <div
      ref={useCardInSight(chosen?.id ?? null)}
      className="relative overflow-auto border-rule p-5 max-md:border-t max-md:p-4 md:border-l"
    >
      <div className="grid grid-cols-1 gap-5">
        {choice}
        {sources.length > 0 && <Count figures={figures} choosing={choosing} />}
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
        {sources.length === 0 ? (
          <Empty>
            <b>{words.overlap.noSources}</b> {words.overlap.noSourcesLead}
            <AddSources view={view} />
          </Empty>
        ) : (
          <MatchList shown={shown} chosen={chosen} fresh={changed?.fresh ?? null} onChoose={choose} />
        )}
        {changed !== null && older !== null && <Gone gone={changed.gone} older={older} />}
        <OnlyReported remarks={onlyReported(matches, view.remarks, placeOf)} />
        {sources.length > 0 && isRestDue && (
          <Sources view={view} shown={shown} figures={figures} choosing={choosing} onChoose={choose} />
        )}
        {isRestDue && (
          <Citations paper={paper} onShow={focus.show}>
            <References paper={paper} draft={draft} />
          </Citations>
        )}
        {sources.length > 0 && (
          <footer className="text-sm text-quiet">
            <p>{compared}</p>
            <Button
              className="mt-2"
              onClick={() => saveOverlap(workspace, view, shown, figures, choosing, compared)}
            >
              {words.overlap.save}
            </Button>
          </footer>
        )}
      </div>
    </div>
  );
}

/** Brings the card of the match in focus into sight, within what scrolls. */
function useCardInSight(chosenId: string | null) {
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const card = panel.current?.querySelector<HTMLElement>('[data-card]');
    if (chosenId === null || panel.current === null || card === undefined || card === null) return;
    const { scrollTop, clientHeight } = panel.current;
    const isInSight =
      card.offsetTop >= scrollTop && card.offsetTop + card.offsetHeight <= scrollTop + clientHeight;
    if (!isInSight) panel.current.scrollTo({ top: card.offsetTop - CARD_BELOW_PX });
  }, [chosenId]);
  return panel;
}

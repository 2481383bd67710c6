import { Explained } from '../controls/Explained.tsx';
import { useIsCut } from '../page/hooks.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { memo, type ReactNode } from 'react';
import { toast } from 'sonner';
import { Link } from 'react-router';
import { pageOf, quotedWords, type Remark } from '#core/model/remark.ts';
import type { Judgement } from '#core/model/work.ts';
import { partsOf } from '#core/saying/remark-parts.ts';
import { stanceOf, weightiestOf } from '#core/saying/saying-of.ts';
import { decisionsIn } from '#core/tally/decided.ts';
import { isRead } from '#core/tally/tally.ts';
import { saidBy } from './said.ts';
import { CriterionChoice } from './CriterionChoice.tsx';
import { PointsBehind } from './PointsBehind.tsx';
import { PartsBar } from './PartsBar.tsx';
import { PartsSaid } from './PartsSaid.tsx';
import { SlipExtras } from './SlipExtras.tsx';
import * as words from '../../words/en.ts';
import { behindOf, criterionFor, hundredths, tenths, type AssignmentView } from '#core/assignment/view.ts';
import { markRead } from '../../workspace/commands/reading.ts';
import { NoteField, StanceChoice } from './Judging.tsx';
import { decisionLook } from './decision-look.ts';
import { DecisionButtons, DecisionSign } from './Decisions.tsx';
import { ReplyField, Thread } from './Thread.tsx';
import { criterionAddress } from '../page/addresses.ts';

/** Longer remarks are folded until they are opened or in focus. */
const FOLD_CHARACTERS = 320;

/** Puts a remark into the clipboard with the words it is about and their page. */
async function copyRemark(remark: Remark): Promise<void> {
  await navigator.clipboard.writeText(
    words.slip.copyOf(saidBy(remark), remark.author.name, quotedWords(remark), pageOf(remark)),
  );
  toast(words.reading.copied);
}

/** The panel that shows one remark: who, what, about which words, its points, and what was decided. */
export const Slip = memo(function Slip({
  view,
  remark,
  focused,
  onFocus,
  compact = false,
  unfolded,
  onUnfold,
  fold,
  extra,
}: {
  view: AssignmentView;
  remark: Remark;
  focused: boolean;
  onFocus: (id: string) => void;
  /** One line until it is in focus: it stands among many. */
  compact?: boolean;
  /** Whether a long one stands in full though it isn't in focus. */
  unfolded: boolean;
  onUnfold: (id: string, open: boolean) => void;
  /** Others by the same rule of a machine that stand folded under it. */
  fold?: { readonly key: string; readonly count: number; readonly open: boolean } | undefined;
  extra?: ReactNode;
}) {
  const workspace = useWorkspace();
  const judgement = view.judgements.get(remark.id);
  const read = isRead(remark, view.readings.get(remark.id));
  const number = view.numberByRemark.get(remark.id) ?? 0;
  const position = words.slip.position(number, quotedWords(remark), pageOf(remark));
  const long = saidBy(remark).length > FOLD_CHARACTERS;
  const mayFold = long && !unfolded && !focused;
  const [text, isCut] = useIsCut<HTMLParagraphElement>();
  // What is all in sight is not folded, however long it is.
  const folded = mayFold && isCut;
  const others = fold !== undefined && (
    <button
      type="button"
      className="shrink-0 text-sm font-semibold text-accent hover:underline"
      aria-expanded={fold.open}
      onClick={(event) => {
        event.stopPropagation();
        onUnfold(fold.key, !fold.open);
      }}
    >
      {fold.open ? words.slip.foldRule : words.slip.ofRule(fold.count)}
    </button>
  );
  if (compact && !focused)
    return (
      <SlipLine view={view} remark={remark} onFocus={onFocus}>
        {others}
      </SlipLine>
    );
  return (
    <article
      data-slip={remark.id}
      data-folded={folded}
      aria-label={position}
      aria-current={focused ? 'true' : undefined}
      onClick={() => onFocus(remark.id)}
      className={clsx(
        'rounded-lg border border-l-[3px] bg-surface px-3.5 py-2.5',
        focused ? 'border-ink shadow-(--shadow)' : 'border-rule',
        edgeOf(judgement),
      )}
    >
      <SlipHeader view={view} remark={remark} focused={focused} />
      {focused && <About remark={remark} />}
      <p ref={text} className={clsx('mt-1 whitespace-pre-wrap', mayFold && 'line-clamp-4')}>
        <PartsSaid view={view} remark={remark} explained={focused} />
      </p>
      {(remark.replies.length > 0 || remark.state !== null) && <Thread remark={remark} open={focused} />}
      {!focused && judgement !== undefined && judgement.reply !== '' && (
        <p className="mt-1 line-clamp-2 border-l border-rule-strong pl-3 text-sm">
          {words.slip.replied(judgement.reply)}
        </p>
      )}
      <SlipExtras view={view} remark={remark} focused={focused} />
      {others}
      {(folded || (long && unfolded && !focused)) && (
        <button
          type="button"
          className="mt-1 text-sm font-semibold text-accent hover:underline"
          onClick={(event) => {
            event.stopPropagation();
            onUnfold(remark.id, !unfolded);
          }}
        >
          {folded ? words.slip.showAll : words.slip.fold}
        </button>
      )}
      {focused && (
        <>
          <div className="mt-2 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1 border-t border-dashed border-rule pt-2 text-sm text-quiet">
            <StanceChoice view={view} remark={remark} />
            <CriterionChoice view={view} remark={remark} />
            <PointsBehind view={view} remark={remark} />
            <button type="button" className="hover:underline" onClick={() => void copyRemark(remark)}>
              {words.reading.copy}
            </button>
            <button
              type="button"
              className="hover:underline"
              onClick={() => void markRead(workspace, remark, !read)}
            >
              {read ? words.slip.unread : words.slip.markRead}
            </button>
            <PartsBar view={view} remark={remark} />
          </div>
          <div className="mt-2">
            <DecisionButtons view={view} remark={remark} />
          </div>
          <NoteField view={view} remark={remark} />
          <ReplyField view={view} remark={remark} />
          {extra}
        </>
      )}
    </article>
  );
});

function About({ remark }: { remark: Remark }) {
  const quote = quotedWords(remark);
  // A change shows its words itself.
  if (quote === null || remark.change !== null) return null;
  return <p className="mt-1 line-clamp-3 font-serif text-sm text-quiet italic">“{quote}”</p>;
}

/** One line for a remark among many. */
function SlipLine({
  view,
  remark,
  onFocus,
  children,
}: {
  view: AssignmentView;
  remark: Remark;
  onFocus: (id: string) => void;
  children?: ReactNode;
}) {
  const judgement = view.judgements.get(remark.id);
  const number = view.numberByRemark.get(remark.id) ?? 0;
  const read = isRead(remark, view.readings.get(remark.id));
  return (
    <article
      data-slip={remark.id}
      data-folded
      aria-label={words.slip.position(number, quotedWords(remark), pageOf(remark))}
      onClick={() => onFocus(remark.id)}
      className={clsx(
        'flex items-baseline gap-2 rounded-lg border border-l-[3px] border-rule px-2.5 py-1.5 text-sm',
        remark.author.role === 'machine' ? 'border-dashed bg-paper text-quiet' : 'bg-surface',
        edgeOf(judgement),
      )}
    >
      <span className="text-quiet" aria-hidden>
        {number}
      </span>
      <button type="button" className={clsx('min-w-0 flex-1 truncate text-left', !read && 'font-semibold')}>
        {saidBy(remark)}
      </button>
      {children}
      <DecisionSign judgement={judgement} />
    </article>
  );
}

/** Who said it, what kind of remark it is, about which criterion, its points, and where it stands. */
function SlipHeader({ view, remark, focused }: { view: AssignmentView; remark: Remark; focused: boolean }) {
  const judgement = view.judgements.get(remark.id);
  const criterion = criterionFor(view, remark);
  const behind = behindOf(view, remark.id);
  const read = isRead(remark, view.readings.get(remark.id));
  return (
    <header className="flex flex-wrap items-center gap-x-3 text-sm">
      <b className="whitespace-nowrap">{remark.author.name}</b>
      {remark.author.role !== 'instructor' && (
        <span className="whitespace-nowrap text-quiet">{words.shelf.roles[remark.author.role]}</span>
      )}
      <span className={clsx('whitespace-nowrap text-quiet', !judgement?.stance && 'italic')}>
        <span className="sr-only">{words.slip.saysLabel}: </span>
        <Says view={view} remark={remark} />
      </span>
      {criterion !== null && (
        <Link
          to={criterionAddress(view.assignment.id, criterion.id)}
          aria-label={`${criterion.title}: ${words.rubric.toCriterion}`}
          className="min-w-0 truncate text-quiet hover:text-ink hover:underline"
        >
          {criterion.title}
        </Link>
      )}
      {criterion === null && behind?.loss.proposed.has(remark.id) === true && (
        <span className="min-w-0 truncate text-quiet italic">
          {words.rubric.perhapsOn(behind.loss.title)}
        </span>
      )}
      {!focused && behind !== null && behind.share > 0 && (
        <Explained className="whitespace-nowrap text-quiet" text={words.rubric.behindTitle}>
          {words.rubric.behindShort(
            behind.loss.named.has(remark.id)
              ? hundredths(behind.share)
              : words.rubric.about(tenths(behind.share)),
          )}
        </Explained>
      )}
      <span className="ml-auto inline-flex items-center gap-2">
        {!read && <b className="whitespace-nowrap">{words.slip.notRead}</b>}
        <DecisionSign judgement={judgement} />
        <span className="text-quiet" aria-hidden>
          {view.numberByRemark.get(remark.id) ?? 0}
        </span>
      </span>
    </header>
  );
}

/** The colour of a slip's left edge says what was decided. */
function edgeOf(judgement: Judgement | undefined): string {
  const [first = null] = decisionsIn(judgement);
  return first === null ? 'border-l-rule-strong' : decisionLook[first].edge;
}

/** What the remark says, in a word; "perhaps" where a proposal isn't sure; how many things there are in it. */
function Says({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const stance = stanceOf(remark.id, view);
  if (stance === null) return words.slip.saysNotKnown;
  const judgement = view.judgements.get(remark.id);
  const said = judgement?.stance ?? weightiestOf(judgement);
  const sure = said !== null || view.sayings.get(remark.id)?.sure === true;
  const things = partsOf(remark, view).length;
  return (
    <>
      {words.slip.says(words.stances[stance], sure)}
      {things > 1 && `, ${words.slip.things(things)}`}
    </>
  );
}

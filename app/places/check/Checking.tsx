import { Fold } from '../../shared/controls/Fold.tsx';
import { changedAgain } from '#core/answers/picks.ts';
import type { Unanswered as Reason } from '#core/check/answered.ts';
import type { Remark } from '#core/model/remark.ts';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { stationOf } from '#core/assignment/line.ts';
import type { WorkKind } from '#core/model/work-kind.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { blocksOfLines, paperOf, type Paper } from '#core/paper/paper.ts';
import { usePosts } from '../../workspace/state/posts.ts';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import { FilesChecked, ItemsChecked, Readiness } from './Made.tsx';
import { useAssignment, type AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { saidBy } from '../../shared/remark/said.ts';
import * as words from '../../words/en.ts';
import { assignmentAddress, criterionAddress } from '../../shared/page/addresses.ts';
import { Carried } from '../../shared/remark/Carried.tsx';
import { aimsOf } from '#core/assignment/aims.ts';
import { carriedIn } from '#core/assignment/carried.ts';
import { useLastLook } from '../../workspace/state/last-look.ts';
import { useAllViews } from '../../workspace/state/use-views.ts';
import { Asked } from './Asked.tsx';
import { ComparedRowsOf } from '../../shared/compare/ComparedRows.tsx';
import { Compare } from './Compare.tsx';
import { LastLook } from './LastLook.tsx';

/** Work that something can be counted in, or looked for. */
const IS_TEXT: ReadonlySet<WorkKind> = new Set<WorkKind>(['paper', 'posts']);

/** The last look: what is not answered, what the requirements say, and both versions word by word. */
export function Checking() {
  const outlet = useAssignment();
  const paper = outlet.text?.paper ?? null;
  const look = useLastLook(outlet.work, paper, outlet.marked?.paper ?? null);
  return (
    <div className="mx-auto grid grid-cols-1 max-w-[80rem] gap-9 p-6 max-md:p-4 lg:grid-cols-[22rem_minmax(0,1fr)]">
      <div className="grid grid-cols-1 content-start gap-8">
        <Unanswered outlet={outlet} />
        {IS_TEXT.has(outlet.view.kind) && (
          <Asked view={outlet.view} paper={paper} counts={look?.counts ?? null} />
        )}
        {paper !== null && <LastLook view={outlet.view} look={look} />}
        <KeepInMind view={outlet.view} paper={paper} />
        {outlet.text !== null && (
          <section>
            <SectionTitle>{words.overlap.title}</SectionTitle>
            <Link
              to={assignmentAddress(outlet.view.assignment.id, 'overlap', { of: 'draft' })}
              className="inline-flex min-h-9 items-center font-semibold text-accent hover:underline"
            >
              {words.overlap.openDraft}
            </Link>
          </section>
        )}
        {outlet.work.remarks.length > 0 && (
          <section>
            <SectionTitle>{words.response.place}</SectionTitle>
            <Link
              to={assignmentAddress(outlet.view.assignment.id, 'response')}
              className="inline-flex min-h-9 items-center font-semibold text-accent hover:underline"
            >
              {words.response.open}
            </Link>
          </section>
        )}
        <Link
          to={assignmentAddress(outlet.view.assignment.id, 'send')}
          className="inline-flex min-h-9 w-fit items-center rounded-md bg-accent px-3 font-semibold text-on-accent hover:opacity-90"
        >
          {words.check.toSend}
        </Link>
      </div>
      <Made outlet={outlet} />
    </div>
  );
}

/** What was made for the next attempt, as far as it can be looked over here. */
function Made({ outlet }: { outlet: AssignmentOutlet }) {
  const { view, work, live, marked } = outlet;
  const { means } = stationOf(view, 'check');
  if (means === 'readiness') return <Readiness view={view} />;
  if (means === 'answers and files') return <FilesChecked outlet={outlet} />;
  if (means === 'answers by item') return <ItemsChecked view={view} />;
  return (
    <section className="min-w-0">
      <SectionTitle>{words.check.compareTitle}</SectionTitle>
      <div className="mt-3">
        {live === null ? (
          <StationNotice view={view} station="check" />
        ) : means === 'answers and post' ? (
          <PostCompared view={view} after={live.paper} />
        ) : work.markedFile === null ? (
          <Empty>{words.check.fromNothing}</Empty>
        ) : (
          marked !== null && <Compare view={work} now={live.paper} marked={marked} />
        )}
      </div>
    </section>
  );
}

/** The new post beside the own one that it takes the place of. */
function PostCompared({ view, after }: { view: AssignmentView; after: Paper }) {
  const posts = usePosts(view);
  const betters = view.draft?.post?.betters ?? null;
  const before = useMemo(() => {
    const own = posts?.find(({ id }) => id === betters);
    return own === undefined ? null : paperOf(blocksOfLines(own.text));
  }, [posts, betters]);
  return before === null ? (
    <Empty>{words.check.fromNothing}</Empty>
  ) : (
    <ComparedRowsOf older={before} newer={after} margin={null} />
  );
}

/** The reasons in the order in which they are seen to: what is not begun comes before what is nearly done. */
const REASONS: readonly Reason[] = [
  'undecided',
  'no answer yet',
  'ticked without an answer',
  'not asked yet',
];

function Unanswered({ outlet: { work: view, answers, live } }: { outlet: AssignmentOutlet }) {
  const again = useMemo(
    () => changedAgain(view.given.values(), live?.picks ?? new Map()).map(({ remarkId }) => remarkId),
    [view, live],
  );
  const changed = view.remarks.filter(({ id }) => again.includes(id));
  const open = view.remarks.flatMap((remark) => {
    const answer = answers.get(remark.id);
    return answer === undefined || answer.answered ? [] : [{ remark, because: answer.because }];
  });
  return (
    <section>
      <SectionTitle>{words.check.unansweredTitle}</SectionTitle>
      <p className="mt-1 text-sm text-quiet">
        {open.length === 0 ? words.check.allAnswered : words.check.unansweredLead(open.length)}
      </p>
      {REASONS.map((reason) => {
        const own = open.filter(({ because }) => because === reason);
        if (own.length === 0) return null;
        return (
          <Fold
            key={reason}
            className="mt-3 border-t border-rule pt-2"
            defaultOpen={open.length <= FEW || reason !== 'undecided'}
            label={words.check.reason(words.unanswered[reason], own.length)}
          >
            <ul>
              {own.map(({ remark }) => (
                <OpenRemark key={remark.id} view={view} remark={remark} because={reason} />
              ))}
            </ul>
          </Fold>
        );
      })}
      {changed.length > 0 && (
        <Fold
          className="mt-3 border-t border-rule pt-2"
          defaultOpen
          label={words.check.reason(words.check.changedAgain, changed.length)}
        >
          <ul>
            {changed.map((remark) => (
              <OpenRemark key={remark.id} view={view} remark={remark} because="no answer yet" />
            ))}
          </ul>
        </Fold>
      )}
    </section>
  );
}

/** So many are shown at once, whatever their reason. */
const FEW = 12;

function OpenRemark({ view, remark, because }: { view: AssignmentView; remark: Remark; because: Reason }) {
  const isElsewhere = because === 'undecided' || because === 'not asked yet';
  return (
    <li className="border-b border-rule last:border-b-0">
      <Link
        to={assignmentAddress(
          // It is decided about where it was made; what is done about it is done here.
          isElsewhere ? remark.assignmentId : view.assignment.id,
          because === 'undecided' ? 'decide' : because === 'not asked yet' ? 'read' : 'revise',
          { remark: remark.id },
        )}
        className="flex gap-3 py-2 hover:underline"
      >
        <span className="w-5 shrink-0 text-right text-sm text-quiet">
          {view.numberByRemark.get(remark.id)}
        </span>
        <span className="line-clamp-2 min-w-0">{saidBy(remark)}</span>
      </Link>
    </li>
  );
}

/** What was carried on from earlier work of the course, and the levels that are aimed at. */
function KeepInMind({ view, paper }: { view: AssignmentView; paper: Paper | null }) {
  const all = useAllViews();
  const aims = useMemo(() => aimsOf(view, paper), [view, paper]);
  const isAnyCarried = carriedIn(view, all).length > 0;
  if (aims.length === 0 && !isAnyCarried) return null;
  return (
    <section>
      <SectionTitle>{words.look.keepInMind}</SectionTitle>
      <Carried view={view} all={all} />
      <ul>
        {aims.map(({ criterion, level, done, of }) => (
          <li key={criterion.id} className="py-1">
            <Link to={criterionAddress(view.assignment.id, criterion.id)} className="hover:underline">
              {words.look.aimedAt(criterion.title, level, done, of)}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

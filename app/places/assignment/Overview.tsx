import { Fold } from '../../shared/controls/Fold.tsx';
import { scoreChangeTold } from '../../shared/line/state-words.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { Link } from 'react-router';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { channelAddress, TallyChips } from '../../shared/line/TallyChips.tsx';
import * as words from '../../words/en.ts';
import { changedUnread, isGoneThrough, type AssignmentView } from '#core/assignment/view.ts';
import { markAllRead, markScoreSeen } from '../../workspace/commands/reading.ts';
import { RemarkLines } from '../../shared/remark/RemarkLines.tsx';
import { Attempts } from './Attempts.tsx';
import { Awaited } from './Awaited.tsx';
import { Promises } from './Promises.tsx';
import { Rules } from './Rules.tsx';
import { Stages } from './Stages.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** The assignment as a whole: what came back, its attempts, and what the rules say. */
export function Overview() {
  const { view, work, text } = useAssignment();
  const isWritten = view.kind === 'paper' || view.kind === 'posts';
  return (
    <div className="h-full overflow-auto">
      <div className="mx-auto grid grid-cols-1 max-w-5xl gap-9 p-6 max-md:p-4 md:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="grid grid-cols-1 content-start gap-8">
          <CameBack view={view} />
          <Awaited view={view} />
          <Changes view={view} />
          <Promises view={view} />
          <Stages view={view} />
          <Attempts view={view} />
          {isWritten && (work.markedFile !== null || text !== null) && (
            <Further
              title={words.overlap.title}
              lead={words.overlap.openLead}
              to={assignmentAddress(view.assignment.id, 'overlap')}
              open={words.overlap.open}
            />
          )}
          <Further
            title={words.takeAlong.title}
            lead={words.takeAlong.openLead}
            to={assignmentAddress(view.assignment.id, 'take')}
            open={words.takeAlong.open}
          />
          {view.assignment.brief !== '' && (
            <section>
              <SectionTitle>{words.assignment.brief}</SectionTitle>
              <p className="mt-2 max-w-prose font-serif">{view.assignment.brief}</p>
            </section>
          )}
        </div>
        <Rules view={view} />
      </div>
    </div>
  );
}

/** A place of the assignment beside its line. */
function Further({ title, lead, to, open }: { title: string; lead: string; to: string; open: string }) {
  return (
    <section>
      <SectionTitle>{title}</SectionTitle>
      <p className="mt-1 text-quiet">{lead}</p>
      <Link
        to={to}
        className="mt-2 inline-flex min-h-9 items-center font-semibold text-accent hover:underline"
      >
        {open}
      </Link>
    </section>
  );
}

function CameBack({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const { tally, assignment, contradictions, course } = view;
  const first = tally.byChannel.find((c) => c.received > c.read);
  const mainLink =
    'inline-flex min-h-9 items-center rounded-md bg-accent px-3 font-semibold text-on-accent hover:opacity-90';
  const undecided = tally.decided < tally.received;
  return (
    <section>
      <SectionTitle>{words.assignment.cameBack}</SectionTitle>
      {contradictions.map((kind) => (
        <p key={kind} className="mt-2 border-l-2 border-rule-strong pl-3">
          {words.contradictions[kind](course?.title ?? '')}
        </p>
      ))}
      {tally.byChannel.length === 0 ? (
        <p className="mt-2 text-quiet">{words.assignment.nothingBack}</p>
      ) : (
        <>
          <div className="mt-3">
            <TallyChips view={view} decided />
          </div>
          <div className="mt-4 flex flex-wrap items-center gap-3">
            {first !== undefined && (
              <Link to={channelAddress(view, first.channel)} className={mainLink}>
                {tally.read === 0 ? words.assignment.startReading : words.assignment.goOn}
              </Link>
            )}
            {first === undefined && undecided && (
              <Link to={assignmentAddress(assignment.id, 'decide')} className={mainLink}>
                {words.assignment.startDeciding}
              </Link>
            )}
            {!isGoneThrough(view) && (
              <Button look="quiet" onClick={() => void markAllRead(workspace, view)}>
                {words.assignment.markAllRead}
              </Button>
            )}
          </div>
        </>
      )}
    </section>
  );
}

/** What the school changed after it had returned it, with what stood before; and what it took back. */
function Changes({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const { scoreChange, withdrawn, assignment } = view;
  const changed = view.remarks.filter(({ before }) => before !== null);
  if (scoreChange === null && changed.length === 0 && withdrawn.length === 0) return null;
  const unread = new Set(changedUnread(view).map(({ id }) => id));
  return (
    <section>
      <SectionTitle>{words.assignment.changes}</SectionTitle>
      {scoreChange !== null && (
        <p className="mt-2 flex flex-wrap items-baseline gap-x-4">
          <b>{scoreChangeTold(view)}</b>
          {!scoreChange.seen && (
            <Button
              look="quiet"
              className="min-h-0 px-1 py-0"
              onClick={() => void markScoreSeen(workspace, assignment.id, scoreChange)}
            >
              {words.arrivals.seen}
            </Button>
          )}
        </p>
      )}
      <RemarkLines view={view} remarks={changed} bold={unread} />
      {withdrawn.length > 0 && (
        <Fold
          className="mt-2"
          labelClass="text-quiet"
          label={words.assignment.withdrawnRemarks(withdrawn.length)}
        >
          <ul className="mt-1">
            {withdrawn.map((remark) => (
              <li key={remark.id} className="border-t border-rule py-2 text-sm line-through">
                {remark.text}
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </section>
  );
}

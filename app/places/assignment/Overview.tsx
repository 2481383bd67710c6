import { Link } from 'react-router';
import { fromDecimal, multiply, toShown } from '#core/scores/fraction.ts';
import { useAssignment } from '../../shared/assignment-outlet.ts';
import { Button, SectionTitle } from '../../shared/Controls.tsx';
import { shownMoment, shownPercent } from '../../shared/shown.ts';
import { channelAddress, TallyChips } from '../../shared/TallyChips.tsx';
import { words } from '../../words/en.ts';
import type { AssignmentView, MarkedAttempt } from '../../workspace/assignment-view.ts';
import { markAllRead } from '../../workspace/decide.ts';

/** The assignment as a whole: what came back, its attempts, and what the rules say. */
export function Overview() {
  const { view } = useAssignment();
  return (
    <div className="mx-auto grid grid-cols-1 max-w-5xl gap-9 p-6 max-md:p-4 md:grid-cols-[minmax(0,1fr)_19rem]">
      <div className="grid content-start gap-8">
        <CameBack view={view} />
        <Attempts view={view} />
        {view.assignment.brief !== '' && (
          <section>
            <SectionTitle>{words.assignment.brief}</SectionTitle>
            <p className="mt-2 max-w-prose font-serif">{view.assignment.brief}</p>
          </section>
        )}
      </div>
      <Rules view={view} />
    </div>
  );
}

function CameBack({ view }: { view: AssignmentView }) {
  const { tally, assignment } = view;
  const first = tally.byChannel.find((c) => c.received > c.read);
  const base = `/a/${encodeURIComponent(assignment.id)}`;
  const mainLink =
    'inline-flex min-h-9 items-center rounded-md bg-accent px-3 font-semibold text-on-accent hover:opacity-90';
  return (
    <section>
      <SectionTitle>{words.assignment.cameBack}</SectionTitle>
      {tally.received === 0 ? (
        <p className="mt-2 text-quiet">{words.assignment.nothingBack}</p>
      ) : (
        <>
          <div className="mt-3">
            <TallyChips view={view} />
          </div>
          <div className="mt-4 flex flex-wrap items-center gap-3">
            {first !== undefined ? (
              <>
                <Link to={channelAddress(view, first.channel)} className={mainLink}>
                  {tally.read === 0 ? words.assignment.startReading : words.assignment.goOn}
                </Link>
                <Button look="quiet" onClick={() => void markAllRead(assignment.id, view.remarks)}>
                  {words.assignment.markAllRead}
                </Button>
              </>
            ) : (
              view.state.kind === 'open for another attempt' && (
                <Link to={`${base}/decide`} className={mainLink}>
                  {words.assignment.startDeciding}
                </Link>
              )
            )}
          </div>
        </>
      )}
    </section>
  );
}

function Attempts({ view: { attempts, course, assignment } }: { view: AssignmentView }) {
  if (attempts.length === 0) return null;
  return (
    <section>
      <SectionTitle>{words.assignment.attempts}</SectionTitle>
      <ol className="mt-2">
        {attempts.map((each) => (
          <li
            key={each.attempt.id}
            className="flex flex-wrap justify-between gap-x-6 border-t border-rule py-2.5"
          >
            <AttemptFacts each={each} zone={course?.zone} />
            {each.marking !== null && each.marking.score !== null && assignment.possible !== null && (
              <b>{words.assignment.of(each.marking.score, assignment.possible)}</b>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

function AttemptFacts({
  each: { attempt, marking },
  zone,
}: {
  each: MarkedAttempt;
  zone: string | undefined;
}) {
  return (
    <div>
      <b>{words.assignment.attempt(attempt.number)}</b>
      <p className="text-sm text-quiet">
        {words.assignment.sent(shownMoment(attempt.at, zone))} ·{' '}
        {marking === null
          ? words.assignment.notMarked
          : words.assignment.markedBy(marking.marker.name, shownMoment(marking.at, zone))}
      </p>
      {attempt.receipt !== null && (
        <p className="text-sm text-quiet">
          {words.assignment.receipt} {attempt.receipt.id}
        </p>
      )}
    </div>
  );
}

function Rules({ view: { assignment, course } }: { view: AssignmentView }) {
  const { policy, possible, requirements, counts, attemptsAllowed, dueAt, closesAt } = assignment;
  if (course === null)
    return (
      <p className="text-sm text-quiet">
        {words.assignment.rule.ownPaper}. {words.assignment.removed}
      </p>
    );
  const rows: string[] = [
    ...(dueAt === null ? [] : [words.assignment.ruleDue(shownMoment(dueAt, course.zone))]),
    words.assignment.ruleAttempts(attemptsAllowed),
    ...(closesAt === null
      ? []
      : [words.assignment.rule.openAgain(words.assignment.ordinals[1], shownMoment(closesAt, course.zone))]),
    ...(policy.kind === 'capped' && possible !== null
      ? [
          words.assignment.ruleCap(
            shownPercent(policy.cap),
            toShown(multiply(fromDecimal(policy.cap), fromDecimal(possible)), 2),
          ),
        ]
      : []),
    ...(requirements.wordsMin !== null && requirements.wordsMax !== null
      ? [words.assignment.ruleWords(requirements.wordsMin, requirements.wordsMax)]
      : []),
    ...(attemptsAllowed > 1 ? [words.assignment.ruleFormat] : []),
    ...(counts === null ? [] : [`${words.assignment.counts} ${counts}`]),
  ];
  return (
    <aside>
      <SectionTitle>{words.assignment.rules}</SectionTitle>
      <ul className="mt-2">
        {rows.map((row) => (
          <li key={row} className="border-t border-rule py-2 text-sm">
            {row}
          </li>
        ))}
      </ul>
    </aside>
  );
}

import type { Marking } from '#core/model/facts.ts';
import { markerShown } from '../../shared/line/state-words.ts';
import { shownPoints } from '../../shared/shown/figures.ts';
import { useNow, useWorkspace } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { FileRow } from '../../shared/files/FileRow.tsx';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { lateRuleOf } from '#core/scores/rules.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { scoreOfAttempt, latenessOf, standing, type MarkedAttempt } from '#core/assignment/attempts.ts';
import { removeOutsideAttempt, takeAttemptBack } from '../../workspace/commands/own-attempts.ts';
import { OutsideAttempt } from './OutsideAttempt.tsx';

/** Every attempt as it stood: files, note, receipt, markings, reports. */
export function Attempts({ view }: { view: AssignmentView }) {
  return (
    <section>
      <SectionTitle>{words.assignment.attempts}</SectionTitle>
      <ol className="mt-2">
        {view.attempts.map((each) => (
          <li key={each.attempt.id} className="border-t border-rule py-3">
            <Attempt view={view} each={each} />
          </li>
        ))}
      </ol>
      <OutsideAttempt view={view} />
    </section>
  );
}

/** A marking that is only the frame of what was taken in tells nothing. */
function isTold({ marker, score, result, groupScore, byHand, criteria }: Marking): boolean {
  const given = score !== null || result !== null || groupScore !== null || criteria.length > 0;
  return given || (!byHand && markerShown(marker.name) !== '');
}

function Attempt({ view, each }: { view: AssignmentView; each: MarkedAttempt }) {
  const workspace = useWorkspace();
  const { assignment, course } = view;
  const { attempt, marking, withdrawn, missing } = each;
  const zone = course?.zone;
  const late = latenessOf(each, assignment, view.course);
  const counted = scoreOfAttempt(each, assignment, view.course);
  const facts = [
    missing
      ? words.assignment.noAttempt
      : attempt.atKnown
        ? words.assignment.sent(shownMoment(attempt.at, zone))
        : words.assignment.takenIn(shownMoment(attempt.at, zone)),
    late === null ? '' : words.assignment.lateBy(late.hours),
    late === null || lateRuleOf(assignment, view.course) === null
      ? ''
      : words.assignment.pointsOff(shownPoints(late.deduction)),
    attempt.outside ? words.assignment.outside : '',
    marking === null && attempt.atKnown ? words.assignment.notMarked : '',
    withdrawn === null ? '' : words.assignment.withdrawnAt(shownMoment(withdrawn.at, zone)),
  ];
  const files = [...attempt.files, ...(marking?.files ?? [])];
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <b>{words.assignment.attempt(attempt.number)}</b>
        {counted !== null && assignment.possible !== null && (
          <b>{words.assignment.of(shownPoints(counted), assignment.possible)}</b>
        )}
      </div>
      <p className="text-sm text-quiet">{facts.filter(Boolean).join(' · ')}</p>
      {each.markings.filter(isTold).map((one, index) => (
        <p key={one.id} className="text-sm text-quiet">
          {words.assignment.markings(
            one.byHand ? words.assignment.putInByYou : one.marker.name,
            shownMoment(one.at, zone),
            one.score ?? one.result ?? one.groupScore ?? words.assignment.noScoreYet,
          )}
          {index > 0 && ` · ${words.assignment.corrected}`}
        </p>
      ))}
      {attempt.receipt !== null && (
        <p className="text-sm text-quiet">
          {words.assignment.receipt} {attempt.receipt.id}
        </p>
      )}
      {attempt.note !== '' && (
        <p className="mt-1 text-sm">
          {words.assignment.note}: <span className="font-serif">{attempt.note}</span>
        </p>
      )}
      {files.length > 0 && (
        <ul aria-label={words.assignment.files} className="mt-1.5">
          {files.map((file) => (
            <FileRow key={`${file.role} ${file.hash}`} view={view} file={file} />
          ))}
        </ul>
      )}
      <Withdrawing view={view} each={each} />
      {attempt.outside && (
        <Button
          look="quiet"
          className="mt-1 min-h-0 px-0 py-0 text-sm"
          onClick={() => void removeOutsideAttempt(workspace, attempt)}
        >
          {words.assignment.outsideRemove}
        </Button>
      )}
    </>
  );
}

/** One that was sent by mistake, taken back where the rules still allow it. */
function Withdrawing({ view, each }: { view: AssignmentView; each: MarkedAttempt }) {
  const atMs = useNow();
  const workspace = useWorkspace();
  const [sure, setSure] = useState(false);
  const { assignment, course, attempts } = view;
  const until = assignment.withdrawableUntil;
  const latest = standing(attempts).at(-1);
  const allowed =
    until !== null &&
    Date.parse(until) > atMs &&
    each === latest &&
    each.marking === null &&
    !each.attempt.outside;
  if (!allowed) return null;
  const takeBack = async () => {
    setSure(false);
    const answer = await takeAttemptBack(workspace, each.attempt);
    if (answer.kind === 'ok') toast(words.assignment.withdrawDone);
    else
      toast.error(
        answer.kind === 'refused'
          ? words.assignment.withdrawFailed(answer.why)
          : words.assignment.withdrawNotReached,
      );
  };
  return (
    <>
      <Button
        look="quiet"
        className="mt-1 min-h-0 px-0 py-0 text-sm font-semibold"
        onClick={() => setSure(true)}
      >
        {words.assignment.withdraw}
      </Button>
      <Dialog
        open={sure}
        onClose={() => setSure(false)}
        title={words.assignment.withdraw}
        lead={words.assignment.withdrawLead(shownMoment(until, course?.zone))}
      >
        <div className="flex gap-3">
          <Button look="main" onClick={() => void takeBack()}>
            {words.assignment.withdrawSure}
          </Button>
          <Button onClick={() => setSure(false)}>{words.assignment.cancel}</Button>
        </div>
      </Dialog>
    </>
  );
}

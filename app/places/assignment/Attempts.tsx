import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { FileFact } from '#core/model/facts.ts';
import { Button, SectionTitle } from '../../shared/Controls.tsx';
import { Dialog } from '../../shared/Dialog.tsx';
import { offerFile } from '../../shared/notify.ts';
import { shownMoment } from '../../shared/shown.ts';
import { words } from '../../words/en.ts';
import type { AssignmentView } from '../../workspace/assignment-view.ts';
import { deskFile } from '../../workspace/fetching.ts';
import {
  attemptScoreShown,
  latenessOf,
  standing,
  type MarkedAttempt,
} from '../../workspace/marked-attempts.ts';
import { removeOutsideAttempt, takeAttemptBack } from '../../workspace/own-attempts.ts';
import { nowMs } from '../../workspace/workspace.ts';
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

function Attempt({ view, each }: { view: AssignmentView; each: MarkedAttempt }) {
  const { assignment, course } = view;
  const { attempt, marking, withdrawn, missing } = each;
  const zone = course?.zone;
  const late = latenessOf(each, assignment);
  const counted = attemptScoreShown(each, assignment);
  const facts = [
    missing ? words.assignment.noAttempt : words.assignment.sent(shownMoment(attempt.at, zone)),
    late === null ? '' : words.assignment.lateBy(late.hours),
    late === null || assignment.late === null ? '' : words.assignment.pointsOff(late.deduction),
    attempt.outside ? words.assignment.outside : '',
    marking === null ? words.assignment.notMarked : '',
    withdrawn === null ? '' : words.assignment.withdrawnAt(shownMoment(withdrawn.at, zone)),
  ];
  const files = [...attempt.files, ...(marking?.files ?? [])];
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <b>{words.assignment.attempt(attempt.number)}</b>
        {counted !== null && assignment.possible !== null && (
          <b>{words.assignment.of(counted, assignment.possible)}</b>
        )}
      </div>
      <p className="text-sm text-quiet">{facts.filter(Boolean).join(' · ')}</p>
      {each.markings.map((one, index) => (
        <p key={one.id} className="text-sm text-quiet">
          {words.assignment.markings(
            one.marker.name,
            shownMoment(one.at, zone),
            one.score ?? words.assignment.noScoreYet,
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
          onClick={() => void removeOutsideAttempt(attempt)}
        >
          {words.assignment.outsideRemove}
        </Button>
      )}
    </>
  );
}

/** What is read beside its remarks, and by which material of the reading place. */
const READ_AS: Partial<Record<FileFact['role'], string>> = {
  paper: 'paper',
  marked: 'paper',
  response: 'paper',
  quiz: 'quiz',
  posts: 'posts',
  report: 'overlap',
  recording: 'recordings',
};

function FileRow({ view, file }: { view: AssignmentView; file: FileFact }) {
  const navigate = useNavigate();
  const { assignment } = view;
  const material = READ_AS[file.role];
  const nothingFound = file.role === 'report' && Object.keys(file.announced).length === 0;
  const get = async () => {
    const bytes = await deskFile(file, assignment.id);
    if (bytes === null) toast.error(words.assignment.withdrawNotReached);
    return bytes;
  };
  const open = async () => {
    if ((await get()) === null) return;
    const shown = file.role === 'report' ? '' : `&file=${file.hash}`;
    void navigate(`/a/${encodeURIComponent(assignment.id)}/read?material=${material ?? ''}${shown}`);
  };
  const save = async () => {
    const bytes = await get();
    if (bytes !== null) offerFile(file.name, bytes, file.mediaType);
  };
  const link = 'font-semibold text-accent hover:underline';
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 py-0.5 text-sm">
      <span className="min-w-0 flex-1 truncate">
        {file.name}{' '}
        <span className="text-quiet">
          {words.assignment.fileRoles[file.role]}, {words.sizeOf(file.size)}
        </span>
      </span>
      {nothingFound ? (
        <span className="text-quiet">{words.assignment.reportEmpty}</span>
      ) : (
        material !== undefined && (
          <button type="button" className={link} onClick={() => void open()}>
            {words.assignment.openFile}
            <span className="sr-only"> {file.name}</span>
          </button>
        )
      )}
      <button type="button" className={link} onClick={() => void save()}>
        {words.assignment.saveFile}
        <span className="sr-only"> {file.name}</span>
      </button>
    </li>
  );
}

/** One that was sent by mistake, taken back where the rules still allow it. */
function Withdrawing({ view, each }: { view: AssignmentView; each: MarkedAttempt }) {
  const [sure, setSure] = useState(false);
  const { assignment, course, attempts } = view;
  const until = assignment.withdrawableUntil;
  const latest = standing(attempts).at(-1);
  const allowed =
    until !== null &&
    Date.parse(until) > nowMs() &&
    each === latest &&
    each.marking === null &&
    !each.attempt.outside;
  if (!allowed) return null;
  const takeBack = async () => {
    setSure(false);
    const answer = await takeAttemptBack(each.attempt);
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

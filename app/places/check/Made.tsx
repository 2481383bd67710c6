import { Link } from 'react-router';
import { itemRows } from '#core/assignment/items.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { fileFault } from '#core/check/file-kind.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import { Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { faultTold } from '../../shared/files/fault-told.ts';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { shownPoints } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import { useMissed } from '../../workspace/state/missed.ts';
import { useWorkspaceState } from '../../workspace/use-workspace.ts';

/** What was made for the next attempt, where it is no text. */

/** Each file that goes: whether the assignment takes it, and whether it is new at all. */
export function FilesChecked({ outlet: { view, work } }: { outlet: AssignmentOutlet }) {
  const stored = useWorkspaceState(({ records }) => records.files);
  const files = (view.draft?.files ?? []).flatMap((hash) => stored.get(hash) ?? []);
  const { fileTypes } = view.assignment.requirements;
  return (
    <section>
      <SectionTitle>{words.check.filesTitle}</SectionTitle>
      {files.length === 0 && (
        <div className="mt-3">
          <StationNotice view={view} station="check" />
        </div>
      )}
      <ul className="mt-2">
        {files.map((file) => {
          const fault = fileFault(file, fileTypes, MOST_FILE_BYTES);
          const isOld = work.papers.some(({ hash }) => hash === file.hash);
          return (
            <li key={file.hash} className="border-t border-rule py-2">
              <b className="break-words">{file.name}</b>{' '}
              <span className="text-sm text-quiet">{words.sizeOf(file.size)}</span>
              <p className="text-sm">
                {fault !== null ? faultTold(fault) : isOld ? words.check.fileIsOld : words.check.fileFits}
              </p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Each item of an activity: whether it is answered again, and whether it had lost points. */
export function ItemsChecked({ view }: { view: AssignmentView }) {
  const rows = itemRows(view);
  return (
    <section>
      <SectionTitle>{words.check.itemsTitle}</SectionTitle>
      <div className="mt-3 empty:hidden">
        <StationNotice view={view} station="check" />
      </div>
      <ul className="mt-2">
        {rows.map(({ item, answer, lost }) => (
          <li key={item.id} className="flex flex-wrap justify-between gap-x-4 border-t border-rule py-2">
            <Link to={assignmentAddress(view.assignment.id, 'revise')} className="hover:underline">
              {item.title}
            </Link>
            <span className="text-sm text-quiet">
              {lost === true && `${words.check.itemLost} · `}
              <b className={answer === '' ? 'font-normal' : 'text-ink'}>
                {answer === '' ? words.check.itemNotAnswered : words.check.itemAnswered}
              </b>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What of a quiz is still weak: the questions that lost points, with how many. */
export function Readiness({ view }: { view: AssignmentView }) {
  const missed = useMissed(view);
  return (
    <section>
      <SectionTitle>{words.check.readyTitle}</SectionTitle>
      {missed === null ? (
        <p className="mt-1 text-quiet">{words.reading.opening}</p>
      ) : missed.length === 0 ? (
        <div className="mt-3">
          <Empty>{words.check.readyNone}</Empty>
        </div>
      ) : (
        <>
          <p className="mt-1 text-sm text-quiet">{words.check.readyLead}</p>
          <ul className="mt-2">
            {missed.map(({ question, item, lost }) => (
              <li key={question.id} className="border-t border-rule py-2">
                {words.check.questionLost(question.number, item.title, shownPoints(lost))}
              </li>
            ))}
          </ul>
          <Link
            to={assignmentAddress(view.assignment.id, 'revise')}
            className="mt-3 inline-block font-semibold text-accent hover:underline"
          >
            {words.check.toPractise}
          </Link>
        </>
      )}
    </section>
  );
}

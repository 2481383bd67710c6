import type { AssignmentId } from '#core/model/ids.ts';
import { Link } from 'react-router';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { RemarkLines } from '../../shared/remark/RemarkLines.tsx';
import * as words from '../../words/en.ts';
import { type AssignmentView } from '#core/assignment/view.ts';
import { useAssignmentView } from '../../workspace/state/use-views.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** For work in two stages: the way to the other one, and on the final the advice that the draft got. */
export function Stages({ view }: { view: AssignmentView }) {
  const { draft, final } = view.stages;
  if (draft === null && final === null) return null;
  return (
    <section>
      {final !== null && (
        <p>
          <Link to={assignmentAddress(final.id)} className="font-semibold text-accent hover:underline">
            {words.assignment.finalOf(final.title)}
          </Link>{' '}
          {view.rubric !== null && words.assignment.finalRubric}
        </p>
      )}
      {draft !== null && <Advice draftId={draft.id} />}
      {(final !== null || view.latestMarking === null) && view.rubric !== null && <AtStake view={view} />}
    </section>
  );
}

function Advice({ draftId }: { draftId: AssignmentId }) {
  const draft = useAssignmentView(draftId);
  if (draft === null) return null;
  const address = assignmentAddress(draftId);
  return (
    <>
      <SectionTitle>{words.assignment.fromDraft(draft.remarks.length)}</SectionTitle>
      <p className="mt-1 text-sm text-quiet">
        <Link to={address} className="hover:underline">
          {words.assignment.draftStageOf(draft.assignment.title)}
        </Link>
      </p>
      <RemarkLines view={draft} remarks={draft.remarks.slice(0, MOST_LINES)} />
      {draft.remarks.length > MOST_LINES && (
        <p className="border-t border-rule pt-2">
          <Link to={assignmentAddress(draftId, 'read')} className="font-semibold text-accent hover:underline">
            {words.assignment.allFromDraft}
          </Link>
        </p>
      )}
    </>
  );
}

const MOST_LINES = 6;

/** The criteria with what each is worth, before anything was marked by them. */
function AtStake({ view: { rubric, assignment } }: { view: AssignmentView }) {
  if (rubric === null) return null;
  return (
    <div className="mt-4">
      <p className="font-semibold">
        <Link
          to={assignmentAddress(assignment.id, 'read', { material: 'criteria' })}
          className="hover:underline"
        >
          {words.assignment.rubricAtStake}: {rubric.title}
        </Link>
      </p>
      <ul>
        {rubric.criteria.map(({ id, title, possible }) => (
          <li key={id} className="flex justify-between gap-4 border-t border-rule py-1.5 text-sm">
            <span>{title}</span>
            <span className="text-quiet">{possible}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

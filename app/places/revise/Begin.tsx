import { stationOf } from '#core/assignment/line.ts';
import { Button } from '../../shared/controls/Controls.tsx';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import * as words from '../../words/en.ts';
import { beginDraft } from '../../workspace/commands/draft.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** The ways to begin: from the paper that was marked, here or on the draft stage, or from nothing. */
export function Begin({ outlet: { view, work, marked } }: { outlet: AssignmentOutlet }) {
  const workspace = useWorkspace();
  const attempt = view.attempts.length + 1;
  const main = stationOf(view, 'revise').is === 'do';
  const ofStage = view.markedFile === null;
  const beginEmpty = () => void beginDraft(workspace, view.assignment.id, attempt, null, []);
  return (
    <div className="mx-auto grid max-w-2xl justify-items-start gap-4 p-8 max-md:p-4">
      <StationNotice view={view} station="revise" />
      {work.markedFile === null ? (
        <p>{words.revise.fromNothingLead}</p>
      ) : (
        <p>{ofStage ? words.revise.beginFromStage : words.revise.beginLead}</p>
      )}
      <div className="flex flex-wrap gap-3">
        {work.markedFile !== null && (
          <Button
            look={main ? 'main' : 'plain'}
            disabled={marked === null}
            onClick={() => {
              if (marked !== null)
                void beginDraft(workspace, view.assignment.id, attempt, marked.hash, marked.paper.blocks);
            }}
          >
            {marked === null ? words.reading.opening : words.revise.begin}
          </Button>
        )}
        <Button look={main && work.markedFile === null ? 'main' : 'plain'} onClick={beginEmpty}>
          {words.revise.beginEmpty}
        </Button>
      </div>
    </div>
  );
}

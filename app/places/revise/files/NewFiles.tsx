import { useState } from 'react';
import type { FileHash } from '#core/model/ids.ts';
import type { StoredFile } from '#core/model/work.ts';
import { Empty } from '../../../shared/controls/Controls.tsx';
import { StationNotice } from '../../../shared/line/StationNotice.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { useWorkspaceState } from '../../../workspace/use-workspace.ts';
import { AnswerList } from './AnswerList.tsx';
import { Compared } from './Compared.tsx';
import { FileList } from './FileList.tsx';

/** New files beside the old ones, and the remarks beside both, each with what was done about it. */
export function NewFiles({ outlet }: { outlet: AssignmentOutlet }) {
  const { view } = outlet;
  const { draft, submission } = view;
  const [focusedId, setFocusedId] = useState<string | null>(null);
  const [drawingFor, setDrawingFor] = useState<string | null>(null);
  const [shownHash, show] = useState<FileHash | null>(null);
  const files = useFiles(draft?.files ?? []);
  const shown = files.find(({ hash }) => hash === shownHash) ?? files.at(0) ?? null;
  const canChange = submission === null;
  return (
    <div className="h-full overflow-auto md:grid md:min-h-0 md:grid-cols-[minmax(0,1fr)_minmax(20rem,29rem)] md:overflow-hidden">
      <section
        aria-label={words.newFiles.title}
        className="border-rule p-5 max-md:p-4 md:min-h-0 md:overflow-auto md:border-r"
      >
        <div className="mb-4 empty:hidden">
          <StationNotice view={view} station="revise" />
        </div>
        {!canChange && <p className="mb-3 text-sm text-quiet">{words.newFiles.sentAlready}</p>}
        <FileList view={view} files={files} shown={shown} onShow={show} canChange={canChange} />
        {shown === null && <Empty>{words.newFiles.empty}</Empty>}
        <Compared
          outlet={outlet}
          shown={shown}
          focusedId={focusedId}
          drawingFor={canChange ? drawingFor : null}
          onDrawn={() => setDrawingFor(null)}
        />
      </section>
      <AnswerList
        outlet={outlet}
        shown={shown}
        focusedId={focusedId}
        onFocus={setFocusedId}
        drawingFor={drawingFor}
        onDraw={setDrawingFor}
        canChange={canChange}
      />
    </div>
  );
}

function useFiles(hashes: readonly FileHash[]): readonly StoredFile[] {
  const files = useWorkspaceState(({ records }) => records.files);
  return hashes.flatMap((hash) => files.get(hash) ?? []);
}

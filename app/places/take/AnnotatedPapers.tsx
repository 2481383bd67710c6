import { useState } from 'react';
import type { PaperFile } from '#core/assignment/papers.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { offerFile } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { annotatedPaper } from './write-along.ts';
import { useWriting, WritingNotice } from './writing.tsx';

/** Papers that are shown with pages or as text; a quiz is a table. */
const HAS_PAGES = new Set(['marked', 'sent', 'posts', 'brief']);

/** Each paper of an assignment, to be saved as a PDF that has its remarks in it. */
export function AnnotatedPapers({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const [own, setOwn] = useState(true);
  const writing = useWriting();
  const papers = view.papers.filter(
    ({ role, hash }) =>
      HAS_PAGES.has(role) && (role === 'marked' || view.remarks.some(({ paperHash }) => paperHash === hash)),
  );
  const save = (paper: PaperFile) =>
    writing.write(paper.name, async (told, signal) => {
      const written = await annotatedPaper(workspace, view, paper, { own, told, signal });
      if (written.kind !== 'read') return { kind: written.kind };
      const what = `${paper.name.replace(/\.[^.]+$/, '')} ${words.takeAlong.withRemarks}`;
      const name = fileNameOf(workspace, view, what, 'pdf');
      offerFile(name, written.value, 'application/pdf');
      return { kind: 'saved', name };
    });
  return (
    <section>
      <SectionTitle>{words.takeAlong.papers}</SectionTitle>
      <p className="text-sm text-quiet">{words.takeAlong.papersLead}</p>
      {papers.length === 0 ? (
        <div className="mt-3">
          <Empty>{words.takeAlong.noPapers}</Empty>
        </div>
      ) : (
        <>
          <ul className="mt-2">
            {papers.map((paper) => (
              <li
                key={paper.hash}
                className="flex flex-wrap items-center gap-x-4 border-t border-rule py-2 last:border-b"
              >
                <span className="min-w-0 flex-1 break-words">
                  <b>{paper.name}</b>{' '}
                  <span className="text-sm text-quiet">
                    {words.takeAlong.holds(
                      view.remarks.filter(({ paperHash }) => paperHash === paper.hash).length,
                    )}
                  </span>
                </span>
                <Button disabled={writing.percent !== null} onClick={() => save(paper)}>
                  {words.takeAlong.annotated}
                  <span className="sr-only"> {paper.name}</span>
                </Button>
              </li>
            ))}
          </ul>
          <label className="mt-2 inline-flex items-center gap-2 text-sm">
            <CheckBox checked={own} onChange={setOwn} />
            {words.takeAlong.own}
          </label>
        </>
      )}
      <WritingNotice writing={writing} />
    </section>
  );
}

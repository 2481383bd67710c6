import { revise } from '../../../words/revising.ts';
import { useEffect, useState } from 'react';
import type { Draft, Version } from '#core/model/work.ts';
import type { Paper } from '#core/paper/paper.ts';
import { countWords } from '#core/text/words.ts';
import { Button, Empty } from '../../../shared/controls/Controls.tsx';
import { Dialog } from '../../../shared/controls/Dialog.tsx';
import { ComparedRowsOf } from '../../../shared/compare/ComparedRows.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { shownMoment } from '../../../shared/shown/shown.ts';
import { useKeptText } from '../../../shared/remark/kept-text.ts';
import { goBackTo, keepVersion, nameVersion } from '../../../workspace/commands/draft.ts';
import { useWorkspace, useWorkspaceState } from '../../../workspace/use-workspace.ts';
import { textOfVersion } from '../../../workspace/state/draft-text.ts';

/** The versions of a draft, newest first: to look at, compare, name and go back to. */
export function Versions({
  outlet,
  draft,
  canChange,
  onClose,
}: {
  outlet: AssignmentOutlet;
  draft: Draft;
  canChange: boolean;
  onClose: () => void;
}) {
  const workspace = useWorkspace();
  const all = useWorkspaceState(({ records }) => records.versions);
  const own = [...all.values()]
    .filter(({ draftId }) => draftId === draft.id)
    .toSorted((x, y) => (x.at > y.at ? -1 : x.at < y.at ? 1 : 0));
  const [opened, open] = useState<{ readonly version: Version; readonly how: 'text' | 'compared' } | null>(
    null,
  );
  const isNow = (version: Version) =>
    version.bodyHash === draft.bodyHash &&
    (version.bodyHash !== null || version.fileHash === draft.paperFile);
  return (
    <Dialog open onClose={onClose} title={revise.versions} lead={revise.versionsLead} wide>
      {canChange && !own.some(isNow) && (
        <Button className="mb-3" onClick={() => void keepVersion(workspace, draft, '')}>
          {revise.keepVersion}
        </Button>
      )}
      {own.length === 0 && <Empty>{revise.noVersions}</Empty>}
      <ol className="grid">
        {own.map((version) => (
          <li key={version.id} className="border-t border-rule py-2">
            <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
              <span className="tabular-nums">{shownMoment(version.at, outlet.view.course?.zone)}</span>
              <span className="text-sm text-quiet">
                {revise.versionWhy[version.why]}
                {isNow(version) && `, ${revise.isNow}`}
              </span>
              <Name version={version} />
              <span className="ml-auto flex gap-x-4">
                <Button look="quiet" className="px-0 text-sm" onClick={() => open({ version, how: 'text' })}>
                  {revise.lookAtVersion}
                </Button>
                {!isNow(version) && (
                  <Button
                    look="quiet"
                    className="px-0 text-sm"
                    onClick={() => open({ version, how: 'compared' })}
                  >
                    {revise.compareVersion}
                  </Button>
                )}
                {canChange && !isNow(version) && (
                  <Button
                    look="quiet"
                    className="px-0 text-sm"
                    onClick={() => {
                      void goBackTo(workspace, draft, version.id);
                      onClose();
                    }}
                  >
                    {revise.goBack}
                  </Button>
                )}
              </span>
            </div>
            {opened?.version.id === version.id && (
              <Opened version={version} how={opened.how} now={outlet.text?.paper ?? null} />
            )}
          </li>
        ))}
      </ol>
    </Dialog>
  );
}

function Name({ version }: { version: Version }) {
  const workspace = useWorkspace();
  const [name, type, leave] = useKeptText(`version/${version.id}`, version.name, (text) =>
    nameVersion(workspace, version, text),
  );
  return (
    <input
      value={name}
      placeholder={revise.versionName}
      aria-label={revise.versionName}
      onChange={(event) => type(event.target.value)}
      onBlur={leave}
      className="min-w-0 rounded-md border border-rule bg-paper px-2 py-0.5 text-sm placeholder:text-quiet"
    />
  );
}

function Opened({ version, how, now }: { version: Version; how: 'text' | 'compared'; now: Paper | null }) {
  const workspace = useWorkspace();
  const [paper, setPaper] = useState<Paper | null>(null);
  useEffect(() => {
    const over = new AbortController();
    const isOver = () => over.signal.aborted;
    const show = async () => {
      const text = await textOfVersion(workspace, version);
      if (!isOver() && text !== null) setPaper(text);
    };
    workspace.inBackground(show);
    return () => over.abort();
  }, [workspace, version]);
  if (paper === null) return <p className="mt-2 text-quiet">{revise.opening}</p>;
  return (
    <div className="mt-2 max-h-[50vh] overflow-auto rounded-md border border-rule bg-paper p-4 font-serif leading-relaxed">
      <p className="mb-2 font-sans text-sm text-quiet">{revise.versionWords(countWords(paper.text))}</p>
      {how === 'compared'
        ? now !== null && <ComparedRowsOf older={paper} newer={now} margin={null} />
        : paper.blocks.map((block, index) => (
            <p key={index} className={block.kind === 'heading' ? 'mb-2 font-semibold' : 'mb-2'}>
              {block.text}
            </p>
          ))}
    </div>
  );
}

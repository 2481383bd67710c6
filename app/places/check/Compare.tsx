import { useEffect, useMemo, useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Paper } from '#core/paper/paper.ts';
import { ComparedRowsOf, type Margin } from '../../shared/compare/ComparedRows.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { revise } from '../../words/revising.ts';
import { textOfVersion } from '../../workspace/state/draft-text.ts';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import type { ReadPaper } from '../../workspace/storage/records.ts';

const MARKED = 'marked';
const NOW = 'now';

/** Any two versions of a text: the marked one, the draft, and every version that was kept of it. */
export function Compare({ view, now, marked }: { view: AssignmentView; now: Paper; marked: ReadPaper }) {
  const all = useWorkspaceState(({ records }) => records.versions);
  const versions = useMemo(
    () =>
      [...all.values()]
        .filter(({ draftId }) => draftId === view.draft?.id)
        .toSorted((x, y) => (x.at > y.at ? -1 : 1)),
    [all, view.draft?.id],
  );
  const [older, setOlder] = useState(MARKED);
  const [newer, setNewer] = useState(NOW);
  const options = [
    [MARKED, words.check.versionMarked],
    [NOW, words.check.versionNow],
    ...versions.map(
      ({ id, at, why, name }) =>
        [id, words.check.version(shownMoment(at, view.course?.zone), revise.versionWhy[why], name)] as const,
    ),
  ] as const;
  const papers = [useVersion(older, now, marked), useVersion(newer, now, marked)];
  const margin = useMemo((): Margin | null => {
    if (older !== MARKED) return null;
    const remarks = view.remarks.flatMap((remark) => {
      const anchor = marked.anchors[remark.id] as { readonly from: number } | undefined;
      const number = view.numberByRemark.get(remark.id);
      return anchor === undefined || number === undefined ? [] : [{ remark, number, at: anchor.from }];
    });
    return { remarks };
  }, [older, view, marked]);
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm print:hidden">
        <Select look="tool" label={words.check.older} value={older} options={options} onChange={setOlder} />
        <Select look="tool" label={words.check.newer} value={newer} options={options} onChange={setNewer} />
      </div>
      {papers.includes('gone') ? (
        <p>{words.check.gone}</p>
      ) : papers[0] === null || papers[1] === null ? (
        <p className="text-quiet">{words.check.comparing}</p>
      ) : (
        <ComparedRowsOf older={papers[0] as Paper} newer={papers[1] as Paper} margin={margin} />
      )}
    </>
  );
}

/** The text of a version by what it is chosen by; null while it is read. */
function useVersion(chosen: string, now: Paper, marked: ReadPaper): Paper | 'gone' | null {
  const workspace = useWorkspace();
  const [read, setRead] = useState<{ readonly of: string; readonly paper: Paper | 'gone' } | null>(null);
  useEffect(() => {
    const version = workspace.records.versions.get(chosen);
    if (version === undefined) return;
    let over = false;
    void textOfVersion(workspace, version).then((paper) => {
      if (!over) setRead({ of: chosen, paper: paper ?? 'gone' });
    });
    return () => {
      over = true;
    };
  }, [workspace, chosen]);
  if (chosen === MARKED) return marked.paper;
  if (chosen === NOW) return now;
  return read?.of === chosen ? read.paper : null;
}

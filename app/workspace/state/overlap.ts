import { useEffect, useMemo, useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { FileHash } from '#core/model/ids.ts';
import type { Source } from '#core/model/source.ts';
import type { Overlap } from '#core/overlap/compare-sources.ts';
import { shownMatches, type ShownMatch } from '#core/overlap/items.ts';
import type { ComparedSource } from '#core/overlap/known-sources.ts';
import type { Sides } from '#core/overlap/side-by-side.ts';
import type { Paper } from '#core/paper/paper.ts';
import { reader } from '../../workers/clients.ts';
import { comparer } from '../../workers/overlap-client.ts';
import { Superseded } from '../../workers/worker-client.ts';
import { useWorkspace, useWorkspaceState } from '../use-workspace.ts';
import type { Workspace } from '../workspace.ts';
import { paperFor } from './papers.ts';

/** A source that drafts of an assignment are compared with: one that was taken in, or a paper that is here anyway. */
export interface HereSource extends ComparedSource {
  readonly hash: FileHash;
  /** null for a paper of the student's own, or the brief. */
  readonly record: Source | null;
}

/** All that drafts of an assignment are compared with: sources, its brief, and what was handed in for other work. */
export function useSources(view: AssignmentView): HereSource[] {
  const { sources, files, assignments } = useWorkspaceState(({ records }) => records);
  const { assignment, stages } = view;
  return useMemo(() => {
    const taken = [...sources.values()].map((record): HereSource => {
      const { hash, title, authors, year, relation } = record;
      return { id: hash, hash, record, work: { title, authors, year, relation } };
    });
    const own = new Set([assignment.id, stages.draft?.id, stages.final?.id]);
    // What came back holds what was sent.
    const returned = new Set(
      [...files.values()].flatMap(({ role, assignmentId }) => (role === 'marked' ? [assignmentId] : [])),
    );
    const others = [...files.values()].flatMap((file): HereSource[] => {
      if (sources.has(file.hash) || file.assignmentId === null) return [];
      const isHere = own.has(file.assignmentId);
      const isBrief = isHere && file.role === 'brief';
      const isWork = file.role === 'marked' || (file.role === 'sent' && !returned.has(file.assignmentId));
      const isOwnWork = !isHere && isWork;
      if (!isBrief && !isOwnWork) return [];
      const title = isBrief ? file.name : (assignments.get(file.assignmentId)?.title ?? file.name);
      const relation = isBrief ? 'brief' : 'own';
      return [
        { id: file.hash, hash: file.hash, record: null, work: { title, authors: '', year: null, relation } },
      ];
    });
    return [...taken, ...others].sort((x, y) => (x.id < y.id ? -1 : 1));
  }, [sources, files, assignments, assignment.id, stages]);
}

/** A source's text: as it was kept, or read again from its file. null where it can't be read any more. */
async function textOf(workspace: Workspace, { hash, record }: HereSource): Promise<string | null> {
  if (record === null) return (await paperFor(workspace, hash))?.paper.text ?? null;
  const kept = await workspace.readPaper(hash);
  if (kept !== null) return kept.paper.text;
  const bytes = await workspace.fileBytes(hash);
  if (bytes === null) return null;
  const read = await reader.ask((worker) => worker.readSource(bytes));
  return read.kind === 'read' ? read.value.text : null;
}

/** Gives the worker what it doesn't know yet. @returns the sources whose text is here */
async function handOver(workspace: Workspace, sources: readonly HereSource[]): Promise<HereSource[]> {
  const unknown = new Set(await comparer.ask((worker) => worker.unknownOf(sources.map(({ id }) => id))));
  const here: HereSource[] = [];
  for (const source of sources) {
    if (unknown.has(source.id)) {
      const text = await textOf(workspace, source);
      if (text === null) continue;
      await comparer.ask((worker) => worker.add(source.id, text));
    }
    here.push(source);
  }
  return here;
}

/** What a text has in common with sources, as it is shown. */
export interface ShownOverlap {
  readonly paper: Paper;
  readonly overlap: Overlap;
  readonly sources: readonly HereSource[];
  readonly matches: readonly ShownMatch[];
}

/** What a text has in common with sources, in step with it; null while it is worked out the first time, or without a text. */
export function useOverlap(
  key: string,
  paper: Paper | null,
  sources: readonly HereSource[],
): ShownOverlap | null {
  const workspace = useWorkspace();
  const [shown, setShown] = useState<(ShownOverlap & { readonly key: string }) | null>(null);
  useEffect(() => {
    if (paper === null) return;
    let over = false;
    const compare = async () => {
      const here = await handOver(workspace, sources);
      const compared = here.map(({ id, work }) => ({ id, work }));
      const overlap = await comparer.ask((worker) => worker.compare(key, paper, compared), {
        latestOf: `overlap ${key}`,
      });
      if (!over) setShown({ key, paper, overlap, sources: here, matches: shownMatches(overlap, here) });
    };
    compare().catch((error: unknown) => {
      // The newer text is on its way.
      if (!(error instanceof Superseded)) throw error;
    });
    return () => {
      over = true;
    };
  }, [workspace, key, paper, sources]);
  return shown?.key === key && paper !== null ? shown : null;
}

/** Both sides of a match; null until they are there. */
export function useSides(paper: Paper, match: ShownMatch | null): Sides | null {
  const [sides, setSides] = useState<{ readonly of: ShownMatch; readonly sides: Sides } | null>(null);
  useEffect(() => {
    if (match === null) return;
    let over = false;
    const draft = paper.text.slice(match.place.from, match.place.to);
    void comparer
      .ask((worker) => worker.sides(match.sourceId, draft, match.sourcePlace))
      .then((found) => {
        if (!over) setSides({ of: match, sides: found });
      });
    return () => {
      over = true;
    };
  }, [paper, match]);
  return sides !== null && sides.of === match ? sides.sides : null;
}

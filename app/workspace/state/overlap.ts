import { useEffect, useMemo, useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { FileHash } from '#core/model/ids.ts';
import type { Source } from '#core/model/source.ts';
import type { Overlap } from '#core/overlap/compare-sources.ts';
import { earlierAttempts } from '#core/overlap/earlier.ts';
import { shownMatches, withLetters, type ShownMatch } from '#core/overlap/items.ts';
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

/**
 * All that a text of an assignment is compared with: sources, its brief, what was handed in for other work, and earlier
 * attempts at the same.
 */
export function useSources(view: AssignmentView, of: 'marked' | 'draft'): HereSource[] {
  const { sources, files, assignments } = useWorkspaceState(({ records }) => records);
  const { assignment, stages } = view;
  const attempts = earlierAttempts(view, of).join();
  return useMemo(() => {
    const plain = { record: null, isAttempt: false };
    const taken = [...sources.values()].map((record): HereSource => {
      const { hash, title, authors, year, relation } = record;
      return { ...plain, id: hash, hash, record, work: { title, authors, year, relation } };
    });
    const own = new Set([assignment.id, stages.draft?.id, stages.final?.id]);
    const earlier = new Set(attempts.split(','));
    // What came back holds what was sent.
    const returned = new Set(
      [...files.values()].flatMap(({ role, assignmentId }) => (role === 'marked' ? [assignmentId] : [])),
    );
    const others = [...files.values()].flatMap((file): HereSource[] => {
      const { hash, role, assignmentId, name } = file;
      if (sources.has(hash)) return [];
      const here = (relation: 'brief' | 'own', title: string, isAttempt = false): HereSource[] => [
        { ...plain, id: hash, hash, isAttempt, work: { title, authors: '', year: null, relation } },
      ];
      if (earlier.has(hash)) return here('own', name, true);
      if (assignmentId === null) return [];
      const isHere = own.has(assignmentId);
      if (isHere) return role === 'brief' ? here('brief', name) : [];
      const isWork = role === 'marked' || (role === 'sent' && !returned.has(assignmentId));
      return isWork ? here('own', assignments.get(assignmentId)?.title ?? name) : [];
    });
    return [...taken, ...others].sort((x, y) => (x.id < y.id ? -1 : 1));
  }, [sources, files, assignments, assignment.id, stages, attempts]);
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
  /** All of them, as they are counted, and those that call for something. */
  readonly counted: readonly ShownMatch[];
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
    const over = new AbortController();
    const isOver = () => over.signal.aborted;
    const compare = async () => {
      const here = await handOver(workspace, sources);
      // A comparison with newer sources was asked for meanwhile: this one must not take its place.
      if (isOver()) return;
      const compared = here.map(({ id, work, isAttempt }) => ({ id, work, isAttempt }));
      const overlap = await comparer.ask((worker) => worker.compare(key, paper, compared), {
        latestOf: `overlap ${key}`,
      });
      const counted = shownMatches(overlap, here);
      if (!isOver()) setShown({ key, paper, overlap, sources: here, counted, matches: withLetters(counted) });
    };
    compare().catch((error: unknown) => {
      // The newer text is on its way.
      if (!(error instanceof Superseded)) throw error;
    });
    return () => over.abort();
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

import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { useCallback, useMemo } from 'react';
import * as v from 'valibot';
import { create } from 'zustand';
import { filterFields } from '../../shared/remark/filter.ts';
import { textStates } from '#formats/layout-segments.ts';

/** How an assignment was last looked at: it is so again on return. No part of the workspace, and nothing is lost with it. */

export const MOST_ZOOM = 4;
export const LEAST_ZOOM = 0.5;

export function withinZoom(zoom: number): number {
  return Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, zoom));
}

const ReadingState = v.object({
  filter: v.optional(v.record(v.string(), v.string()), {}),
  filtering: v.optional(v.boolean(), false),
  listed: v.optional(v.nullable(v.picklist(filterFields)), null),
  /** A factor; 1 is as wide as there is room. 'page': a whole page in sight. */
  zoom: v.optional(
    v.union([v.literal('page'), v.pipe(v.number(), v.minValue(LEAST_ZOOM), v.maxValue(MOST_ZOOM))]),
    1,
  ),
  unfolded: v.optional(v.array(v.string()), []),
  /** A PDF is shown as text that flows, not as its pages. */
  flowing: v.optional(v.boolean(), false),
  /** Which state of a changed text is shown. */
  text: v.optional(v.picklist(textStates), 'changes'),
  /** The matches of the overlap report stand with the remarks. */
  together: v.optional(v.boolean(), false),
});
export type ReadingState = v.InferOutput<typeof ReadingState>;

function keyOf(workspace: Workspace, assignmentId: string): string {
  return `reading/${workspace.name}/${assignmentId}`;
}

function stored(key: string): ReadingState {
  try {
    return v.parse(ReadingState, JSON.parse(localStorage.getItem(key) ?? '{}'));
  } catch {
    return v.parse(ReadingState, {});
  }
}

/** What was read from localStorage, by key, so that all who show an assignment know the same. */
const useStates = create<Readonly<Record<string, ReadingState | undefined>>>(() => ({}));

export function useReadingState(
  assignmentId: string,
): [ReadingState, (change: Partial<ReadingState>) => void] {
  const workspace = useWorkspace();
  const key = keyOf(workspace, assignmentId);
  const first = useMemo(() => stored(key), [key]);
  const state = useStates((states) => states[key]) ?? first;
  const change = useCallback((part: Partial<ReadingState>) => changeState(key, part), [key]);
  return [state, change];
}

function changeState(key: string, part: Partial<ReadingState>): void {
  const next = { ...(useStates.getState()[key] ?? stored(key)), ...part };
  useStates.setState({ [key]: next });
  localStorage.setItem(key, JSON.stringify(next));
}

/** Has an assignment's paper shown by its pages, whatever was looked at before. */
export function showByPages(workspace: Workspace, assignmentId: string): void {
  changeState(keyOf(workspace, assignmentId), { listed: null, flowing: false });
}

function pageKey(workspace: Workspace, assignmentId: string, hash: string): string {
  return `${keyOf(workspace, assignmentId)}/page/${hash}`;
}

/** Keeps at which page of a file one is. */
export function keepPage(workspace: Workspace, assignmentId: string, hash: string, page: number): void {
  localStorage.setItem(pageKey(workspace, assignmentId, hash), String(page));
}

/** The page of a file at which one was last; 1 at first. */
export function keptPage(workspace: Workspace, assignmentId: string, hash: string): number {
  return Math.max(
    1,
    Math.round(Number(localStorage.getItem(pageKey(workspace, assignmentId, hash)) ?? 1)) || 1,
  );
}

/** The slips of long remarks that stand in full though they are not in focus. */
export function useUnfolded(assignmentId: string): [readonly string[], (id: string, open: boolean) => void] {
  const [{ unfolded }, change] = useReadingState(assignmentId);
  const unfold = useCallback(
    (id: string, open: boolean) => {
      const others = unfolded.filter((one) => one !== id);
      change({ unfolded: open ? [...others, id] : others });
    },
    [unfolded, change],
  );
  return [unfolded, unfold];
}

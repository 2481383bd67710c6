import { useState } from 'react';
import * as v from 'valibot';
import { databaseName, useWorkspace } from '../../workspace/workspace.ts';
import { filterFields } from './filter.ts';

/** How an assignment was last looked at: it is so again on return. No part of the workspace, and nothing is lost with it. */

export const MOST_ZOOM = 4;
export const LEAST_ZOOM = 0.5;

const ReadingState = v.object({
  filter: v.optional(v.record(v.string(), v.string()), {}),
  filtering: v.optional(v.boolean(), false),
  listed: v.optional(v.nullable(v.picklist(filterFields)), null),
  /** A factor; 1 is as wide as there is room. 'page': a whole page in sight. */
  zoom: v.optional(
    v.union([v.literal('page'), v.pipe(v.number(), v.minValue(LEAST_ZOOM), v.maxValue(MOST_ZOOM))]),
    1,
  ),
});
export type ReadingState = v.InferOutput<typeof ReadingState>;

function keyOf(assignmentId: string): string {
  const { identity } = useWorkspace.getState();
  return `reading/${identity === null ? '' : databaseName(identity)}/${assignmentId}`;
}

function stored(assignmentId: string): ReadingState {
  try {
    return v.parse(ReadingState, JSON.parse(localStorage.getItem(keyOf(assignmentId)) ?? '{}'));
  } catch {
    return v.parse(ReadingState, {});
  }
}

export function useReadingState(
  assignmentId: string,
): [ReadingState, (change: Partial<ReadingState>) => void] {
  const [state, setState] = useState(() => stored(assignmentId));
  const change = (part: Partial<ReadingState>) => {
    const next = { ...state, ...part };
    setState(next);
    localStorage.setItem(keyOf(assignmentId), JSON.stringify(next));
  };
  return [state, change];
}

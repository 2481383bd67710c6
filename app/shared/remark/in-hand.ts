import { create } from 'zustand';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Decision, Stance } from '#core/model/work.ts';
import { partsOf, type RemarkPart } from '#core/saying/remark-parts.ts';
import {
  carryPart,
  decidePart,
  decideRemark,
  setPartStance,
  setStance,
  toggleCarry,
} from '../../workspace/commands/decide.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { sayWhatMoves } from './moved.ts';

/** Which part of which remark is decided about; null: the remark as a whole. */
interface InHand {
  readonly remarkId: string | null;
  /** Where the part begins in the remark's text. */
  readonly from: number | null;
}

const useInHand = create<InHand>(() => ({ remarkId: null, from: null }));

/** Takes a part of a remark in hand, or the whole of it. */
export function takeInHand(remarkId: string, from: number | null): void {
  useInHand.setState({ remarkId, from });
}

/** The part of a remark that is in hand; null where the whole is, or another remark. */
export function usePartInHand(view: AssignmentView, remark: Remark): RemarkPart | null {
  const from = useInHand((state) => (state.remarkId === remark.id ? state.from : null));
  return from === null ? null : partAt(view, remark, from);
}

function partAt(view: AssignmentView, remark: Remark, from: number): RemarkPart | null {
  return partsOf(remark, view).find((part) => part.from === from) ?? null;
}

function partInHand(view: AssignmentView, remark: Remark): RemarkPart | null {
  const { remarkId, from } = useInHand.getState();
  return remarkId === remark.id && from !== null ? partAt(view, remark, from) : null;
}

/** The whole, then each of its parts, then the whole again. */
export function takeNextPart(view: AssignmentView, remark: Remark): void {
  const parts = partsOf(remark, view);
  const now = partInHand(view, remark);
  const at = now === null ? -1 : parts.findIndex(({ from }) => from === now.from);
  takeInHand(remark.id, parts.at(at + 1)?.from ?? null);
}

/** Decides about what is in hand: a part, or the remark as a whole. */
export function decideInHand(
  workspace: Workspace,
  view: AssignmentView,
  remark: Remark,
  decision: Decision,
): Promise<void> {
  const part = partInHand(view, remark);
  return part === null
    ? decideRemark(workspace, remark, decision)
    : decidePart(workspace, remark, part.from, decision);
}

/** Carries what is in hand to the next assignment. */
export function carryInHand(workspace: Workspace, view: AssignmentView, remark: Remark): Promise<void> {
  const part = partInHand(view, remark);
  return part === null ? toggleCarry(workspace, remark) : carryPart(workspace, remark, part.from);
}

/** Says what it says that is in hand. */
export function sayInHand(
  workspace: Workspace,
  view: AssignmentView,
  remark: Remark,
  stance: Stance | null,
): Promise<void> {
  const part = partInHand(view, remark);
  const change =
    part === null
      ? setStance(workspace, remark, stance)
      : setPartStance(workspace, remark, part.from, stance);
  return sayWhatMoves(workspace, view, remark, change);
}

/** The name under which a field of a remark, or of a part of it, is kept while it is typed in. */
export function fieldOf(field: 'note' | 'reply', { id }: Remark, from: number | null): string {
  return from === null ? `${field}/${id}` : `${field}/${id}/${from}`;
}

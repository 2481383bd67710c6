import type { AssignmentView } from '#core/assignment/view.ts';
import {
  proposedDecision,
  sameCalls,
  type ProposedDecision as Proposal,
} from '#core/assignment/proposed-decision.ts';
import type { Remark } from '#core/model/remark.ts';
import { isDecided } from '#core/tally/decided.ts';
import * as words from '../../words/en.ts';
import { decideRemark, decideSame, toggleCarry } from '../../workspace/commands/decide.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import type { Workspace } from '../../workspace/workspace.ts';
import { Button } from '../controls/Controls.tsx';
import { useSingleKeys } from '../page/single-keys.ts';

/** What could be decided about a remark that is not decided, and why; taken with one key. */
export function ProposedDecision({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const workspace = useWorkspace();
  const showKeys = useSingleKeys();
  const proposal = proposalFor(view, remark);
  // What the author's key proposes stands with what the key says.
  if (proposal === null || proposal.why.kind === 'key') return null;
  return (
    <p className="mt-2 flex flex-wrap items-baseline gap-x-3 text-sm text-quiet">
      <span>
        {words.deciding.proposed(words.decisions[proposal.decision])}, {whyTold(proposal.why)}
      </span>
      <Button
        look="quiet"
        className="min-h-0 py-0"
        onClick={() => void takeProposed(workspace, view, remark)}
      >
        {words.deciding.takeProposed}
        {showKeys && (
          <span aria-hidden className="font-normal text-quiet max-md:hidden">
            y
          </span>
        )}
      </Button>
    </p>
  );
}

function proposalFor(view: AssignmentView, remark: Remark): Proposal | null {
  return isDecided(view.judgements.get(remark.id)) ? null : proposedDecision(view, remark);
}

function whyTold(why: Exclude<Proposal['why'], { readonly kind: 'key' }>): string {
  if (why.kind === 'rule') return words.deciding.because.rule(why.rule, why.count);
  return words.deciding.because.stance(words.slip.says(words.stances[why.stance], why.sure));
}

/** Decides as proposed; nothing where nothing is. */
export async function takeProposed(
  workspace: Workspace,
  view: AssignmentView,
  remark: Remark,
): Promise<void> {
  const proposal = proposalFor(view, remark);
  if (proposal === null) return;
  if (proposal.decision === 'carry') await toggleCarry(workspace, remark);
  else await decideRemark(workspace, remark, proposal.decision);
}

/** Undecided remarks that call for the same change, to be decided like this one. */
export function SameCalls({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const workspace = useWorkspace();
  const showKeys = useSingleKeys();
  const same = sameCalls(view, remark);
  if (same.length === 0) return null;
  const decision = view.judgements.get(remark.id)?.decision ?? null;
  const numbers = same.flatMap(({ id }) => view.about.numberByRemark.get(id) ?? []).join(', ');
  return (
    <div className="mt-3 border-t border-dashed border-rule pt-2 text-sm">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span>{words.deciding.sameCalls(numbers, same.length)}</span>
        {decision === null ? (
          <span className="text-quiet">{words.deciding.decideFirst}</span>
        ) : (
          <Button
            look="quiet"
            className="min-h-0 py-0"
            onClick={() => void decideAlike(workspace, view, remark)}
          >
            {words.deciding.decideSame(words.decisions[decision], same.length)}
            {showKeys && (
              <span aria-hidden className="font-normal text-quiet max-md:hidden">
                e
              </span>
            )}
          </Button>
        )}
      </p>
      <ul className="list-disc pl-5 text-quiet">
        {same.map(({ id, text }) => (
          <li key={id} className="line-clamp-2">
            {text}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Decides the remarks that call for the same like this one; nothing where this one is not decided. */
export async function decideAlike(workspace: Workspace, view: AssignmentView, remark: Remark): Promise<void> {
  const decision = view.judgements.get(remark.id)?.decision ?? null;
  const same = sameCalls(view, remark);
  if (decision !== null && same.length > 0) await decideSame(workspace, [remark, ...same], decision);
}

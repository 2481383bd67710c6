import { Toggle } from 'radix-ui';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import type { Remark } from '#core/model/remark.ts';
import { decisions, type Decision, type Judgement } from '#core/model/work.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { decisionsIn } from '#core/tally/decided.ts';
import * as words from '../../words/en.ts';
import { useSingleKeys } from '../page/single-keys.ts';
import { decisionLook } from './decision-look.ts';
import { carryInHand, decideInHand, usePartInHand } from './in-hand.ts';

/** What was decided about a remark, or about its parts, as icon and word; nothing while there is nothing. */
export function DecisionSign({ judgement }: { judgement: Judgement | undefined }) {
  return decisionsIn(judgement).map((decision) => <MadeSign key={decision} made={decision} />);
}

/** One decision as icon and word. */
export function MadeSign({ made }: { made: Decision | 'carry' | null }) {
  if (made === null) return null;
  const { icon: Icon, text } = decisionLook[made];
  return (
    <span className={clsx('inline-flex items-center gap-1 whitespace-nowrap font-semibold', text)}>
      <Icon size="1em" aria-hidden />
      {words.decisions[made]}
    </span>
  );
}

/** The five buttons to decide about a remark, or about the part of it that is in hand. */
export function DecisionButtons({
  view,
  remark,
  large = false,
  onDecide,
}: {
  view: AssignmentView;
  remark: Remark;
  large?: boolean;
  /** For what is no remark yet until it is decided about; without it nothing can be carried. */
  onDecide?: (decision: Decision) => void;
}) {
  const workspace = useWorkspace();
  const part = usePartInHand(view, remark);
  const made = part ?? view.judgements.get(remark.id);
  const showKeys = useSingleKeys();
  const all = onDecide === undefined ? [...decisions, 'carry' as const] : decisions;
  const decide = (decision: Decision | 'carry') => {
    if (decision === 'carry') void carryInHand(workspace, view, remark);
    else if (onDecide !== undefined) onDecide(decision);
    else void decideInHand(workspace, view, remark, decision);
  };
  return (
    <div role="group" aria-label={words.slip.decide} className="flex gap-1 md:flex-wrap">
      {all.map((decision) => {
        const { icon: Icon, text, shortcut } = decisionLook[decision];
        const chosen = decision === 'carry' ? made?.carry === true : made?.decision === decision;
        return (
          <Toggle.Root
            key={decision}
            pressed={chosen}
            onPressedChange={() => decide(decision)}
            className={clsx(
              'inline-flex grow items-center justify-center gap-1 rounded-md border px-1.5 font-semibold',
              'max-md:min-h-14 max-md:w-0 max-md:flex-col max-md:px-0.5 max-md:leading-tight md:whitespace-nowrap',
              large ? 'min-h-11 text-base' : 'min-h-8 text-[0.8rem]',
              chosen ? `border-current bg-surface ${text}` : 'border-rule bg-paper hover:border-rule-strong',
            )}
          >
            <Icon size="1em" aria-hidden />
            {words.decisions[decision]}
            {showKeys && (
              <span aria-hidden className="font-normal text-quiet max-md:hidden">
                {shortcut}
              </span>
            )}
          </Toggle.Root>
        );
      })}
    </div>
  );
}

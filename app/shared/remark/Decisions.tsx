import { Toggle } from 'radix-ui';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import type { Remark } from '#core/model/remark.ts';
import { decisions, type Decision, type Judgement } from '#core/model/work.ts';
import * as words from '../../words/en.ts';
import { decideRemark, toggleCarry } from '../../workspace/commands/decide.ts';
import { useSingleKeys } from '../page/single-keys.ts';
import { decisionLook } from './decision-look.ts';

/** The decision of a remark as icon and word; nothing while there is none. */
export function DecisionSign({ judgement }: { judgement: Judgement | undefined }) {
  const made: (Decision | 'carry')[] = [];
  if (judgement?.decision) made.push(judgement.decision);
  if (judgement?.carry) made.push('carry');
  return made.map((decision) => {
    const { icon: Icon, text } = decisionLook[decision];
    return (
      <span
        key={decision}
        className={clsx('inline-flex items-center gap-1 whitespace-nowrap font-semibold', text)}
      >
        <Icon size="1em" aria-hidden />
        {words.decisions[decision]}
      </span>
    );
  });
}

/** The five buttons to decide about a remark. */
export function DecisionButtons({
  remark,
  judgement,
  large = false,
}: {
  remark: Remark;
  judgement: Judgement | undefined;
  large?: boolean;
}) {
  const workspace = useWorkspace();
  const showKeys = useSingleKeys();
  const all = [...decisions, 'carry' as const];
  return (
    <div role="group" aria-label={words.slip.decide} className="flex gap-1 md:flex-wrap">
      {all.map((decision) => {
        const { icon: Icon, text, shortcut } = decisionLook[decision];
        const chosen = decision === 'carry' ? judgement?.carry === true : judgement?.decision === decision;
        return (
          <Toggle.Root
            key={decision}
            pressed={chosen}
            onPressedChange={() =>
              void (decision === 'carry'
                ? toggleCarry(workspace, remark)
                : decideRemark(workspace, remark, decision))
            }
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

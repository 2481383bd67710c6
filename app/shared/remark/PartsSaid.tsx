import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { inOrderShown, partsOf } from '#core/saying/remark-parts.ts';
import * as words from '../../words/en.ts';
import { MarkedTerms } from './MarkedTerms.tsx';
import { saidBy } from './said.ts';

/**
 * What a remark says, in its own words; where it says different things, each by itself under what it is, what calls for a
 * change first.
 */
export function PartsSaid({
  view,
  remark,
  explained,
}: {
  view: AssignmentView;
  remark: Remark;
  /** Terms of the trade say what they mean. */
  explained: boolean;
}) {
  const parts = partsOf(remark, view);
  if (parts.length === 0)
    return explained ? <MarkedTerms view={view} remark={remark} text={saidBy(remark)} /> : saidBy(remark);
  const { text } = remark;
  const wordsOf = (index: number) => {
    const next = parts.at(index + 1)?.from ?? text.length;
    return text.slice(index === 0 ? 0 : parts[index].from, next);
  };
  return inOrderShown(parts, remark.channel).map(({ from, stance, decision, carry, number }) => (
    <span
      key={from}
      // Said by the style, so that the remark's own words stay as they are when they are copied or looked for.
      data-says={words.slip.partSays(number, words.stances[stance], madeOf(decision, carry))}
      className="block before:mr-1.5 before:text-[0.8em] before:text-quiet before:italic before:content-[attr(data-says)]"
    >
      {explained ? (
        <MarkedTerms view={view} remark={remark} text={wordsOf(number - 1)} />
      ) : (
        wordsOf(number - 1)
      )}
    </span>
  ));
}

function madeOf(decision: keyof typeof words.decisions | null, carry: boolean): string {
  return [
    ...(decision === null ? [] : [words.decisions[decision]]),
    ...(carry ? [words.decisions.carry] : []),
  ].join(', ');
}

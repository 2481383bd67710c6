import type { AssignmentView } from '#core/assignment/view.ts';
import type { Remark } from '#core/model/remark.ts';
import { partsApart } from '#core/saying/saying-of.ts';
import * as words from '../../words/en.ts';
import { saidBy } from './said.ts';

/** A remark's words; where they say several things, each apart, with what it says before it. */
export function PartsSaid({ view, remark }: { view: AssignmentView; remark: Remark }) {
  const parts = partsApart(remark.id, view);
  if (parts.length === 0) return saidBy(remark);
  const { text } = remark;
  return parts.map(({ from, to, stance }, index) => (
    <span
      key={from}
      // Said by the style, so that the remark's own words stay as they are when they are copied or looked for.
      data-says={words.stances[stance]}
      className="block before:mr-1.5 before:text-[0.8em] before:text-quiet before:italic before:content-[attr(data-says)]"
    >
      {text.slice(from, index + 1 < parts.length ? parts[index + 1].from : Math.max(to, text.length))}
    </span>
  ));
}

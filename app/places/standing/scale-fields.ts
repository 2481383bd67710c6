import * as v from 'valibot';
import type { Scale, Step } from '#core/model/facts.ts';
import { decimalIn } from '#core/model/ids.ts';
import * as words from '../../words/en.ts';
import { percentOfShare, shareOfPercent } from '../../shared/controls/rule-fields.ts';

/** A course's own steps of results as text, a step a line: name, from per cent, counts per cent. */

const said = words.standing.form;
const NOTHING = '–';

/** A line as a step; null where it can't be read. */
function stepOfLine(line: string): Step | null {
  const parts = line.split(',').map((part) => part.trim());
  const name = parts[0];
  if (name === '' || parts.length > 3) return null;
  const share = (text: string | undefined) => {
    if (text === undefined || text === '' || /^[-–—]$/.test(text)) return null;
    const number = decimalIn(text.replace(/\s*%$/, ''));
    return number === null ? undefined : shareOfPercent(number);
  };
  const from = share(parts.at(1));
  const worth = share(parts.at(2));
  return from === undefined || worth === undefined ? null : { name, from, worth };
}

function linesOf(text: string): string[] {
  return text.split('\n').filter((line) => line.trim() !== '');
}

export const ScaleFields = v.object({
  id: v.string(),
  title: v.pipe(v.string(), v.trim(), v.minLength(1, said.scaleWanted), v.maxLength(500)),
  steps: v.pipe(
    v.string(),
    v.check((text) => linesOf(text).length > 0, said.stepsWanted),
    v.rawCheck(({ dataset, addIssue }) => {
      if (!dataset.typed) return;
      const wrong = linesOf(dataset.value).findIndex((line) => stepOfLine(line) === null);
      if (wrong >= 0) addIssue({ message: said.stepWrong(wrong + 1) });
    }),
  ),
});
export type ScaleFields = v.InferOutput<typeof ScaleFields>;

export function scaleFields({ id, title, steps }: Scale): ScaleFields {
  const percent = (share: Step['from']) => (share === null ? NOTHING : percentOfShare(share));
  return {
    id,
    title,
    steps: steps.map(({ name, from, worth }) => `${name}, ${percent(from)}, ${percent(worth)}`).join('\n'),
  };
}

export function scaleOfFields({ id, title, steps }: ScaleFields): Scale {
  return { id, title: title.trim(), steps: linesOf(steps).flatMap((line) => stepOfLine(line) ?? []) };
}

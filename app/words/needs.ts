import { many } from './many.ts';

function between(min: number | null, max: number | null): string {
  if (min === null) return `${max} at most`;
  return max === null ? `${min} at least` : `${min} to ${max}`;
}

const asked = (met: boolean, what: string) => (met ? `asked: ${what}` : `asked: ${what}, not met yet`);

export const words = (count: number, min: number | null, max: number | null, met: boolean) =>
  `${many(count, 'word', 'words')}, ${asked(met, between(min, max))}`;
export const sentences = (count: number, min: number, met: boolean) =>
  `${many(count, 'sentence', 'sentences')}, ${asked(met, `${min} at least`)}`;
export const reading = (name: string, met: boolean) =>
  met ? `Reading ${name}: named` : `Reading ${name}: not named yet`;
export const title = 'What is asked';

export const noteWords = (count: number, min: number | null, max: number | null) =>
  `My text has ${count} words, where ${between(min, max)} are asked.`;
export const noteSentences = (count: number, min: number) =>
  `It has ${many(count, 'sentence', 'sentences')}, where ${min} are asked.`;
export const noteReading = (name: string) => `I did not use the reading ${name}.`;
export const noteLate = (due: string) => `I hand this in after it was due (${due}).`;
export const noteFile = (name: string, preferred: string) =>
  `“${name}” is not the .${preferred} file that is preferred.`;
export const noteBecause = 'The reason is: ';
export const propose = 'Put a note that explains this';
export const departs = (count: number) =>
  count === 1
    ? 'What goes departs from what is asked in one thing. Say why in a note:'
    : `What goes departs from what is asked in ${count} things. Say why in a note:`;

import type { Stance } from '../model/work.ts';
import { sentencesOf } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { shortMarkIn } from './abbreviations.ts';
import type { Saying } from './saying.ts';
import { lower, upper, cut } from './task-forms.ts';
import {
  bare,
  complaintOf,
  demandOf,
  firstOf,
  questionOf,
  shortMarkOf,
  subjectOf,
} from './task-sentences.ts';

const BY_WEIGHT: readonly Stance[] = [
  'must-fix',
  'fix',
  'polish',
  'question',
  'advice',
  'pointer',
  'praise',
  'note',
];

/** Of parts that call for a change, whichever says best what is to be done tells. */
const MENDED: ReadonlySet<Stance> = new Set(['must-fix', 'fix', 'polish']);

/** What is done about a part that says nothing that could be done. */
const ELSE: Readonly<Record<Stance, string>> = {
  'must-fix': 'Correct this',
  fix: 'Put this right',
  polish: 'Mend this',
  question: 'Answer in the text',
  advice: 'Keep in mind',
  pointer: 'Look this up',
  praise: 'Go on as in',
  note: 'Look at this again',
};

/** "ask for evidence", "are about the order": what a mark is about by its key is the rest. */
const BEFORE_MEANING =
  /^(?:(?:it |this |they )?(?:asks?|calls?|stands?|are|is) (?:for|about)|(?:it |this |they )?means?|about|for) /i;

/** What is to be done about a remark that says this; of a mark without words by its author's key. null where nobody knows. */
export function taskFor(text: string, saying: Saying): string | null {
  const { because, stance } = saying;
  const short = shortMarkIn(text);
  const isMark = text.trim() === '' || short === text.trim().replace(/[.:]$/, '').toLowerCase();
  if (because?.kind !== 'key' || !isMark) return taskWording(text, saying.parts);
  const about = because.meaning.replace(BEFORE_MEANING, '');
  return taskWording(about, [{ from: 0, to: about.length, stance }]);
}

/**
 * What is to be done about a remark, from the part that asks most: in words that begin with what to do, never the complaint
 * alone; null for a remark without words.
 */
export function taskWording(
  text: string,
  parts: readonly (Span & { readonly stance: Stance })[],
): string | null {
  if (text.trim() === '') return null;
  const byWeight = BY_WEIGHT.flatMap((stance) => parts.filter((part) => part.stance === stance));
  const calling = byWeight.filter(({ stance }) => MENDED.has(stance));
  const asked = calling.length > 0 ? calling : byWeight.slice(0, 1);
  const stance = asked.at(0)?.stance ?? 'fix';
  const said = asked.length > 0 ? asked.map(({ from, to }) => text.slice(from, to)) : [text];
  const sentences = said.flatMap(sentencesOf).map(bare).filter(Boolean);
  const found =
    firstOf(sentences, demandOf) ??
    firstOf(sentences, shortMarkOf) ??
    firstOf(sentences, questionOf) ??
    firstOf(sentences, complaintOf) ??
    firstOf(sentences, (sentence) => subjectOf(sentence, stance));
  const wording = found ?? `${ELSE[stance]}: ${lower(sentences.at(0) ?? text.trim())}`;
  return cut(upper(wording));
}

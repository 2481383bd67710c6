import type { LookLine } from './line.ts';
import type { Requirement } from '../model/look.ts';
import type { Met } from './requirement.ts';

/** The sentences of the last look, for the interface and the command line alike. */

const quoted = (words: string) =>
  `“${words.length > MOST_SHOWN ? `${words.slice(0, MOST_SHOWN)} …` : words}”`;
/** So much of what stands there is repeated. */
const MOST_SHOWN = 70;

/** What a line says. */
export function saidOf({ kind, words, beside, also }: LookLine): string {
  const times = also.length === 0 ? '' : `, ${also.length + 1} times`;
  switch (kind) {
    case 'no answer':
      return `Nothing near here answers ${quoted(beside)}.`;
    case 'changed here, not there':
      return `${quoted(words)} stands here still${times}; elsewhere you made it ${quoted(beside)}.`;
    case 'struck, still elsewhere':
      return `${quoted(words)} was taken out where the remark is, and stands here still${times}.`;
    case 'cited, not listed':
      return `${quoted(words)} is cited, and nothing in the list of references goes with it.`;
    case 'quotation without citation':
      return `${quoted(words)} is in quotation marks, and no citation stands with it.`;
    case 'year differs':
      return `${quoted(words)} has another year than the list of references (${beside || 'none'}).`;
    case 'quotation without page':
      return `${quoted(words)} is quoted without a page.`;
    case 'citation without year':
      return `${quoted(words)} is named without a year.`;
    case 'listed, not cited':
      return `${quoted(words)} is in the list of references, and never cited.`;
    case 'text and table differ':
      return `The text has ${words}, the table ${beside}.`;
    case 'not there':
      return `The text names ${beside}, and nothing has that caption.`;
    case 'never named':
      return `The text never names ${beside}.`;
    case 'spelling':
      return `${quoted(words)} is in no dictionary${times}.`;
    case 'repeated word':
      return `${quoted(words)}: a word twice.`;
    case 'capital':
      return `${quoted(words)} begins a sentence with a small letter.`;
    case 'unpaired mark':
      return `${quoted(words)}: the mark has no pair in this paragraph.`;
    case 'two spellings':
      return `${quoted(words)} is spelt ${quoted(beside)} on the side of the sea that the rest is on.`;
  }
}

const count = (n: number, one: string, many: string) => `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

function between(min: number | null, max: number | null, unit: string): string {
  if (min !== null && max !== null)
    return `${min.toLocaleString('en')} to ${max.toLocaleString('en')} ${unit}`;
  return min !== null
    ? `at least ${count(min, unit.slice(0, -1), unit)}`
    : `at most ${count(max ?? 0, unit.slice(0, -1), unit)}`;
}

/** What a requirement asks for. */
export function askedBy(asks: Requirement): string {
  switch (asks.kind) {
    case 'words':
      return (
        between(asks.min, asks.max, 'words') + (asks.withoutReferences ? ', without the references' : '')
      );
    case 'pages':
      return between(asks.min, asks.max, 'pages');
    case 'sources':
    case 'figures':
    case 'tables':
    case 'sentences':
      return between(asks.min, null, asks.kind);
    case 'section':
      return `a part headed “${asks.name}”`;
    case 'title block':
      return 'a title block';
    case 'file types':
      return `a file of kind ${asks.types.join(' or ')}`;
    case 'quotations cited':
      return 'a citation with each quotation';
  }
}

/** Whether a requirement is met, in a sentence. */
export function metSaid(asks: Requirement, { met, count: found }: Met): string {
  const wanted = askedBy(asks);
  const here = found === null ? '' : ` (${found.toLocaleString('en')} here)`;
  if (met === null) return `Asked for: ${wanted}. It can’t be told from the text.`;
  return met ? `There: ${wanted}${here}.` : `Not there: ${wanted}${here}.`;
}

import { tagsOf } from './lexicon.ts';

/** Forms of words that the wording of tasks is made of. */

/** Verbs that ask for something, beside those of the lexicon. */
const MORE_VERBS = new Set(
  'handle fold staple slow speak stand breathe sharpen sign initial centre center capitalize capitalise trust save press dust sand learn practise practice listen watch recalculate reread rerun dig walk wait stir believe commit sort mind date hyphenate italicise italicize translate rule wear wash sit dare catch prioritize extract sketch rinse underline double-space align crop beam rotate take see consult avoid stick lead quote argue hold keep print sew cook hang push pull turn hand type scan plot tabulate interview photograph log count date relabel renumber restate resubmit rework rethink rebuild retake redraw remeasure reconsider'.split(
    ' ',
  ),
);

/** Whether a word in small letters is a verb that asks for something. */
export function asksFor(word: string): boolean {
  return tagsOf(word).includes('act') || MORE_VERBS.has(word);
}

/** Verbs whose plain form is not found by taking their ending off. */
export const PLAIN_OF: Readonly<Record<string, string>> = {
  made: 'make',
  said: 'say',
  shown: 'show',
  told: 'tell',
  given: 'give',
  done: 'do',
  written: 'write',
  drawn: 'draw',
  broken: 'break',
  taken: 'take',
  rewritten: 'rewrite',
  redrawn: 'redraw',
};

/** A verb without its ending, where it has one that can be taken off: "saying" is "say". */
export function plainForm(verb: string): string {
  const small = verb.toLowerCase();
  if (asksFor(small)) return small;
  const stem = small.replace(/(?:ing|ed)$/, '');
  const doubled = stem.replace(/(.)\1$/, '$1');
  return [stem, `${stem}e`, doubled, small.replace(/ied$/, 'y')].find(asksFor) ?? small;
}

/** Subjects that name nothing: what is wrong has to be said by itself. */
export const NAMES_NOTHING =
  /^(?:it|this|that|these|those|they|there|here|i|you|we|he|she|one|nobody|no one|nothing|everybody|everyone|everything|somebody|what|which|who|all|most|some|half|many|much|none|both|neither|if|when|while|since|because|as|although|though|not|how|why|in|on|at|by|for|from|with|to|of|after|before|under)\b/i;

/** What is asked for, without its question mark; null where it is denied. */
export function asVerb(what: string): string | null {
  const [first] = what.toLowerCase().split(/\s/);
  return tagsOf(first).includes('not') && first !== 'not' ? null : what.replace(/\?+$/, '');
}

/** What is missing, with an article where one is wanted: "a source", "units". */
export function oneOf(what: string): string {
  const [first = ''] = what.split(' ');
  const isNamed =
    /^(?:an?|the|any|some|more|other|clear|real|\d+|\W.*)$/i.test(first) && !/^(?:clear|real)$/i.test(first);
  const head = /^(.*?)(?: (?:of|for|in|on|to|with|from|between|at|by|about)\b.*)?$/i.exec(what)?.[1] ?? what;
  if (
    isNamed ||
    /s$/i.test(head) ||
    /^(?:evidence|proof|support|detail|context|structure|information|water|time)$/i.test(head)
  )
    return what;
  return `${/^[aeiou]/i.test(what) ? 'an' : 'a'} ${what}`;
}

/** What is to be added, with an article where one is wanted. */
export function some(what: string): string {
  const [first = '', ...more] = what.split(' ');
  const isNamed = /^(?:an?|the|any|some|more|your|its|this|these|all|each|other|which|what|\d+|\W.*)$/i.test(
    first,
  );
  const head = /^(.*?)(?: (?:of|for|in|on|to|with|from|between|at|by|about)\b.*)?$/i.exec(what)?.[1] ?? what;
  return isNamed || /s$/i.test(head) || more.length > 6 ? lower(what) : `the ${lower(what)}`;
}

/** In small letters at its beginning, but for names and the like. */
export function lower(text: string): string {
  return /^(?:I\b|\p{Lu}{2}|\p{Lu}\p{Ll}+ \p{Lu})/u.test(text)
    ? text
    : text.charAt(0).toLowerCase() + text.slice(1);
}

/** In a capital at its beginning. */
export function upper(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** A wording is cut at a word where it is longer. */
const MOST_CHARACTERS = 90;

/** Cut at a word where it is longer than a task’s wording. */
export function cut(text: string): string {
  if (text.length <= MOST_CHARACTERS) return text;
  const beginning = text.slice(0, MOST_CHARACTERS);
  return `${beginning.slice(0, Math.max(beginning.lastIndexOf(' '), MOST_CHARACTERS / 4))} …`;
}

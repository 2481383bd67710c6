import { placeOf, quotedWords, type Remark } from '../model/remark.ts';
import type { Stance } from '../model/work.ts';

/** What a report says that a match stands in, where that settles it. */
const STANDS: readonly (readonly [RegExp, Stance])[] = [
  // Everybody's: the brief, the template, the sheet that was handed out.
  [
    /\b(?:brief|template|set for the course|given to (?:all|everybody)|everybody was given|assignment sheet)\b/i,
    'note',
  ],
  [/\b(?:reference list|bibliography|of a reference|works cited|list of (?:references|sources))\b/i, 'note'],
  [/\b(?:fixed phrase|common phrase|title of)\b/i, 'note'],
  // Whether own earlier work, or that of somebody one worked with, may stand is the instructor's to say.
  [/\b(?:your own|own earlier|earlier attempt|own work)\b/i, 'question'],
  [/\b(?:fellow student|another student|other student)\b/i, 'question'],
];

/** A line of a reference list: names with initials, a year in brackets or after a stop. */
const REFERENCE = /^\p{Lu}[\p{L}'’-]+, (?:\p{Lu}\.[ -]?)+.*\b(?:1[5-9]|20)\d\d\b/u;
/** A source that is named in the running text: "(Abery, 2011)", "Abery (2011)", "[4]". */
const SOURCE = /\([^()]*\b(?:1[5-9]|20)\d\d[a-z]?\b[^()]*\)|\[\d{1,3}(?:[,–-] ?\d{1,3})*\]/;
const OPENS = /["“‘«]\s*$/;
const CLOSES = /^\s*["”’»]/;

/**
 * What a match of an originality report says, by what it is (computation.md 5, Advice): words taken over without mark and
 * source must be fixed, words with one of the two are to be fixed, words with both stand as they are, and so does what is
 * everybody's: a line of the reference list, the brief, a template. Own earlier words and a fellow student's are asked about.
 */
export function stanceOfMatch(remark: Remark): Stance {
  const told = STANDS.find(([pattern]) => pattern.test(remark.text));
  if (told !== undefined) return told[1];
  const exact = quotedWords(remark) ?? '';
  if (REFERENCE.test(exact)) return 'note';
  const place = placeOf(remark);
  const { prefix, suffix } = place.kind === 'words' ? place.quote : { prefix: '', suffix: '' };
  const isMarked = (OPENS.test(prefix) && CLOSES.test(suffix)) || /^["“‘«].*["”’»]\.?$/s.test(exact);
  const namesSource = SOURCE.test(exact) || SOURCE.test(suffix) || SOURCE.test(prefix);
  if (isMarked && namesSource) return 'note';
  return isMarked || namesSource ? 'fix' : 'must-fix';
}

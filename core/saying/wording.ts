import { quotedWords, type Remark } from '../model/remark.ts';
import { normaliseText } from '../text/normalise.ts';

/** Words that a remark proposes in place of others; "" for nothing: words put in, or taken out. */
export interface SuggestedWording {
  readonly before: string;
  readonly after: string;
  /** sure: the mark itself is a change; likely: a phrase that names both; perhaps: struck words with a short note. */
  readonly confidence: 'sure' | 'likely' | 'perhaps';
}

const QUOTED = '["“‘\']([^"”’\']{1,80})["”’\']';
const BARE = '([\\p{L}\\d.%-]+(?: [\\p{L}\\d.%-]+){0,3})';

/** Phrases that name old and new words, and which of the two groups is the new one. */
const PHRASES: readonly { readonly pattern: RegExp; readonly after: 1 | 2 }[] = [
  {
    pattern: new RegExp(
      `\\b(?:use|say|write|put|take) ${QUOTED} (?:instead of|rather than|for|not) ${QUOTED}`,
      'iu',
    ),
    after: 1,
  },
  {
    pattern: new RegExp(`\\b(?:replace|change|swap) ${QUOTED} (?:with|by|to|for|into) ${QUOTED}`, 'iu'),
    after: 2,
  },
  {
    pattern: new RegExp(`${QUOTED},? (?:should be|should read|must be|needs to be|becomes) ${QUOTED}`, 'iu'),
    after: 2,
  },
  { pattern: new RegExp(`^${QUOTED},? not ${QUOTED}`, 'iu'), after: 1 },
  { pattern: new RegExp(`${QUOTED} (?:→|->|=>) ${QUOTED}`, 'iu'), after: 2 },
  {
    pattern: new RegExp(`^(?:use |say |write )?${BARE} (?:instead of|rather than) ${BARE}[.!]?$`, 'iu'),
    after: 1,
  },
  { pattern: new RegExp(`^${BARE} ?(?:→|->|=>) ?${BARE}$`, 'iu'), after: 2 },
  { pattern: new RegExp(`^${BARE}, not ${BARE}[.!]?$`, 'iu'), after: 1 },
];

/** What names only the new words, for the words that the remark hangs on. */
const NEW_ONLY: readonly RegExp[] = [
  new RegExp(
    `^(?:better|rather|should be|should read|read|write|say|make (?:this|it))[: ]+${QUOTED}[.!]?$`,
    'iu',
  ),
  new RegExp(`^${QUOTED}[.!]?$`, 'iu'),
];

/** A note on struck words that is no longer than this may be what is to stand there. */
const NOTE_WORDS = 4;
/** A note that speaks about the words is no wording. */
const SPEAKS =
  /\b(?:why|what|delete|cut|remove|repeat\w*|unclear|vague|wrong|no|not|see|source|redundant|again|this|you|too|avoid|informal|wordy|awkward|page)\b|[?!:;]/i;

/**
 * Old and new words that a remark suggests; null where it suggests none. Never to be applied unseen.
 * A tracked change is sure; phrases such as use "X" instead of "Y" are likely; a short note on struck words is perhaps
 * their replacement.
 */
export function suggestedWording(
  remark: Pick<Remark, 'text' | 'kind' | 'change' | 'targets'>,
): SuggestedWording | null {
  const { change, kind } = remark;
  if (change !== null && change.kind !== 'format')
    return change.kind === 'move' ? null : { before: change.before, after: change.after, confidence: 'sure' };
  const text = normaliseText(remark.text);
  const about = quotedWords(remark);
  for (const { pattern, after } of PHRASES) {
    const found = pattern.exec(text);
    if (found === null) continue;
    const [first, second] = [found[1], found[2]];
    return {
      before: after === 1 ? second : first,
      after: after === 1 ? first : second,
      confidence: 'likely',
    };
  }
  if (about === null) return null;
  for (const pattern of NEW_ONLY) {
    const found = pattern.exec(text);
    if (found !== null && found[1].toLowerCase() !== about.toLowerCase())
      return { before: about, after: found[1], confidence: 'likely' };
  }
  if (kind !== 'strikeout') return null;
  if (text === '') return { before: about, after: '', confidence: 'likely' };
  if (/^(?:delete|cut|remove|out|not needed|redundant)\.?$/i.test(text))
    return { before: about, after: '', confidence: 'likely' };
  const short = text.split(' ').length <= NOTE_WORDS && !SPEAKS.test(text) && !/[.]\s*\S/.test(text);
  return short ? { before: about, after: text.replace(/\.$/, ''), confidence: 'perhaps' } : null;
}

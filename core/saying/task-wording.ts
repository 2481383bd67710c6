import type { Stance } from '../model/work.ts';
import { sentencesOf } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { tagsOf } from './lexicon.ts';

/** A wording is cut at a word where it is longer. */
const MOST_CHARACTERS = 90;

/** What a sentence begins with before it says what is to be done. */
const BEFORE_IT =
  /^(?:(?:(?:yes|yeah|no)(?=[,!.])|so|and|but|or|then|also|well|ok|okay|right|now|oh|oops|hm+|um+|er|honestly|maybe|perhaps|please|pls|do(?! not\b)|just|again|here|still|simply|first|firstly|next|instead|rather|look|come on|sure|sorry|nit|tip|target|remember|my wish|small thing|little thing|to pass|next step(?: in this answer)?|one thing|essential|at the moment)\b[,:!.…–—-]*\s+)+/i;
/** Points that are named before what they were lost for. */
const POINTS_FIRST =
  /^(?:[-−–]? ?[\d.,½]+|half|minus \w+|one|two|three|four|five|ten)(?: ?(?:a|of|the|more|points?|marks?|pts?\.?|%|per cent|off|lost|gone|deducted|less|short|down))*\b[:,;–—]? +(?:for |because |since |as |due to )?|^(?:you|i)(?:['’]ve| have)?(?: had to)? (?:lost?e?|took|take|taken|deducted)\b.{0,40}?\b(?:because|as|since|for)\b +/i;
/** Verbs that ask for something, beside those of the lexicon. */
const MORE_VERBS = new Set(
  'fold staple slow speak stand breathe sharpen sign initial centre center capitalize capitalise trust save press dust sand learn practise practice listen watch recalculate reread rerun dig walk wait stir believe commit sort mind date hyphenate italicise italicize translate rule wear wash sit dare catch prioritize extract sketch rinse underline double-space align crop beam rotate take see'.split(
    ' ',
  ),
);
/** How demands begin that are no plain verb. */
const BEGINS_A_DEMAND =
  /^(?:don['’]t|do not|never|avoid|be|let|have another|see that|make sure|more|fewer|less)\b/i;

type Wording = (found: RegExpExecArray) => string | null;

const VERB = '([a-z]+\\b.*)';
/** Sentences that say what is to be done, and how that is worded. */
const DEMANDS: readonly (readonly [RegExp, Wording])[] = [
  [
    new RegExp(
      `^you(?:['’]ll| will|['’]d)? (?:really |also |just |still |clearly )*(?:must|need to|have to|ought to|want to|should|could|might|may|can)(?: (?:perhaps|also|usefully|just|well|even|want to|like to|need to|have to|do well to|with profit,?|with advantage)\\b,?)* ${VERB}`,
      'i',
    ),
    ([, what]) => asVerb(what),
  ],
  [
    new RegExp(
      `^(?:can|could|would|might|may|will) (?:you|we|i)(?: (?:perhaps|please|maybe|possibly|also|not))* (?:consider |mind )?${VERB}`,
      'i',
    ),
    ([, what]) => asVerb(what),
  ],
  [new RegExp(`^(?:would you )?mind ([a-z]+ing\\b.*)`, 'i'), ([, what]) => `Try ${what}`],
  [
    /^(?:i(?:['’]d| would| should) (?:(?:also|really|have|just|still|therefore) )*)(?:like|liked|love|loved|want|welcome|welcomed|expect|expected|prefer|hope|be grateful for|wish for)(?: here)?(?: you)? to (?:see|hear|read|have|get|find)(?: about)? (.+)/i,
    ([, what]) => `Add ${what}`,
  ],
  [
    /^(?:i(?:['’]d| would| should) (?:(?:also|really|have|just|still) )*)(?:like|liked|love|loved|want|wanted) (?:to know|to be told) (.+)/i,
    ([, what]) => `Say ${what}`,
  ],
  [
    /^(?:i(?:['’]d| would| should) (?:(?:also|really|have|just|still) )*)(?:like|liked|love|loved|want|welcome|welcomed|expect|expected|be grateful for) (.+)/i,
    ([, what]) => `Add ${what}`,
  ],
  [
    new RegExp(`^i(?:['’]d| would| should) (?:(?:also|really|just|still|only) )*${VERB}`, 'i'),
    ([, what]) => asVerb(what),
  ],
  [
    /^(?:it|this|that|they|the \w+) (?:would|could|might|may)(?: \w+)? (?:be|help|strengthen|work|make)\b.*?\b(?:if you|to) ([a-z]+\b.*)/i,
    ([, what]) => asVerb(what),
  ],
  [
    /^(?:try|consider|think about|worth|how about|what about|why not) (?:to )?([a-z]+ing\b.*)/i,
    ([, what]) => `Try ${what}`,
  ],
  [
    /^(?:this|it|the .{1,40}?|your .{1,40}?|these .{1,40}?)? ?(?:needs|need|requires|wants|deserves|calls for|could do with|would (?:benefit|gain|profit) from) (?!to\b)(.+)/i,
    (found) => give(found),
  ],
];
/** Sentences that say what is wrong, and what is to be done about it. */
const COMPLAINTS: readonly (readonly [RegExp, Wording])[] = [
  [
    /^(?:there(?:['’]s| is| are)|you(?:['’]ve| have)(?: got)?|you give|it has|has|with) no (.+?)(?:,.*)?$/i,
    ([, what]) => `Add ${some(what)}`,
  ],
  [/^no (?!longer\b|doubt\b)(.+?)(?:[,:;–—].*)?$/i, ([, what]) => `Add ${some(what)}`],
  [/^(?:missing|lacks|lacking|omits|needs?|add)[: ]+(.+)/i, ([, what]) => `Add ${some(what)}`],
  [
    /^(.+?) (?:is|are|was|were)(?: still| also| completely| entirely)? (?:missing|absent|not there|not included|not given|needed|required)\b.*/i,
    ([, what]) => `Add ${some(what)}`,
  ],
  [/^(.+?) (?:missing|needed|required|please)$/i, ([, what]) => `Add ${some(what)}`],
  [
    /^(.+?) (?:isn['’]t|aren['’]t|is not|are not|is never|are never|not)(?: yet| clearly)? (explained|defined|discussed|mentioned|described|shown|supported|justified|labelled|introduced|identified|stated|compared|answered|cited|linked)\b.*/i,
    ([, what, done]) => `${VERB_OF[done.toLowerCase()]} ${lower(what)}`,
  ],
  [
    /^(.+?) (?:undefined|unexplained|unsupported|unclear|vague|muddled|confusing|confused)$/i,
    ([, what]) => `Make ${lower(what)} clear`,
  ],
  [
    /^(.+?) (?:is|are) (?:\w+ )?(?:unclear|not clear|vague|confusing|muddled|hard to follow)\b.*/i,
    ([, what]) => `Make ${lower(what)} clear`,
  ],
  [
    /^(?:it isn['’]t clear|it is not clear|it['’]s not clear|not clear|unclear|i(?:['’]m| am| was) (?:not (?:\w+ )?|un)sure|i (?:don['’]t|can['’]t|couldn['’]t|didn['’]t|cannot|could not|did not)(?: quite| really)? (?:see|understand|tell|follow|know|get|work out))(?: for me| to me)? ((?:why|how|what|where|who|which|whether|if|when|from where)\b.*)/i,
    ([, what]) => `Say ${what}`,
  ],
  [
    /^(?:unclear|vague|muddled|confusing|confused|not clear|imprecise|ambiguous|obscure)\b.*/i,
    () => 'Make this clear',
  ],
  [
    /^(?:too|rather|far too) (?:long|wordy|much|many)\b(?: of)?(.*)/i,
    ([, what]) => (what.trim() === '' ? 'Shorten this' : `Cut back${what}`),
  ],
  [/^(?:too|rather|very) (?:vague|general|broad|sweeping)\b.*/i, () => 'Be more specific here'],
  [
    /^(?:thin|undeveloped|underdeveloped|superficial|sketchy|brief|too short|too thin)\b.*/i,
    () => 'Say more here',
  ],
  [/^(?:narrative|descriptive|summary|description)\b.*/i, () => 'Argue here, and do not only tell'],
  [/^(?:repetitive|repetition|rep|redundant)\b.*/i, () => 'Say this only once'],
];
/** Marks of one word or two, by what they ask for. */
const SHORT_MARKS: Readonly<Record<string, string>> = {
  source: 'Give the source',
  sources: 'Give the sources',
  evidence: 'Give evidence for this',
  ev: 'Give evidence for this',
  reference: 'Give the reference',
  citation: 'Give the citation',
  ref: 'Give the reference',
  cite: 'Give the source',
  authority: 'Give the authority for this',
  units: 'Give the units',
  unit: 'Give the unit',
  why: 'Say why',
  how: 'Say how',
  so: 'Say what follows from this',
  'so what': 'Say what follows from this',
  who: 'Say who',
  where: 'Say where',
  when: 'Say when',
  dates: 'Give the dates',
  date: 'Give the date',
  numbers: 'Give numbers',
  relevance: 'Say how this bears on the question',
  rel: 'Say how this bears on the question',
  expand: 'Say more here',
  dev: 'Develop this',
  spec: 'Be more specific here',
  sp: 'Mend the spelling',
  spelling: 'Mend the spelling',
  tense: 'Mend the tense',
  ww: 'Find the right word',
  gr: 'Mend the grammar',
  grammar: 'Mend the grammar',
  frag: 'Make this a whole sentence',
  fragment: 'Make this a whole sentence',
  'r/o': 'Part this sentence',
  'run-on': 'Part this sentence',
  awk: 'Word this better',
  awkward: 'Word this better',
  clumsy: 'Word this better',
  wordy: 'Say this in fewer words',
  punct: 'Mend the punctuation',
  cap: 'Mend the capital letters',
  agr: 'Make verb and subject agree',
  '??': 'Make this clear',
  '?': 'Make this clear',
};
const VERB_OF: Readonly<Record<string, string>> = {
  explained: 'Explain',
  defined: 'Define',
  discussed: 'Discuss',
  mentioned: 'Mention',
  described: 'Describe',
  shown: 'Show',
  supported: 'Support',
  justified: 'Justify',
  labelled: 'Label',
  introduced: 'Introduce',
  identified: 'Identify',
  stated: 'State',
  compared: 'Compare',
  answered: 'Answer',
  cited: 'Cite',
  linked: 'Link',
};
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
    firstOf(sentences, complaintOf);
  const wording = found ?? `${ELSE[stance]}: ${lower(sentences.at(0) ?? text.trim())}`;
  return cut(upper(wording));
}

function firstOf(sentences: readonly string[], worded: (sentence: string) => string | null): string | null {
  for (const sentence of sentences) {
    const found = worded(sentence);
    if (found !== null) return found;
  }
  return null;
}

/** A sentence without what is only said before it, and without its stop. */
function bare(sentence: string): string {
  return sentence
    .trim()
    .replace(POINTS_FIRST, '')
    .replace(BEFORE_IT, '')
    .replace(/[\s.!…]+$/, '')
    .trim();
}

function worded(rows: readonly (readonly [RegExp, Wording])[], sentence: string): string | null {
  for (const [pattern, wording] of rows) {
    const found = pattern.exec(sentence);
    const said = found === null ? null : wording(found);
    if (said !== null) return said;
  }
  return null;
}

function demandOf(sentence: string): string | null {
  const asked = sentence.replace(/\?+$/, '');
  const [first = ''] = asked.toLowerCase().split(/[\s,:]+/);
  const isVerb = asksFor(first) && asked.includes(' ');
  if (isVerb || BEGINS_A_DEMAND.test(asked)) return asked;
  // What is asked for may stand after what is wrong: "One sentence on limitation: give the date".
  const after = asked
    .split(/[:;–—] /)
    .slice(1)
    .map(bare);
  return (
    worded(DEMANDS, asked) ??
    firstOf(after, (clause) => (asksFor(clause.toLowerCase().split(' ')[0]) ? clause : null))
  );
}

function shortMarkOf(sentence: string): string | null {
  const mark = sentence.toLowerCase().replace(/[.?!]+$/, '') || sentence;
  return Object.hasOwn(SHORT_MARKS, mark) ? SHORT_MARKS[mark] : null;
}

function questionOf(sentence: string): string | null {
  if (!sentence.endsWith('?')) return null;
  const asked = sentence.replace(/\?+$/, '');
  if (
    /^(?:why|how|what|which|who|whose|whom|where|when|is|are|was|were|do|does|did|has|have|had|can|could|would|should|isn['’]t|aren['’]t|doesn['’]t|don['’]t|(?:at|by|in|on|for|from|to|of|with|under) (?:which|what|whom|whose|how))\b/i.test(
      asked,
    )
  )
    return `Answer in the text: ${lower(asked)}?`;
  return `Say in the text: ${lower(asked)}`;
}

function complaintOf(sentence: string): string | null {
  return worded(COMPLAINTS, sentence);
}

/** What is asked for, without its question mark; null where it is denied. */
function asVerb(what: string): string | null {
  const [first] = what.toLowerCase().split(/\s/);
  return tagsOf(first).includes('not') && first !== 'not' ? null : what.replace(/\?+$/, '');
}

function give([sentence, what]: RegExpExecArray): string {
  const subject =
    /^(.*?) ?(?:needs|need|requires|wants|deserves|calls for|could do with|would)\b/i.exec(sentence)?.[1] ??
    '';
  return subject === '' || /^(?:it|this)$/i.test(subject) ? `Add ${what}` : `Give ${lower(subject)} ${what}`;
}

function asksFor(word: string): boolean {
  return tagsOf(word).includes('act') || MORE_VERBS.has(word);
}

/** What is to be added, with an article where one is wanted. */
function some(what: string): string {
  const [first = '', ...more] = what.split(' ');
  const isNamed = /^(?:an?|the|any|some|more|your|its|this|these|all|each|other|which|what|\d+|\W.*)$/i.test(
    first,
  );
  const head = /^(.*?)(?: (?:of|for|in|on|to|with|from|between|at|by|about)\b.*)?$/i.exec(what)?.[1] ?? what;
  return isNamed || /s$/i.test(head) || more.length > 6 ? lower(what) : `the ${lower(what)}`;
}

/** In small letters at its beginning, but for names and the like. */
function lower(text: string): string {
  return /^(?:I\b|\p{Lu}{2}|\p{Lu}\p{Ll}+ \p{Lu})/u.test(text)
    ? text
    : text.charAt(0).toLowerCase() + text.slice(1);
}

function upper(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

function cut(text: string): string {
  if (text.length <= MOST_CHARACTERS) return text;
  const beginning = text.slice(0, MOST_CHARACTERS);
  return `${beginning.slice(0, Math.max(beginning.lastIndexOf(' '), MOST_CHARACTERS / 4))} …`;
}

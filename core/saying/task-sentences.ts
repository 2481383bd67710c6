import type { Stance } from '../model/work.ts';
import {
  asksFor,
  PLAIN_OF,
  plainForm,
  NAMES_NOTHING,
  asVerb,
  oneOf,
  some,
  lower,
  upper,
} from './task-forms.ts';

/** What a sentence of a remark asks for, worded as something to be done. */

/** What a sentence begins with before it says what is to be done. */
const BEFORE_IT =
  /^(?:(?:(?:yes|yeah|no)(?=[,!.])|so(?! (?:much|many|far|long)\b)|and|but|or|then|also|well|ok|okay|right|now|oh|oops|hm+|um+|er|honestly|maybe|perhaps|please|pls|do(?! not\b)|just|again|here|still|simply|first|firstly|next|instead|rather|look|come on|sure|sorry|nit|tip|target|remember|my wish|small thing|little thing|to pass|next step(?: in this answer)?|one thing(?: that i noticed)?(?: is(?: that)?)?|i(?:['’]d)? (?:think|feel|believe|suggest|say|suspect)(?: that)?|what i['’]d do is,?|(?:it['’]s )?(?:a )?(?:shame|pity)(?: that)?|essential|at the moment)\b[,:!.…–—-]*\s+)+/i;

/** Points that are named before what they were lost for. */
const POINTS_FIRST =
  /^(?:[-−–]? ?[\d.,½]+|half|minus \w+|one|two|three|four|five|ten)(?: ?(?:a|of|the|more))*(?: ?(?:points?|marks?|pts?\.?|%|per cent|off|lost|gone|deducted|less|short|down)\b)+[:,;–—]? +(?:for |because |since |as |due to )?|^[-−–] ?[\d.,½]+[:,;–—]? +(?:for |because |since |as |due to )?|^(?:you|i)(?:['’]ve| have)?(?: had to)? (?:lost?e?|took|take|taken|deducted)\b.{0,40}?\b(?:because|as|since|for)\b +/i;

type Wording = (found: RegExpExecArray) => string | null;

/** How demands begin that are no plain verb. */
const BEGINS_A_DEMAND =
  /^(?:don['’]t|do not|never|avoid|be|let|have another|see that|make sure|more|fewer|less)\b/i;

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
  [
    /^(.{2,60}?) (?:needs?|has|have|should|must|ought|could|wants?)(?: to)?(?: still| also)? be (?:more |better |further )?(\w+(?:ed|en|wn)|cut|made|put|said|shown|told|split|read|given|done)\b(.*)/i,
    ([, subject, done, rest]) => {
      const verb = PLAIN_OF[done.toLowerCase()] ?? plainForm(done);
      return NAMES_NOTHING.test(subject) && !/^(?:it|this|that|these|those|they)$/i.test(subject)
        ? null
        : `${upper(verb)} ${/^(?:it|this|that|these|those|they)$/i.test(subject) ? 'this' : lower(subject)}${rest}`;
    },
  ],
  [
    /^you(?:['’]ll)? (?:need|must have|have to have|are to have|should have) ((?:at least|a|an|some|more|another|two|three|four|five|six|\d+) [^;,.]+)/i,
    ([, what]) => `Add ${what}`,
  ],
  [
    /^(?!you|i\b).{2,40} (?:would|will|might|may) (?:want|like|need|love) to (?:know|see|hear) (.+)/i,
    ([, what]) => `Say ${what}`,
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
    new RegExp(
      `^(?:it|this|that)(?:['’]s| is|['’]d be| would be| might be| may be) (?:also |really |well |very )?(?:worth|good|better|best|helpful|useful|safer|wise|nice|clearer|fairer|kinder|stronger)(?: (?:if you(?: could)?|to))? ${VERB}`,
      'i',
    ),
    ([, what]) => asVerb(what.replace(/^[a-z]+ing\b/i, plainForm)),
  ],
  [
    new RegExp(
      `^if you (?:could |can |would )?(?:just |only |also |perhaps )*${VERB.replace('.*', '[^,]*(?:, [^,]{1,15},[^,]*)?')}, .+`,
      'i',
    ),
    ([, what]) => asVerb(what),
  ],
  [
    new RegExp(
      `^(?:shame|pity|a pity|a shame|too bad|i wish|i(?:['’]d| would) rather|only|if only)(?: that)? you(?: had)? ?(?:didn['’]t|did not|hadn['’]t|don['’]t|do not|never) ${VERB}`,
      'i',
    ),
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
  [/^nowhere do(?:es)? (?:you|it|the \w+) ([a-z]+)\b(.*)/i, ([, verb, rest]) => `${upper(verb)}${rest}`],
  [
    /^half (?:of )?(?:the|this|your) (.{2,40}?) (is|are) (.+)/i,
    ([, what, is, rest]) => `Improve the ${what}: half of it ${is} ${rest}`,
  ],
  [/^.*\ball that (?:was|is|were|are) missing (?:was|is|were|are) (.+)/i, ([, what]) => `Add ${what}`],
  [
    /^(?:.*\bwhich )?(?:would|could|might) (?:gain|benefit|profit) (?:by|from|with) (.+)/i,
    ([, what]) => `Add ${what}`,
  ],
  [
    /^(.{2,60}?) (?:would|could|might)(?: really| also| only)? (?:help|be welcome|be useful|be good|not hurt|do no harm|be in place)\b.*/i,
    ([, what]) => (NAMES_NOTHING.test(what) ? null : `Add ${lower(what)}`),
  ],
  [
    /^((?!you\b|i\b|we\b).{2,40}?) (?:needs?|wants?|deserves?|requires?|could do with) (?!to\b)(.+)/i,
    ([, subject, what]) => (NAMES_NOTHING.test(subject) ? `Add ${what}` : `Give ${lower(subject)} ${what}`),
  ],
  // "The mass goes up and you don't say why": what isn't done is what is to be done.
  [
    /^(?:(.*?)(?:,| and| but|;| yet| –| —) )?(?:and |but |yet )?you (?:don['’]t|do not|didn['’]t|did not|never|haven['’]t|have not|fail to|failed to|forgot to|forget to)(?: yet| really| quite| actually| even| ever)? ([a-z]+)\b(.*)$/i,
    (found) => {
      const [, before = '', verb = '', rest = ''] = found as readonly (string | undefined)[];
      const done = plainForm(verb);
      if (!asksFor(done) || /^(?:mind|care|know|need|want|wait)$/.test(done)) return null;
      const about = before.trim();
      const isOpen = rest.trim() === '' || /^ (?:why|how|it|so|this|that|them|which|where|when)$/i.test(rest);
      return isOpen && about !== '' ? `${upper(done)}${rest}: ${lower(about)}` : `${upper(done)}${rest}`;
    },
  ],
  [
    /^(?:i (?:can['’]t|cannot|couldn['’]t|could not|don['’]t|do not|didn['’]t|did not|still don['’]t)|nobody can|no one can|one can['’]t|you can['’]t|hard to|impossible to)(?: quite| really| easily)? (?:see|work out|tell|know|understand|make out|follow|read|find(?: out)?|get)(?: from (?:this|it|here|the \w+)| here)? ((?:why|how|what|where|who|which|whether|if|when|from where)\b.*)/i,
    ([, what]) => `Say ${what}`,
  ],
  [
    /^(.{2,60}?) (?:has|have) no ([^,.;:]+)(.*)$/i,
    ([, subject, what, rest]) => `Give ${lower(subject)} ${oneOf(what)}${rest}`,
  ],
  [
    /^(.{2,60}?) (?:lacks?|misses|wants for|leaves out|skips|omits) ([^,.;:]+)(.*)$/i,
    ([, subject, what, rest]) => `Give ${lower(subject)} ${oneOf(what)}${rest}`,
  ],
  [
    /^(.{2,60}?) (?:doesn['’]t|does not|don['’]t|do not|didn['’]t|did not|never)(?: yet| really| quite| actually)? (include|mention|show|give|say|tell|state|explain|name|cite|address|cover|define|answer|support|use|add up|agree|match|meet|compile|run|fit)\b(.*)$/i,
    ([, subject, verb, rest]) => `Make ${lower(subject)} ${verb}${rest}`,
  ],
  [
    /^(?:does not|doesn['’]t|do not|don['’]t|did not|didn['’]t|fails to|failed to) (meet|reach|include|answer|use|show|give|state|explain|cite|follow|address|mention|compile)\b(.*)$/i,
    ([, verb, rest]) => `${upper(verb)}${rest}`,
  ],
  [
    /^.*\bno (.{2,40}?) (?:is|are|was|were) (discussed|given|cited|shown|named|mentioned|offered|considered|stated|included|described|explained)\b.*$/i,
    ([, what, done]) => `${VERB_OF[done.toLowerCase()] ?? 'Add'} ${what}`,
  ],
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
  [
    /^(?:.*[,:] )?((?!not\b)[^,:]{2,60}?) (?:missing|absent|needed|required|please)$/i,
    ([, what]) => (/\b(?:i|we|you) (?:am|are|was|were)$/i.test(what) ? null : `Add ${some(what)}`),
  ],
  [
    /^(.+?) (?:isn['’]t|aren['’]t|is not|are not|is never|are never|not)(?: yet| clearly)? (given|provided|dated|numbered|explained|defined|discussed|mentioned|described|shown|supported|justified|labelled|introduced|identified|stated|compared|answered|cited|linked)\b.*/i,
    ([, what, done]) => `${VERB_OF[done.toLowerCase()]} ${lower(what.replace(/ \w+ed,?$/, ''))}`,
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
    ([what, rest]) =>
      rest.trim() === ''
        ? 'Shorten this'
        : / for /.test(what)
          ? `Shorten this: ${lower(what)}`
          : `Cut back${rest}`,
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
  given: 'Give',
  provided: 'Give',
  dated: 'Date',
  numbered: 'Number',
  named: 'Name',
  offered: 'Give',
  considered: 'Consider',
  included: 'Include',
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

function worded(rows: readonly (readonly [RegExp, Wording])[], sentence: string): string | null {
  for (const [pattern, wording] of rows) {
    const found = pattern.exec(sentence);
    const said = found === null ? null : wording(found);
    if (said !== null) return said;
  }
  return null;
}

/** What a sentence asks for that says what is to be done; null for any other. */
export function demandOf(sentence: string): string | null {
  const asked = sentence.replace(/\?+$/, '');
  const [first = ''] = asked.toLowerCase().split(/[\s,:]+/);
  const isVerb = asksFor(first) && asked.includes(' ');
  if (isVerb || BEGINS_A_DEMAND.test(asked)) return asked;
  // "In your final essay don't use it": a place before what is to be done.
  if (
    /^(?:in|on|for|at|from|with|by|under|after|before) [^,]{2,40}?,? (?:don['’]t|do not|never|always) [a-z]/i.test(
      asked,
    )
  )
    return asked;
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

/** What a mark of one word or two asks for; null for any other. */
export function shortMarkOf(sentence: string): string | null {
  const mark = sentence.toLowerCase().replace(/[.?!]+$/, '') || sentence;
  return Object.hasOwn(SHORT_MARKS, mark) ? SHORT_MARKS[mark] : null;
}

/** What a question asks for; null for a sentence that is none. */
export function questionOf(sentence: string): string | null {
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

/** What a sentence asks for that says what is wrong; null where it can’t be turned round. */
export function complaintOf(sentence: string): string | null {
  return worded(COMPLAINTS, sentence);
}

function give([sentence, what]: RegExpExecArray): string {
  const subject =
    /^(.*?) ?(?:needs|need|requires|wants|deserves|calls for|could do with|would)\b/i.exec(sentence)?.[1] ??
    '';
  return subject === '' || /^(?:it|this)$/i.test(subject) ? `Add ${what}` : `Give ${lower(subject)} ${what}`;
}

/** What is done to what a complaint is about, by how much it asks for. */
const MENDS_IT: Readonly<Partial<Record<Stance, string>>> = {
  'must-fix': 'Correct',
  fix: 'Improve',
  polish: 'Mend',
};

/** Something with what is wrong with it before it: "insufficient analysis", "frequent errors in punctuation". */
const BAD_BEFORE =
  /^(?:an? |the |some )?(insufficient|inadequate|limited|weak|poor|thin|vague|wrong|incorrect|inconsistent|confusing|awkward|clumsy|irrelevant|superficial|frequent|minor|occasional|very long|long|messy|careless|unclear|odd|strange|missing) ((?:\p{L}[\p{L}'’-]*)(?: [^,;:.]*)?)(.*)$/iu;

const BE =
  "isn['’]t|aren['’]t|wasn['’]t|weren['’]t|hasn['’]t|haven['’]t|doesn['’]t|don['’]t|didn['’]t|can['’]t|cannot|is|are|was|were|has|have|had|does not|do not|did not|could|should|would|must|may|might|needs?";

const DOES =
  'describes|argues|explains|treats|ignores|lists|follows|meets|misses|keeps|needs|turns|moves|opens|closes|adds|helps|goes|comes|ends|stops|starts|begins|rests|differs|overlaps|reads|says|sounds|looks|feels|seems|contradicts|repeats|belongs|jumps|drifts|fluctuates|wanders|drops|drags|floats|hides|slips|runs|falls|invites|breaks|leaves|makes|takes|gives|shows|tells|means|depends|suffers|remains|stays|gets|becomes|appears|disappears|vanish|vanishes|collapses|conflicts|competes|clashes|crosses|changes|carries|covers|uses|ignores|assumes|claims|promises|hangs|sits|stands|hurts|works|loses|wins|costs|lies';

const DO =
  'go|come|end|stop|start|begin|rest|differ|overlap|read|say|sound|look|feel|seem|contradict|repeat|belong|jump|drift|fluctuate|wander|drop|drag|float|slip|run|fall|break|leave|make|take|give|show|tell|mean|depend|remain|stay|get|become|appear|rustle|collapse|conflict|compete|clash|cross|cover|use|ignore|hang|sit|stand|work|lose|lie';

const BAD =
  'wrong|unclear|weak|thin|too|not|off|only|still|never|always|rather|very|poor|poorly|incomplete|inconsistent|incorrect|buried|muddled|rushed|blurred|cropped|upside down|backwards|uneven|shaky|a touch|a bit|a little|absent|all over the place';

const SUBJECT = new RegExp(
  `^((?:the |your |this |that |these |those |an? |our |my )?[^,;:]{2,70}?)(?:,[^,]{1,30},)? (?<!\\b(?:the|of|an?|your|no) )(?:(${BE}|${DOES}|(?<=s )(?:${DO}))|(${BAD}))(?![\\p{L}'’]) ?(.*)$`,
  'iu',
);

/** What follows these is no subject. */
const CLAUSE = /\b(?:as|if|when|while|because|since)\b|^(?!the |your |this ).*\b(?:that|which|who)\b/i;

const MANY = new RegExp(`^(?:${DO}|are|were|have|aren['’]t|weren['’]t|haven['’]t|don['’]t|do not)$`, 'i');

/** "Tempo fluctuates": what it is about is to be mended, and why is said behind it. */
export function subjectOf(sentence: string, stance: Stance): string | null {
  const mend = MENDS_IT[stance];
  if (mend === undefined) return null;
  const own = /^you(?:['’](?:ve|re|d))?\b.+/i.exec(sentence);
  if (own !== null) return `${mend} where ${lower(own[0])}`;
  const before = BAD_BEFORE.exec(sentence);
  if (before !== null) {
    const [, bad, what, rest] = before;
    if (/^missing$/i.test(bad)) return `Add the ${what}${rest}`;
    const isFault = /^(?:frequent|minor|occasional)$/i.test(bad);
    return isFault ? `Mend the ${what}${rest}` : `${mend} the ${what}: ${lower(bad)}${rest}`;
  }
  const found = SUBJECT.exec(sentence.replace(/\?+$/, ''));
  if (found === null) return null;
  const [, subject, does, bad, rest] = found as unknown as [string, string, string?, string?, string?];
  const isClause =
    /^(?:the|your|an?)$/i.test(subject.trim()) ||
    NAMES_NOTHING.test(subject) ||
    CLAUSE.test(subject) ||
    subject.split(' ').length > 9;
  if (isClause) return null;
  const isNamed = /^(?:the|your|this|that|these|those|an?|our|my|\p{Lu}\w+ \p{Lu}|\W)|[=\d]/iu.test(subject);
  const named = isNamed || /s$/i.test(subject) ? lower(subject) : `the ${lower(subject)}`;
  const says = does === undefined ? (bad ?? '') : `${MANY.test(does) ? 'they' : 'it'} ${does}`;
  return `${mend} ${named}: ${says} ${rest ?? ''}`.trimEnd();
}

/** What is first made of one of some sentences; null where none gives anything. */
export function firstOf(
  sentences: readonly string[],
  worded: (sentence: string) => string | null,
): string | null {
  for (const sentence of sentences) {
    const found = worded(sentence);
    if (found !== null) return found;
  }
  return null;
}

/** A sentence without what is only said before it, and without its stop. */
export function bare(sentence: string): string {
  return sentence
    .trim()
    .replace(POINTS_FIRST, '')
    .replace(BEFORE_IT, '')
    .replace(/[\s.!…]+$/, '')
    .trim();
}

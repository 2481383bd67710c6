import { promiseSigns } from './promise.ts';

/** Signs of a hint for next time. */
const HINT: readonly RegExp[] = [
  /\b(?:next|another) (?:time|year|one|step|lab|report|post|paper|brief|quiz|survey|transect|assignment|essay|attempt|term)\b/i,
  /\b(?:for|in|of) (?:the |your |any )?(?:(?:future|later|following|coming|next)\b|(?:final|second|last) (?:version|draft|paper|brief|attempt|quiz|essay|post|report|one)\b)/i,
  /\b(?:going forward|from now on|in future|later on|long(?:er)? term|in the long run|one thing for later)\b/i,
  /\bwhen (?:you|we) (?:next|come to|get to|write|start|move|begin|hand|revise|do)\b/i,
  /\bas you (?:move|go|get|come)\b/i,
  /\b(?:if|when|should|before) you (?:do|start|write|resubmit|take|hand|begin)\b.*\b(?:again|next|final|start|begin|twice)\b/i,
  /\b(?:remember|bear|keep|don[’']t forget)\b.*\b(?:in mind|for the|exam|this for|next)\b|\bmake (?:it|this) a (?:rule|habit)\b/i,
  /\b(?:will|going to) (?:cost|count|be expected|assume|need|matter|lose|take points|serve you|save you)\b/i,
  /\b(?:a habit worth|a tip|tip:|work on|practise|practi[sc]ing|get into the habit)\b/i,
  /\bit (?:doesn[’']t|does not) matter here\b|\b(?:no points?|nothing) (?:lost|off|taken)\b|\bthis time, but\b|\bgot away with\b/i,
  /\bfine for (?:a|the) (?:draft|first|start)\b/i,
];

/** Signs that the work can't stand as it is. */
const MUST: readonly RegExp[] = [
  /\b(?:must|essential|required|unacceptable|not acceptable|needs? to be (?:redone|rewritten)|has to|have to|(?:cannot|can[’']t)(?! (?:tell|see|follow|find|wait|fault))|may not)\b|^never\b/i,
  /\b(?:serious|major|fundamental|critical|crucial|severe)\b/i,
  /\b(?:false|incorrect|contradicts?|untrue|mixed up|mix up|upside down|off by|(?:is|are|was|must be|simply) wrong|wrong (?:way|number|answer|on the))\b|^wrong\b/i,
  /\bmissing (?:altogether|pages|entirely)|\bis missing\b|\bis not there\b|\bincomplete\b|\bexceed/i,
  /\b(?:there is|there[’']s|there are|you have|you give) no\b|^no (?!points?|other|doubt|need|longer)\w+/i,
  /\b(?:redo|start again|from scratch|rewrite (?:this|the|it)|delete (?:this|the)|take (?:this|it|them) out)\b/i,
  /\byou (?:need|failed|forgot|did not|didn[’']t|have not|haven[’']t)\b/i,
  /\b(?:isn[’']t|is not|are not|aren[’']t) (?:a|an|evidence|attached|included|given|your own)\b/i,
  /^without\b|\bwithout (?:it|quotation|citing|(?:a|any) (?:source|method|reference|thesis|citation|recommendation))\b/i,
  /\b(?:does not|doesn[’']t) (?:hold|exist|answer|belong|follow)\b/i,
  /\bnever (?:say|said|give|show|tell)\b|\bnone of\b|\bnothing (?:that|to do)\b|\bnothing\b.*\bsupports?\b/i,
  /\bdifferent question\b|\bmarks? (?:for this|went|were lost)\b|\bonly a number\b/i,
];

/** What a marker asks for by a bare verb, at the beginning or after a stop within the sentence. */
const ASKED_FOR =
  'add|argue|ask|begin|break|bring|carry|change|check|choose|cite|clarify|come back|compare|conclude|connect|convert|count|cut|decide|define|delete|describe|develop|discuss|draw|drop|end|expand|explain|find|fix|follow|give|go|include|insert|join|keep|label|leave|lengthen|let|link|look|make|mark|measure|mention|merge|move|name|narrow|note|number|open|paraphrase|pick|place|point|present|promise|put|quote|read|redraw|remove|reorder|rephrase|replace|report|reword|rewrite|say|separate|set|shorten|show|sort|specify|spell|split|start|state|stay|stop|summari[sz]e|support|swap|take|tell|tie|trim|try|turn|use|weigh|work|write|be (?:careful|more|specific|precise|consistent)';
const IMPERATIVE = new RegExp(
  `(?:^|[.;:,–—] )(?:please |now |then |so |or |and |maybe |also |better |simply )*(?:${ASKED_FOR})\\b(?!-)`,
  'i',
);

/** Signs that something is to be changed. */
const FIX: readonly RegExp[] = [
  IMPERATIVE,
  /\b(?:needs?|should|ought|could|lacks?|lacking|requires?)\b/i,
  /\b(?:vague|unclear|weak|thin|confusing|imprecise|too (?:close|much|little|many|few|long|short|general|broad|strong)|not enough|more detail|not clear|isn[’']t clear|hard to follow)\b/i,
  /\bI(?:[’']d| would) (?:move|put|cut|add|start|like to see|have liked|expect|leave|say|begin|suggest)\b/i,
  /\b(?:belongs? (?:in|to the)|missing|I miss|lose track|can[’']t tell|cannot tell|can[’']t see|jump|slips?|gap|bridge|counter-?argument)\b/i,
  /\b(?:only|just) (?:one|two|three|the|lists?)\b|\bpromises\b|\brather than\b|\bat most\b/i,
  /\b(?:is|are|was|were) not (?:yet|clear|shown|explained|supported|defined)\b/i,
  /\bcan be (?:read|cut|joined|split)\b|\bwould (?:help|save|do|be (?:better|clearer|stronger|more useful))\b|\bcited\b.*\b(?:use|text)\b|\bnever (?:cited|used|explained|defined)\b|\bdon[’']t (?:agree|match|fit)\b|\bnew in the\b|\bnot measured\b|\bnothing in this\b|\bwhat you call\b/i,
];

/** Signs of a small matter of form. */
const POLISH: readonly RegExp[] = [
  /\b(?:comma|semicolon|colon|full stop|apostrophe|hyphen|dash|brackets?|quotes?|capitals?|capital letter|italics?|bold|indent(?:ed|ation)?|alignment|align(?:ed)?|line up|font|spacing|space between|punctuation|decimal places?)\b/i,
  /\b(?:typo|spelling|misspel\w+|grammar|tense|singular|plural|article|contractions?|sp)\b/i,
  /\b(?:wordy|awkward|clumsy|informal|stiff|colloquial|smoothly|repetiti\w+|repeated word|appears (?:two|three|four|twice)|phrasing|sounds?)\b/i,
  /\b(?:minor|small thing|nitpick|cosmetic|formatting|tidy|slightly|a little|neater|would be nice|if you have a minute|perhaps a|house style)\b/i,
  /^["“‘']?[\w.]+["”’']?,? (?:not|takes) ["“‘']?[\w.]+/i,
  /^["“‘'].{1,30}["”’'] (?:is|or|and|are|sounds|reads)\b/i,
  /\b(?:vary|openings?|narrower|shorter title|page numbers?)\b/i,
  /\b(?:use|prefer) ["“‘']\w+["”’'] (?:with|for)\b/i,
];

const PRAISE: readonly RegExp[] = [
  /\b(?:good|great|(?<!would be )nice|nicely|lovely|excellent|superb|outstanding|strong|impressive|beautiful\w*|neat|sharp|convincing|thoughtful|perceptive|elegant|admirable|splendid|fine|fantastic|wonderful|pleas(?:ed|ing|ure)|delight\w*|smooth|tidy|sound|careful|honest|precise|persuasive)\b/i,
  /\bwell (?:done|spotted|put|chosen|argued|explained|kept|observed|made|written|seen|judged|organi[sz]ed|supported|used|structured)\b/i,
  /\b(?:best(?! left)|better than|not a single|could(?: not|n[’']t) find (?:a|any)|can[’']t fault|improved|correct|exactly|right on|spot on|accurate|full (?:marks|points)|without a (?:mistake|slip|fault)|a pleasure|rare to see)\b/i,
  /\b(?:I (?:like|liked|enjoy|enjoyed|learned|appreciate|admire)|thank|thanks|happy with|keep (?:doing|it up|this up)|works|made me want|comes through|suits|real fairness|goes beyond|practical|clearly (?:understood|shown|written)|lovely clear|clear map)\b/i,
  /^(?:yes|perfect|bravo|agreed)\b|!$/i,
  /^(?:good|correct|right|fair|very good|strong|clear|splendid)\b|\bmore of this\b|\bwell[.!]$/i,
];

const POINTER: readonly RegExp[] = [
  /^(?:please )?(?:see|compare|cf\.?|refer to|look at|listen to|go back to|have (?:a|another) look|read|consult|check|revisit)\b/i,
  /\b(?:explains? how|will help you|has a (?:leaflet|guide|page|sheet)|there[’']s a good|keeps a|you (?:will|can|[’']ll) find|more (?:about|on) this|more in|details in|for (?:worked|specific|more|the rest))\b/i,
  /\b(?:chapter|handout|noticeboard|course page|guide|leaflet)\b/i,
];

const ASKS =
  /^(?:please )?(?:tell me|let me know|say whether)\b|\bI (?:wonder|am curious)\b|\bI[’']m curious\b|\bcan you tell me\b/i;

/** Signs in rows, by what they are signs of; the order of the rows is that of the model's features. */
const ROWS: readonly (readonly [string, readonly RegExp[]])[] = [
  ['hint', HINT],
  ['must', MUST],
  ['fix', FIX],
  ['polish', POLISH],
  ['praise', PRAISE],
  ['pointer', POINTER],
  ['asks', [ASKS]],
];

/** Words that deny, and what is denied in praise: "not a single mistake", "nothing to add". */
const DENIES = /^(?:not|no|never|nothing|without|none|nobody|neither|nor|hardly|impossible|cannot|.*n't)$/;
const FAULT =
  /^(?:fault|flaw|errors?|mistakes?|slip|problems?|complain|complaint|corrections?|correct|changes?|add|object|objection|criticise|criticism|weak|weakness|weaknesses|missing|wrong|careless|wasted|improve|touch|cut|edit|better|quarrel|concerns?|issues|warnings|need|doubt|hole|seams?|gap|misplaced|worry|ask|say|find|single|one)$/;
/** A fault denied stands within so many words of what denies it. */
const DENIAL_REACH = 6;

/** The rules' own signs in a part of a remark, each by a name. */
export function signsIn(text: string, words: readonly string[]): string[] {
  const found: string[] = [];
  for (const [name, rows] of ROWS) {
    const hits = rows.flatMap((row, index) => (row.test(text) ? [index] : []));
    for (const index of hits) found.push(`${name} ${index}`);
    if (hits.length > 0) found.push(name);
    if (hits.length > 1) found.push(`${name} twice`);
  }
  return [...found, ...promiseSigns(text), ...denials(words)];
}

function denials(words: readonly string[]): string[] {
  const found: string[] = [];
  words.forEach((word, at) => {
    if (!DENIES.test(word)) return;
    for (const next of words.slice(at + 1, at + 1 + DENIAL_REACH)) {
      if (/^[.;:!?]$/.test(next)) break;
      if (FAULT.test(next)) found.push('denied', `denied ${next}`);
    }
  });
  return found;
}

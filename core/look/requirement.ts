import { referenceListOf } from '../citations/references.ts';
import type { Requirement } from '../model/look.ts';
import type { Paper } from '../paper/paper.ts';
import { NUMBERS_IN_WORDS } from '../text/numbers-in-words.ts';
import { sentenceSpans, sentencesOf } from '../text/sentences.ts';
import type { Span } from '../text/span.ts';
import { countWords } from '../text/words.ts';

/** What a brief asks, and the sentence that says so. */
export interface ReadRequirement extends Span {
  readonly asks: Requirement;
}

const SPELLED = String.raw`(?:${Object.keys(NUMBERS_IN_WORDS).join('|')})(?: (?:hundred|thousand))?`;
const N = String.raw`(\d{1,3}(?:[,.’' ]\d{3})+|\d+|${SPELLED})`;
const UNIT = String.raw`(words?|pages?|sentences?)`;
/** Words that may stand between a number and what is counted. */
const BETWEEN = String.raw`(?:\s+[\p{L}-]+){0,3}?\s+`;
const COUNTED = String.raw`(sources?|references?|works?|articles?|books?|citations?|publications?|figures?|maps?|diagrams?|photographs?|pictures?|images?|charts?|tables?)`;
const LEAST = String.raw`(?:at least|a minimum of|minimum(?: of)?|no (?:fewer|less) than|not (?:fewer|less) than|min\.?|(?<!\b(?:no|not) )more than|over)`;
const MOST = String.raw`(?:at most|a maximum of|maximum(?: length)?(?: is| of|:)?|max\.?|no more than|not more than|no longer than|must not exceed|(?:should|may|can)not exceed|(?:should|does|do|may) not exceed|not exceed(?:ing)?|up to|under|below|fewer than|less than|within)`;
const RANGE = new RegExp(String.raw`${N}\s*(?:to|and|[-–—])\s*${N}(?:[\s-]+|\s+[\p{L}-]+\s+)${UNIT}\b`, 'iu');
const AT_LEAST = new RegExp(String.raw`${LEAST}\s+${N}\s+(?:[\p{L}-]+\s+)?${UNIT}\b`, 'iu');
const OR_MORE = new RegExp(String.raw`${N}\s+${UNIT}\s+(?:or more|minimum|at least)\b`, 'iu');
const AT_MOST = new RegExp(String.raw`${MOST}\s+${N}\s+(?:[\p{L}-]+\s+)?${UNIT}\b`, 'iu');
const OR_LESS = new RegExp(
  String.raw`${N}\s+${UNIT}\s+(?:or (?:less|fewer)|maximum|at (?:the )?most)\b`,
  'iu',
);
const SHORTER_THAN = new RegExp(
  String.raw`\b(?:shorter than|fewer than|under|below)\s+${N}\s+${UNIT}\b[^.]*\b(?:returned|refused|rejected|not (?:be )?(?:marked|read|accepted)|fail)`,
  'iu',
);
const ABOUT = new RegExp(
  String.raw`(?:approx\.?|approximately|about|around|circa|ca\.|length:?|write|of)\s+${N}\s+${UNIT}\b(?:[^.]{0,20}?(?:\+\s*/\s*[-–]|±|plus or minus)\s*(\d{1,2})\s*(?:%|per ?cent))?`,
  'iu',
);
/** Usual where a length is given as one number. */
const USUAL_TOLERANCE = 10;
const SOURCES = new RegExp(String.raw`${LEAST}\s+${N}${BETWEEN}?(?:${COUNTED})\b`, 'giu');
const OR_MORE_OF = new RegExp(String.raw`${N}\s+${COUNTED}\s+or more\b`, 'giu');
const AND_MORE = new RegExp(String.raw`\band\s+${N}\s+${COUNTED}\b`, 'giu');

/** What a sentence about something else begins or goes on with: last year's papers, what is to be read, how points are shared. */
const NOT_ASKED =
  /\b(?:last year|last term|previous years?|read the (?:article|chapter|book|text)|course reader|points? (?:are|is) for|summari[sz]e the|the seminar (?:discusses|reads))\b/iu;
const ASKS =
  /\b(?:must|should|shall|need(?:s|ed)?|has to|have to|required?|requires|include[sd]?|contains?|add|begin|start|end|close|conclude|give|provide|append|carries|with|your (?:paper|report|essay|text|work))\b/iu;
const DONT = /\b(?:do not|don['’]t|no need|without|not required|optional)\b/iu;

const SECTIONS: readonly (readonly [name: string, pattern: RegExp])[] = [
  ['abstract', /\b(?:abstract|executive summary)\b/iu],
  ['introduction', /\bintroduction\b/iu],
  ['methods', /\bmethods?\b(?: section)?/iu],
  ['results', /\bresults\b/iu],
  ['discussion', /\bdiscussion\b/iu],
  ['conclusion', /\bconclusions?\b/iu],
  [
    'references',
    /\b(?:bibliography|list of (?:references|sources|works cited)|reference list|works cited)\b/iu,
  ],
  ['appendix', /\bappendix\b/iu],
];
const LISTED_SECTIONS =
  /\bsections?\b\s*(?:[:–-]|are|headed|called|named|titled|entitled)?\s*(?::\s*)?(.+)$/iu;
const HEADED =
  /\b(?:section|part|paragraph)\s+(?:headed|called|named|titled|entitled|with the heading)\s*["“„«]([^"”“»]+)["”»]/iu;
const TITLE_BLOCK = /\btitle (?:block|page)\b|\bfirst page (?:carries|has|with|shows|bears|gives)\b/iu;
const NAME_ON_IT = /\byour name\b|\bstudent number\b|\bthe (?:course|date)\b/iu;
const FILE_TYPES: readonly (readonly [type: string, pattern: RegExp])[] = [
  ['pdf', /\bpdf\b/iu],
  ['docx', /\.?\bdocx\b|\bword (?:document|file)\b/iu],
  ['odt', /\bodt\b|\bopendocument\b/iu],
  ['txt', /\.txt\b|\bplain text\b/iu],
];
const FILE = /\b(?:upload|submit|hand (?:it |them )?in|files?|format|accepted|save|document)\b/iu;
const QUOTED = /\b(?:quotations?|quotes?|quoted)\b/iu;
const CITED = /\b(?:cit(?:e|ed|ation|ations)|referenced?|source|page numbers?)\b/iu;

function valueOf(number: string): number {
  const digits = /^\d/.test(number) ? Number(number.replace(/\D/g, '')) : null;
  if (digits !== null) return digits;
  const [first, times] = number.toLowerCase().split(' ') as [string, string | undefined];
  return NUMBERS_IN_WORDS[first] * (times === 'hundred' ? 100 : times === 'thousand' ? 1000 : 1);
}

interface Length {
  readonly min: number | null;
  readonly max: number | null;
  readonly unit: string;
}

/** The lengths that a sentence sets. */
function lengthIn(sentence: string): Length | null {
  const range = RANGE.exec(sentence);
  if (range !== null) return { min: valueOf(range[1]), max: valueOf(range[2]), unit: range[3] };
  const shorter = SHORTER_THAN.exec(sentence);
  if (shorter !== null) return { min: valueOf(shorter[1]), max: null, unit: shorter[2] };
  const least = AT_LEAST.exec(sentence) ?? OR_MORE.exec(sentence);
  const most = AT_MOST.exec(sentence) ?? OR_LESS.exec(sentence);
  if (least !== null || most !== null)
    return {
      min: least === null ? null : valueOf(least[1]),
      max: most === null ? null : valueOf(most[1]),
      unit: (least ?? most)?.[2] ?? '',
    };
  const about = ABOUT.exec(sentence);
  if (about === null) return null;
  const tolerance = Number((about[3] as string | undefined) ?? USUAL_TOLERANCE) / 100;
  const count = valueOf(about[1]);
  return {
    min: Math.round(count * (1 - tolerance)),
    max: Math.round(count * (1 + tolerance)),
    unit: about[2],
  };
}

function lengthsIn(sentence: string): Requirement[] {
  const found = lengthIn(sentence);
  // The length of a part is not that of the whole.
  if (
    found === null ||
    SECTIONS.some(([, pattern]) => new RegExp(`${pattern.source}\\s+of\\b`, 'iu').test(sentence))
  )
    return [];
  const { min, max, unit } = found;
  if (/^sentence/i.test(unit)) return min === null ? [] : [{ kind: 'sentences', min }];
  if (/^page/i.test(unit)) return [{ kind: 'pages', min, max }];
  const withoutReferences =
    /\b(?:without|not (?:counting|including)|excluding|exclusive of|besides)\b[^.]*\b(?:references|bibliography|works cited|sources)\b/iu.test(
      sentence,
    );
  return [{ kind: 'words', min, max, withoutReferences }];
}

const kindOfCounted = (word: string) =>
  /^table/i.test(word)
    ? ('tables' as const)
    : /^(?:figure|map|diagram|photo|picture|image|chart)/i.test(word)
      ? ('figures' as const)
      : ('sources' as const);

function countedIn(sentence: string): Requirement[] {
  const first = [...sentence.matchAll(SOURCES), ...sentence.matchAll(OR_MORE_OF)];
  const all = first.length === 0 ? [] : [...first, ...sentence.matchAll(AND_MORE)];
  const found = new Map<string, Requirement>();
  for (const { 1: number, 2: word } of all) {
    const kind = kindOfCounted(word);
    if (!found.has(kind)) found.set(kind, { kind, min: valueOf(number) });
  }
  return [...found.values()];
}

function sectionsIn(sentence: string): Requirement[] {
  const headed = HEADED.exec(sentence);
  if (headed !== null) return [{ kind: 'section', name: headed[1].toLowerCase() }];
  if (DONT.test(sentence) || !ASKS.test(sentence)) return [];
  const list = LISTED_SECTIONS.exec(sentence)?.[1] ?? null;
  return SECTIONS.flatMap(([name, pattern]): Requirement[] => {
    const isListed = list !== null && pattern.test(list);
    // What other words use too counts only in a list of sections, or with an article that makes it a part.
    const isPart = new RegExp(
      `\\b(?:an?|the following|with an?|and an?)\\s+(?:[\\p{L}-]+\\s+)?${pattern.source}`,
      'iu',
    ).test(sentence);
    return isListed || isPart ? [{ kind: 'section', name }] : [];
  });
}

/**
 * What a sentence of a brief asks for, as far as it can be counted or looked for; a proposal, which whoever reads it confirms.
 */
export function asksOf(sentence: string): Requirement[] {
  if (NOT_ASKED.test(sentence)) return [];
  const types = FILE_TYPES.filter(([, pattern]) => pattern.test(sentence)).map(([type]) => type);
  const isBlock = TITLE_BLOCK.test(sentence) && NAME_ON_IT.test(sentence);
  return [
    ...lengthsIn(sentence),
    ...countedIn(sentence),
    ...(isBlock ? [{ kind: 'title block' as const }] : sectionsIn(sentence)),
    ...(types.length > 0 && FILE.test(sentence) ? [{ kind: 'file types' as const, types }] : []),
    ...(QUOTED.test(sentence) && CITED.test(sentence) ? [{ kind: 'quotations cited' as const }] : []),
  ];
}

/** What a brief asks for, sentence by sentence. */
export function requirementsIn(text: string): ReadRequirement[] {
  return sentenceSpans(text).flatMap(({ from, to }) =>
    asksOf(text.slice(from, to)).map((asks) => ({ from, to, asks })),
  );
}

/** Which requirements of a brief can't all be met. */
export function contradicting(all: readonly Requirement[]): [Requirement, Requirement] | null {
  const lengths = all.flatMap((one) => (one.kind === 'words' || one.kind === 'pages' ? [one] : []));
  for (const x of lengths)
    for (const y of lengths)
      if (x.kind === y.kind && x.min !== null && y.max !== null && x.min > y.max) return [x, y];
  return null;
}

/** Whether a text meets a requirement, with what was counted; null: it can't be told from the text. */
export interface Met {
  readonly met: boolean | null;
  readonly count: number | null;
}

/** Headings that are names of the same part. */
const SAME_PART: readonly RegExp[] = [
  /^(?:references?|list of (?:references|sources)|works cited|bibliography|literature|sources)$/iu,
  /^(?:conclusions?|concluding remarks|summary and conclusions?)$/iu,
  /^(?:methods?|materials and methods|method and materials|methodology|participants and methods)$/iu,
  /^(?:abstract|summary|executive summary)$/iu,
];
const HEADING_NUMBER = /^[\dIVX.]+\.?\s+/u;
const LONGEST_TITLE_BLOCK = 6;
const LONGEST_LINE = 90;

function hasSection({ blocks }: Paper, name: string): boolean {
  const group = SAME_PART.find((pattern) => pattern.test(name));
  return blocks.some(({ kind, text }) => {
    if (kind !== 'heading' && text.length > LONGEST_LINE) return false;
    const heading = text
      .replace(HEADING_NUMBER, '')
      .replace(/[.:\s]+$/u, '')
      .toLowerCase();
    return (
      heading === name || (kind === 'heading' && heading.includes(name)) || (group?.test(heading) ?? false)
    );
  });
}

/** What was counted in a paper while it was looked over: captions of each kind, and quotations without a citation. */
export interface Counts {
  readonly figures: number;
  readonly tables: number;
  readonly uncited: number;
}

/** Whether a paper meets a requirement. */
export function metBy(paper: Paper, asks: Requirement, counts: Counts): Met {
  const list = referenceListOf(paper);
  const least = (count: number, min: number): Met => ({ met: count >= min, count });
  switch (asks.kind) {
    case 'words': {
      const whole = countWords(paper.text);
      const count =
        asks.withoutReferences && list !== null
          ? whole - countWords(paper.text.slice(list.from, list.to))
          : whole;
      return { met: count >= (asks.min ?? 0) && count <= (asks.max ?? Infinity), count };
    }
    case 'pages':
    case 'file types':
      return { met: null, count: null };
    case 'sources':
      return least(list?.entries.length ?? 0, asks.min);
    case 'figures':
      return least(counts.figures, asks.min);
    case 'tables':
      return least(counts.tables, asks.min);
    case 'sentences':
      return least(sentencesOf(paper.text).length, asks.min);
    case 'section':
      return { met: hasSection(paper, asks.name), count: null };
    case 'title block': {
      const first = paper.blocks.findIndex(({ text }, i) => i > 0 && text.length > LONGEST_LINE);
      const lines = first < 0 ? paper.blocks.length : first;
      return { met: lines >= 2 && lines <= LONGEST_TITLE_BLOCK + 2, count: null };
    }
    case 'quotations cited':
      return { met: counts.uncited === 0, count: counts.uncited };
  }
}

/** What a brief seems to ask, with the sentence that says so. */
export interface ProposedRequirement {
  readonly asks: Requirement;
  readonly sentence: string;
}

/**
 * What a brief asks that was neither taken nor refused, and that the course doesn't state by itself.
 * @param stated what the course states in figures
 */
export function proposedBy(
  brief: string,
  stated: {
    readonly wordsMin: number | null;
    readonly wordsMax: number | null;
    readonly fileTypes: readonly string[];
  },
  { asked, notAsked }: { readonly asked: readonly Requirement[]; readonly notAsked: readonly string[] },
): ProposedRequirement[] {
  const taken = new Set(asked.map((asks) => JSON.stringify(asks)));
  const isStated = (asks: Requirement) =>
    (asks.kind === 'words' && asks.min === stated.wordsMin && asks.max === stated.wordsMax) ||
    (asks.kind === 'file types' && stated.fileTypes.length > 0);
  return requirementsIn(brief)
    .map(({ from, to, asks }) => ({ asks, sentence: brief.slice(from, to) }))
    .filter(
      ({ asks, sentence }) =>
        !taken.has(JSON.stringify(asks)) && !isStated(asks) && !notAsked.includes(sentence),
    );
}

import type { Criterion, Rubric } from '../model/facts.ts';
import type { CriterionId } from '../model/ids.ts';
import type { Stance } from '../model/work.ts';
import { quotedWords, type Remark } from '../model/remark.ts';
import { stemsOf } from '../text/stems.ts';

/**
 * Which criterion a remark may be about. BM25 (Robertson and Zaragoza, The Probabilistic Relevance Framework, 2009) of the
 * remark and its passage against what each criterion says of itself and what was linked to it before by hand.
 */

export interface Suggestion {
  readonly criterionId: CriterionId;
  /** The BM25 score: no unit, higher is closer. */
  readonly score: number;
}

/** A remark that the student linked by hand, with the title of its criterion: it teaches other assignments too. */
export interface LinkedRemark {
  readonly criterionTitle: string;
  readonly remark: Remark;
}

const K1 = 1.2;
const B = 0.75;
/** A title says in two words what the levels say in a hundred. */
const TITLE_TIMES = 3;
/**
 * Below so many times what the rarest word weighs, chance words decide; found on the demo's remarks whose criterion is known, of
 * five criteria (rubric.test.ts). How much a word can weigh hangs on how many criteria there are.
 */
const LEAST_WORDS = 1.8;
/** The best must be ahead of the second by this factor: two criteria that fit alike are no suggestion. */
const AHEAD = 1.6;
/** A remark is like an earlier one from this share of the closeness it has to itself. */
const ALIKE = 0.35;

/** What a remark says, part by part where it says different things. */
export interface SaidAbout {
  readonly text: string;
  /** null while it is not known. */
  readonly stance: Stance | null;
}

/** What is about the form of the work is not about what its passage is about. */
const FORM =
  /\b(?:spell\w*|sp|typos?|grammar|tense|commas?|punctuation|apostrophes?|capitals?|font|spacing|layout|format\w*|page numbers?|title page|margins?|headings?|italics?|wordy|awkward|awk|house style|word count|file name|date on|your name)\b/i;

function termsOfRemark(remark: Remark, said: SaidAbout): string[] {
  const isForm = said.stance === 'polish' || FORM.test(said.text);
  return stemsOf([said.text, isForm ? '' : (quotedWords(remark) ?? '')].join('\n'));
}

const wholeOf = ({ text }: Remark): SaidAbout => ({ text, stance: null });

function termsOfCriterion(criterion: Criterion): string[] {
  const title = stemsOf(criterion.title);
  return [
    ...Array.from({ length: TITLE_TIMES }, () => title).flat(),
    ...stemsOf([criterion.description, ...criterion.levels.map(({ description }) => description)].join('\n')),
  ];
}

/** Whether two criteria are called the same, so that what is known of one holds for the other. */
export function sameTitle(x: string, y: string): boolean {
  return x.trim().toLowerCase() === y.trim().toLowerCase();
}

interface Document {
  readonly criterionId: CriterionId;
  readonly count: ReadonlyMap<string, number>;
  readonly length: number;
}

function documentOf(criterionId: CriterionId, terms: readonly string[]): Document {
  const count = new Map<string, number>();
  for (const term of terms) count.set(term, (count.get(term) ?? 0) + 1);
  return { criterionId, count, length: terms.length };
}

/**
 * Makes the suggestions for the remarks of one rubric: its criteria are gone through once. A criterion is as close as its own
 * words and the closest remark that was linked to one of its name.
 */
export function criterionSuggester(
  rubric: Rubric,
  earlier: readonly LinkedRemark[],
): (remark: Remark, parts?: readonly SaidAbout[]) => Suggestion | null {
  const criteria = rubric.criteria.map((criterion) => documentOf(criterion.id, termsOfCriterion(criterion)));
  const linked = earlier.flatMap(({ criterionTitle, remark }) =>
    rubric.criteria
      .filter(({ title }) => sameTitle(title, criterionTitle))
      .map(({ id }) => documentOf(id, termsOfRemark(remark, wholeOf(remark)))),
  );
  const all = [...criteria, ...linked];
  const mean = all.reduce((sum, { length }) => sum + length, 0) / Math.max(1, all.length);
  const having = new Map<string, number>();
  for (const { count } of all) for (const term of count.keys()) having.set(term, (having.get(term) ?? 0) + 1);
  const rarity = (term: string) => {
    const found = having.get(term) ?? 0;
    return Math.log(1 + (all.length - found + 0.5) / (found + 0.5));
  };
  const threshold = LEAST_WORDS * Math.log(1 + (criteria.length - 0.5) / 1.5);
  const closeness = (terms: ReadonlySet<string>, { count, length }: Document) => {
    let score = 0;
    for (const term of terms) {
      const times = count.get(term) ?? 0;
      if (times > 0)
        score += (rarity(term) * times * (K1 + 1)) / (times + K1 * (1 - B + (B * length) / mean));
    }
    return score;
  };
  const suggestFor = (remark: Remark, part: SaidAbout): Suggestion | null => {
    const words = termsOfRemark(remark, part);
    const terms = new Set(words);
    const itself = documentOf(rubric.criteria[0].id, words);
    const scores = criteria
      .map((own) => {
        const before = linked.filter(({ criterionId }) => criterionId === own.criterionId);
        const nearest = Math.max(0, ...before.map((one) => closeness(terms, one)));
        // A chance word in common with another remark says nothing; much of its words does.
        const alike = nearest >= ALIKE * closeness(terms, itself) ? nearest : 0;
        return { criterionId: own.criterionId, score: closeness(terms, own) + alike };
      })
      .sort((x, y) => y.score - x.score);
    const best = scores.at(0);
    const second = scores.at(1)?.score ?? 0;
    return best !== undefined && best.score >= threshold && best.score >= AHEAD * second ? best : null;
  };
  const known = new Map<string, Suggestion | null>();
  return (remark, parts = [wholeOf(remark)]) => {
    let best: Suggestion | null = null;
    for (const part of parts) {
      const key = JSON.stringify([part, quotedWords(remark)]);
      if (!known.has(key)) known.set(key, suggestFor(remark, part));
      const found = known.get(key) ?? null;
      if (found !== null && found.score > (best?.score ?? 0)) best = found;
    }
    return best;
  };
}

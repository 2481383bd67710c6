import { stemmer } from 'stemmer';
import type { Criterion, Rubric } from '../model/facts.ts';
import type { CriterionId } from '../model/ids.ts';
import { quotedWords, type Remark } from '../model/remark.ts';
import { wordKeysOf } from '../text/words.ts';

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
/** Below this, chance words decide; found on the demo's remarks whose criterion is known (rubric.test.ts). */
const THRESHOLD = 2.5;
/** The best must be ahead of the second by this factor: two criteria that fit alike are no suggestion. */
const AHEAD = 1.6;
/** A remark is like an earlier one from this share of the closeness it has to itself. */
const ALIKE = 0.35;

const STOP = new Set(
  (
    'a an and are as at be been but by can did do does for from had has have how i if in into is it its me more most my no not ' +
    'of on one only or other our out over say says so some such than that the their them then there these they this those to ' +
    'too up was we were what when where which while who why will with would you your here very just'
  ).split(' '),
);

function termsOf(text: string): string[] {
  return wordKeysOf(text)
    .filter((word) => word.length > 1 && !STOP.has(word))
    .map(stemmer);
}

function termsOfRemark(remark: Remark): string[] {
  return termsOf([remark.text, quotedWords(remark) ?? ''].join('\n'));
}

function termsOfCriterion(criterion: Criterion): string[] {
  const title = termsOf(criterion.title);
  return [
    ...Array.from({ length: TITLE_TIMES }, () => title).flat(),
    ...termsOf([criterion.description, ...criterion.levels.map(({ description }) => description)].join('\n')),
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
): (remark: Remark) => Suggestion | null {
  const criteria = rubric.criteria.map((criterion) => documentOf(criterion.id, termsOfCriterion(criterion)));
  const linked = earlier.flatMap(({ criterionTitle, remark }) =>
    rubric.criteria
      .filter(({ title }) => sameTitle(title, criterionTitle))
      .map(({ id }) => documentOf(id, termsOfRemark(remark))),
  );
  const all = [...criteria, ...linked];
  const mean = all.reduce((sum, { length }) => sum + length, 0) / Math.max(1, all.length);
  const having = new Map<string, number>();
  for (const { count } of all) for (const term of count.keys()) having.set(term, (having.get(term) ?? 0) + 1);
  const rarity = (term: string) => {
    const found = having.get(term) ?? 0;
    return Math.log(1 + (all.length - found + 0.5) / (found + 0.5));
  };
  const closeness = (terms: ReadonlySet<string>, { count, length }: Document) => {
    let score = 0;
    for (const term of terms) {
      const times = count.get(term) ?? 0;
      if (times > 0)
        score += (rarity(term) * times * (K1 + 1)) / (times + K1 * (1 - B + (B * length) / mean));
    }
    return score;
  };
  return (remark) => {
    const words = termsOfRemark(remark);
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
    return best !== undefined && best.score >= THRESHOLD && best.score >= AHEAD * second ? best : null;
  };
}

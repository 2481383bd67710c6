import { outcomeOf } from '#core/anchors/outcome.ts';
import type { Span } from '#core/text/span.ts';
import { countChanges, differenceOf, type Difference } from '#core/difference/difference.ts';
import type { CriterionResult, Rubric } from '#core/model/facts.ts';
import type { DecimalString } from '#core/model/ids.ts';
import { citedIn, leadsToEntry } from '#core/citations/findings.ts';
import { referenceListOf } from '#core/citations/references.ts';
import { blockAt, type Paper } from '#core/paper/paper.ts';
import { add, fromDecimal, smaller, toShown, ZERO, type Fraction } from '#core/scores/fraction.ts';
import { firstFrom } from '#core/text/ascending.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import type { MarkingRules, PassageRule } from './marking-rules.ts';
import { copiedFrom } from './copied.ts';
import { finds } from './demand.ts';
import { fill } from './fill.ts';
import { levelFor } from './level.ts';
import { sentencesOf, type Sentence } from './sentences.ts';
import { textJudgeFor } from './soundness.ts';
import { topicsOf, type Topics } from './topic.ts';

/** What was marked before, and what is handed in now. */
export interface Resubmission {
  readonly marked: Paper;
  /** Where each marked passage stands in the marked paper, by the annotation's own name. */
  readonly passages: ReadonlyMap<string, Span>;
  /** What the instructor said, by the annotation's own name: copying it back is no answer. */
  readonly remarks: ReadonlyMap<string, string>;
  /** What other people wrote: it is nobody's answer. */
  readonly others: readonly string[];
  readonly submitted: Paper;
  readonly rubric: Rubric;
  readonly before: readonly CriterionResult[];
  readonly wordsMax: number | null;
}

export interface Judgement {
  readonly score: DecimalString;
  readonly overall: string;
  readonly criteria: readonly CriterionResult[];
  /** Names of the remarks whose rule is met. */
  readonly met: readonly string[];
  /** What is said of words of the new text: what answers a remark, or still lacks an answer. */
  readonly remarks: readonly Said[];
}

interface Said {
  readonly quote: string;
  readonly text: string;
}

/** What a rule came to. */
interface Looked {
  readonly rule: PassageRule;
  /** The words that meet it; null where nothing does. */
  readonly words: readonly Sentence[] | null;
  /** The sentence in the place of what was marked; null where it was taken out. */
  readonly place: Sentence | null;
}

/**
 * Marks another attempt by the rules: looks only at the text. Points are added to those of before, at most to what the
 * criterion has; a text that as a whole is no writing, repeats itself or is too long wins nothing.
 */
export function judgeResubmission(given: Resubmission, rules: MarkingRules): Judgement {
  const sentences = sentencesOf(given.submitted.text);
  const judge = textJudgeFor(given.marked.text, rules.text);
  const vocabulary = newVocabulary();
  const difference = differenceOf(
    wordsOf(given.marked.text, vocabulary),
    wordsOf(given.submitted.text, vocabulary),
  );
  const length = difference.b.ids.length;
  const fault = judge.faultOf(sentences);
  if (fault !== null) return unchanged(given, rules, rules.words[fault]);
  if (given.wordsMax !== null && length > given.wordsMax) {
    const text = fill(rules.words.tooLong, { max: given.wordsMax, words: length });
    return unchanged(given, rules, text);
  }
  const { kept, moved } = countChanges(difference);
  if (kept + moved < rules.text.leastKeptShare * difference.a.ids.length)
    return unchanged(given, rules, rules.words.otherText);
  const copied = copiedFrom([...given.remarks.values(), ...given.others], given.marked.text);
  const added = judge.newAmong(sentences);
  const unsound = new Set(added.filter((sentence) => !judge.isSound(sentence)));
  const fresh = new Set(added.filter((sentence) => !unsound.has(sentence) && !copied(sentence)));
  const text: NewText = {
    difference,
    sentences,
    fresh,
    unsound,
    topics: topicsFor(given, rules),
    cites: citingIn(given.submitted),
  };
  const looked = rules.passages.map((rule) => lookFor(rule, given, text));
  if (looked.every(({ words }) => words === null)) return unchanged(given, rules, rules.words.same);
  const criteria = given.before.map((result) => improved(result, given.rubric, rules, looked));
  const met = looked.filter(({ words }) => words !== null);
  return {
    score: total(criteria),
    overall: fill(rules.words.better, { met: met.length, all: looked.length }),
    criteria,
    met: met.map(({ rule }) => rule.remark),
    remarks: looked.flatMap(saidOf),
  };
}

/** What is said where a rule is met or isn't, of words that stand in the new text. */
function saidOf({ rule, words, place }: Looked): Said[] {
  if (words === null) return place === null ? [] : [{ quote: place.text, text: rule.missing }];
  return rule.met === '' ? [] : [{ quote: words[0].text, text: rule.met }];
}

function total(criteria: readonly CriterionResult[]): DecimalString {
  const sum = criteria.reduce<Fraction>(
    (s, c) => (c.points === null ? s : add(s, fromDecimal(c.points))),
    ZERO,
  );
  return toShown(sum, 2) as DecimalString;
}

function unchanged({ before }: Resubmission, rules: MarkingRules, overall: string): Judgement {
  const criteria = before.map((result) => ({ ...result, comment: rules.words.criterionSame }));
  return { score: total(criteria), overall, criteria, met: [], remarks: [] };
}

function improved(
  result: CriterionResult,
  rubric: Rubric,
  rules: MarkingRules,
  looked: readonly Looked[],
): CriterionResult {
  const criterion = rubric.criteria.find((c) => c.id === result.criterionId);
  const all = looked.filter(({ rule }) => rule.criterion === result.criterionId);
  const own = all.filter(({ words }) => words !== null);
  if (criterion === undefined || criterion.possible === null || result.points === null || own.length === 0)
    return { ...result, comment: rules.words.criterionSame };
  const won = own.reduce<Fraction>(
    (sum, { rule }) => add(sum, fromDecimal(rule.points)),
    fromDecimal(result.points),
  );
  const points = smaller(won, fromDecimal(criterion.possible));
  const weightiest = own.toSorted((x, y) => Number(y.rule.points) - Number(x.rule.points))[0];
  const found = rules.words.criterionFound.replace('{words}', () => beginningOf(weightiest.words ?? []));
  const missing = all.filter(({ words }) => words === null).map(({ rule }) => rule.missing);
  const said = fill(rules.words.criterionBetter, { met: own.length, all: all.length });
  return {
    criterionId: result.criterionId,
    points: toShown(points, 2) as DecimalString,
    level: levelFor(criterion, points) ?? result.level,
    comment: [said, found, ...missing.slice(0, MOST_MISSING)].join(' '),
  };
}

/** More than so many are told in their places alone. */
const MOST_MISSING = 2;
/** A quotation of so many words tells which sentence is meant. */
const QUOTED_WORDS = 9;

/** The first words of some sentences, to be quoted. */
function beginningOf(sentences: readonly Sentence[]): string {
  const words = (sentences.at(0)?.text ?? '').split(/\s+/);
  const begun = words.slice(0, QUOTED_WORDS).join(' ');
  return words.length > QUOTED_WORDS ? `${begun.replace(/[,;:]$/, '')} …` : begun.replace(/[.!]$/, '');
}

/** What each remark is about: its own words, and the paragraph that it stands in. */
function topicsFor({ marked, passages, remarks }: Resubmission, rules: MarkingRules): Topics {
  return topicsOf(
    new Map(
      rules.passages.map(({ remark }) => {
        const passage = passages.get(remark);
        const paragraph = passage === undefined ? '' : marked.blocks[blockAt(marked, passage.from)].text;
        return [remark, `${remarks.get(remark) ?? ''} ${paragraph}`];
      }),
    ),
  );
}

/** Whether words cite a work of the list at the paper's end. */
function citingIn(paper: Paper): (place: Span) => boolean {
  const list = referenceListOf(paper);
  const entries = list?.entries ?? [];
  const citations = citedIn(paper, list).filter((one) => entries.some((entry) => leadsToEntry(one, entry)));
  return ({ from, to }) => citations.some((one) => one.from < to && one.to > from);
}

/** What of the new text is looked at for every rule. */
interface NewText {
  readonly difference: Difference;
  readonly sentences: readonly Sentence[];
  /** New sentences that are sentences and copied from nowhere. */
  readonly fresh: ReadonlySet<Sentence>;
  readonly unsound: ReadonlySet<Sentence>;
  readonly topics: Topics;
  /** Whether a citation in these words leads to an entry of the list. */
  readonly cites: (place: Span) => boolean;
}

function lookFor(rule: PassageRule, given: Resubmission, text: NewText): Looked {
  const passage = given.passages.get(rule.remark);
  if (passage === undefined) return { rule, words: null, place: null };
  const outcome = outcomeOf(text.difference, passage);
  const near = regionOf(outcome.place, text.sentences, text.fresh);
  const place = outcome.kind === 'gone' ? null : text.sentences.find((one) => one.to > outcome.place.from);
  // What was written anew from end to end is best found by what stands before and behind it.
  const between = regionOf(placeBetween(text.difference, passage), text.sentences, text.fresh);
  const words =
    foundIn(rule, near, text) ??
    (between.length <= MOST_BETWEEN ? foundIn(rule, between, text) : null) ??
    (rule.elsewhere ? foundElsewhere(rule, text) : null);
  return { rule, words, place: place ?? null };
}

/** Where what was written between the neighbours of a passage stands: from the last word kept before it to the first behind. */
function placeBetween({ a, b, toB }: Difference, { from, to }: Span): Span {
  let before = firstFrom(a.from, from) - 1;
  while (before >= 0 && toB[before] < 0) before--;
  let behind = firstFrom(a.from, to);
  while (behind < toB.length && toB[behind] < 0) behind++;
  const start = before < 0 ? 0 : b.to[toB[before]];
  const end = behind < toB.length ? b.from[toB[behind]] : Infinity;
  return { from: start, to: Math.max(start, end) };
}

/** The new sentences in a place in which a rule is met; null where it isn't. */
function foundIn(
  rule: PassageRule,
  around: readonly Sentence[],
  looked: NewText,
): readonly Sentence[] | null {
  const { fresh, unsound, topics } = looked;
  const region = textOf(around);
  if (rule.without.some((pattern) => finds(pattern, region))) return null;
  const changed = around.filter((sentence) => fresh.has(sentence));
  const isSound = !around.some((sentence) => unsound.has(sentence));
  if (isSound && isSaid(rule, changed, looked) && topics.nearness(textOf(changed), rule.remark) >= LEAST_NEAR)
    return changed;
  return null;
}

/** The new sentences in which a rule is met though they stand in another place; null where there are none. */
function foundElsewhere(rule: PassageRule, looked: NewText): readonly Sentence[] | null {
  const { difference, sentences, fresh, topics } = looked;
  // It may be said in another place, and then by a sentence of its own that is plainly about it.
  for (const [index, sentence] of sentences.entries()) {
    if (!fresh.has(sentence) || sentence.keys.length < LEAST_SAID) continue;
    if (newWordsIn(difference, [sentence]).length < sentence.keys.length / 2) continue;
    const said = sentences.slice(index, index + ELSEWHERE).filter((one) => fresh.has(one));
    if (topics.nearness(textOf(said), rule.remark) >= NEAREST && isSaid(rule, said, looked)) return said;
  }
  return null;
}

/** Whether new sentences say what a rule needs: each thing somewhere in them, and one of them in words that are new. */
function isSaid(rule: PassageRule, said: readonly Sentence[], { difference, cites }: NewText): boolean {
  const fresh = newWordsIn(difference, said);
  if (said.length === 0 || fresh.length < rule.leastNewWords) return false;
  const text = textOf(said);
  const isNew = (pattern: string) =>
    said.some(({ text: own, from }) =>
      [...own.matchAll(new RegExp(pattern, 'giu'))].some(({ 0: words, index }) =>
        fresh.some((at) => at >= from + index && at < from + index + words.length),
      ),
    );
  const isMet =
    rule.needs.every((group) => group.some((pattern) => finds(pattern, text))) &&
    rule.needs.some((group) => group.some(isNew));
  return isMet || (rule.cites && said.some(cites));
}

const textOf = (sentences: readonly Sentence[]) => sentences.map(({ text }) => text).join(' ');

/** Words that are this much more about another thing that was asked for are an answer to that one. */
const LEAST_NEAR = 0.05;
/** In another place they have to be about nothing else as much. */
const NEAREST = 0.7;
/** There, a shorter sentence says too little to be one of its own. */
const LEAST_SAID = 6;
/** So many sentences that follow each other can say it there. */
const ELSEWHERE = 2;
/** More sentences than this between two neighbours are not the rewriting of one passage. */
const MOST_BETWEEN = 5;
/** So many new sentences before and after its place can belong to one answer. */
const NEAR = { before: 1, after: 4 };

/** The sentences in the place of the passage, and the new ones that touch them: a student goes on in a second one. */
function regionOf(place: Span, sentences: readonly Sentence[], fresh: ReadonlySet<Sentence>): Sentence[] {
  const first = sentences.findIndex((s) => s.to > place.from);
  if (first < 0) return [];
  const last = Math.max(
    first,
    sentences.findLastIndex((s) => s.from < Math.max(place.to, place.from + 1)),
  );
  let from = first;
  while (from > 0 && first - from < NEAR.before && fresh.has(sentences[from - 1])) from--;
  let to = last + 1;
  while (to < sentences.length && to - last <= NEAR.after && fresh.has(sentences[to])) to++;
  return sentences.slice(from, to);
}

/** Where the words of some sentences begin that the marked text didn't have. */
function newWordsIn(difference: Difference, sentences: readonly Sentence[]): number[] {
  const kept = new Set<number>();
  for (const j of difference.toB) if (j >= 0) kept.add(j);
  for (const move of difference.moves) for (const [, j] of move.pairs) kept.add(j);
  const { from } = difference.b;
  return [...from].filter(
    (at, j) => !kept.has(j) && sentences.some((sentence) => at >= sentence.from && at < sentence.to),
  );
}

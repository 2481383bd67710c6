import { outcomeOf, type Outcome } from '#core/anchors/outcome.ts';
import type { Span } from '#core/text/span.ts';
import { countChanges, differenceOf, type Difference } from '#core/difference/difference.ts';
import type { CriterionResult, Rubric } from '#core/model/facts.ts';
import type { DecimalString } from '#core/model/ids.ts';
import type { Paper } from '#core/paper/paper.ts';
import { add, fromDecimal, smaller, toShown, ZERO, type Fraction } from '#core/scores/fraction.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import type { MarkingRules, PassageRule } from './marking-rules.ts';
import { copiedFrom } from './copied.ts';
import { fill } from './fill.ts';
import { levelFor } from './level.ts';
import { sentencesOf, type Sentence } from './sentences.ts';
import { textJudgeFor } from './soundness.ts';

/** What was marked before, and what is handed in now. */
export interface Resubmission {
  readonly marked: Paper;
  /** Where each marked passage stands in the marked paper, by the annotation's own name. */
  readonly passages: ReadonlyMap<string, Span>;
  /** What the instructor said of each passage: copying it back is no answer. */
  readonly remarkTexts: readonly string[];
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
  const words = difference.b.ids.length;
  const fault = judge.faultOf(sentences);
  if (fault !== null) return unchanged(given, rules, rules.words[fault]);
  if (given.wordsMax !== null && words > given.wordsMax) {
    const text = fill(rules.words.tooLong, { max: given.wordsMax, words });
    return unchanged(given, rules, text);
  }
  const { kept, moved } = countChanges(difference);
  if (kept + moved < rules.text.leastKeptShare * difference.a.ids.length)
    return unchanged(given, rules, rules.words.otherText);
  const copied = copiedFrom(given.remarkTexts);
  const added = judge.newAmong(sentences);
  const unsound = new Set(added.filter((sentence) => !judge.isSound(sentence)));
  const fresh = new Set(added.filter((sentence) => !unsound.has(sentence) && !copied(sentence)));
  const met = rules.passages.filter((rule) => isMet(rule, given, difference, sentences, fresh, unsound));
  if (met.length === 0) return unchanged(given, rules, rules.words.same);
  const criteria = given.before.map((result) => improved(result, given.rubric, rules, met));
  return {
    score: total(criteria),
    overall: fill(rules.words.better, { met: met.length, all: rules.passages.length }),
    criteria,
    met: met.map((rule) => rule.remark),
  };
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
  return { score: total(criteria), overall, criteria, met: [] };
}

function improved(
  result: CriterionResult,
  rubric: Rubric,
  rules: MarkingRules,
  met: readonly PassageRule[],
): CriterionResult {
  const criterion = rubric.criteria.find((c) => c.id === result.criterionId);
  const all = rules.passages.filter((rule) => rule.criterion === result.criterionId);
  const own = all.filter((rule) => met.includes(rule));
  if (criterion === undefined || criterion.possible === null || result.points === null || own.length === 0)
    return { ...result, comment: rules.words.criterionSame };
  const won = own.reduce<Fraction>(
    (sum, rule) => add(sum, fromDecimal(rule.points)),
    fromDecimal(result.points),
  );
  const points = smaller(won, fromDecimal(criterion.possible));
  const missing = all.filter((rule) => !met.includes(rule)).map((rule) => rule.missing);
  const said = fill(rules.words.criterionBetter, { met: own.length, all: all.length });
  return {
    criterionId: result.criterionId,
    points: toShown(points, 2) as DecimalString,
    level: levelFor(criterion, points) ?? result.level,
    comment: [said, ...missing.slice(0, 2)].join(' '),
  };
}

function isMet(
  rule: PassageRule,
  given: Resubmission,
  difference: Difference,
  sentences: readonly Sentence[],
  fresh: ReadonlySet<Sentence>,
  unsound: ReadonlySet<Sentence>,
): boolean {
  const passage = given.passages.get(rule.remark);
  if (passage === undefined) return false;
  const outcome = outcomeOf(difference, passage);
  if (outcome.kind === 'untouched' || outcome.kind === 'moved' || outcome.kind === 'gone') return false;
  const around = regionOf(outcome, sentences);
  const changed = around.filter((sentence) => fresh.has(sentence));
  if (changed.length === 0 || around.some((sentence) => unsound.has(sentence))) return false;
  if (newWordsIn(difference, changed) < rule.leastNewWords) return false;
  const text = changed.map((sentence) => sentence.text).join(' ');
  const region = around.map((sentence) => sentence.text).join(' ');
  return (
    rule.needs.every((group) => group.some((pattern) => new RegExp(pattern, 'u').test(text))) &&
    !rule.without.some((pattern) => new RegExp(pattern, 'u').test(region))
  );
}

/** The sentences in the place of the passage, and one more where the student went on in a second one. */
function regionOf(outcome: Outcome, sentences: readonly Sentence[]): Sentence[] {
  const first = sentences.findIndex((s) => s.to > outcome.place.from);
  const last = sentences.findLastIndex((s) => s.from < Math.max(outcome.place.to, outcome.place.from + 1));
  return first < 0 ? [] : sentences.slice(first, Math.max(first, last) + 2);
}

function newWordsIn(difference: Difference, sentences: readonly Sentence[]): number {
  const kept = new Set<number>();
  for (const j of difference.toB) if (j >= 0) kept.add(j);
  for (const move of difference.moves) for (const [, j] of move.pairs) kept.add(j);
  const { from } = difference.b;
  let count = 0;
  for (const sentence of sentences)
    for (let j = 0; j < from.length; j++)
      if (from[j] >= sentence.from && from[j] < sentence.to && !kept.has(j)) count++;
  return count;
}

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import { exampleJudgement, exampleRemark, exampleRubric, wordsTarget } from '../model/example.ts';
import { criterionLosses, lossesAtStake, wholeLoss } from './behind.ts';
import { add, fromDecimal, toHundredths, toShown, ZERO, type Fraction } from '../scores/fraction.ts';
import { lateRuleOf, pointsGiven, policyOf, stepReached } from '../scores/rules.ts';
import { exampleAssignment, exampleCourse, exampleMarking } from '../model/example.ts';
import { paperOf } from '../paper/paper.ts';
import { aimItems, countableIn, measuredIn } from './aim.ts';
import { asksAsList, asksBeyond } from './asks.ts';
import { criterionOf } from './link.ts';
import { addsUp, gapToNext, levelReached, scaledResults } from './result.ts';
import { criterionSuggester } from './suggest.ts';
import type { Remark } from '../model/remark.ts';
import type { Judgement } from '../model/work.ts';
import { exampleSaying } from '../saying/example.ts';
import type { Understood } from '../saying/saying-of.ts';

const dec = (text: string) => text as never;
const shown = (x: Fraction | null) => (x === null ? null : toShown(x, 2));
const result = (criterionId: string, points: string | null, level: string | null = null) => ({
  criterionId: dec(criterionId),
  points: points === null ? null : dec(points),
  level,
  comment: '',
});
const level = (title: string, points: string | null, pointsFrom: string | null = null, description = '') => ({
  title,
  description,
  points,
  pointsFrom,
});

describe('a result on a rubric', () => {
  const rubric = exampleRubric([
    {
      id: 'q',
      title: 'Question',
      possible: '6',
      levels: [level('Poor', '2'), level('Sound', '4', '3'), level('Fine', '6', '5')],
    },
    { id: 'm', title: 'Method', possible: '4', levels: [level('Poor', '1'), level('Fine', '4')] },
    { id: 's', title: 'Style', levels: [level('Plain', null), level('Lively', null)] },
  ]);

  it('is scaled to the points of the assignment, unless the rubric stands as it is', () => {
    const scaled = scaledResults(rubric, [result('q', '3'), result('m', '4')], dec('40'));
    expect(scaled.map(({ possible, got }) => [shown(possible), shown(got)])).toEqual([
      ['24', '12'],
      ['16', '16'],
      [null, null],
    ]);
    const plain = scaledResults({ ...rubric, unscaled: true }, [result('q', '3')], dec('40'));
    expect(plain.map(({ possible, got }) => [shown(possible), shown(got)])).toEqual([
      ['6', '3'],
      ['4', null],
      [null, null],
    ]);
  });

  it('is shared by weights where every criterion has one', () => {
    const criteria = rubric.criteria.map((one, i) => ({
      ...one,
      weight: one.possible === null ? null : dec(i === 0 ? '25' : '75'),
    }));
    const scaled = scaledResults({ ...rubric, criteria }, [result('q', '6'), result('m', '2')], dec('40'));
    expect(scaled.map(({ possible, got }) => [shown(possible), shown(got)])).toEqual([
      ['10', '10'],
      ['30', '15'],
      [null, null],
    ]);
  });

  it('reaches the level that is named, else the highest that its points reach, in ranges too', () => {
    const [question] = rubric.criteria;
    expect(levelReached(question, null)).toBe(-1);
    expect(levelReached(question, result('q', '6', 'Sound'))).toBe(1);
    expect(
      ['1.5', '2', '2.9', '3', '4.5', '5', '6'].map((points) => levelReached(question, result('q', points))),
    ).toEqual([-1, 0, 0, 1, 1, 2, 2]);
    const [scaled] = scaledResults(rubric, [result('q', '3')], null);
    expect(shown(gapToNext(scaled))).toBe('2');
    const [top] = scaledResults(rubric, [result('q', '6')], null);
    expect(gapToNext(top)).toBeNull();
  });

  it('takes the points of a level that is only named, where it has one number', () => {
    const scaled = scaledResults(rubric, [result('m', null, 'Poor'), result('q', null, 'Sound')], null);
    expect(scaled.map(({ got }) => shown(got))).toEqual([null, '1', null]);
  });

  it('says whether the criteria make the score', () => {
    const both = scaledResults(rubric, [result('q', '3'), result('m', '4')], null);
    expect(shown(addsUp(both, fromDecimal(dec('7.5')))?.difference ?? null)).toBe('0.5');
    expect(shown(addsUp(both, fromDecimal(dec('7')))?.difference ?? null)).toBe('0');
    expect(addsUp(scaledResults(rubric, [result('q', '3')], null), fromDecimal(dec('3')))).toBeNull();
    expect(addsUp(both, null)).toBeNull();
  });
});

describe('what the next level asks', () => {
  const below = 'The work could be repeated; gaps are named.';
  const above =
    'The work could be repeated; gaps, the missing control and the analysis are named with their consequences.';

  it('is marked word by word, and nothing of it is lost', () => {
    const pieces = asksBeyond(below, above);
    expect(pieces.map(({ text }) => text).join('')).toBe(above);
    const more = pieces.filter((piece) => piece.more).map(({ text }) => text);
    expect(more.join(' ')).toContain('missing control');
    expect(more.join(' ')).not.toContain('repeated');
    fc.assert(
      fc.property(fc.lorem({ maxCount: 12 }), fc.lorem({ maxCount: 12 }), (x, y) => {
        expect(
          asksBeyond(x, y)
            .map(({ text }) => text)
            .join(''),
        ).toBe(y);
      }),
    );
  });

  it('is a list of clauses that have something more', () => {
    expect(asksAsList(below, above)).toEqual([
      'gaps, the missing control and the analysis are named with their consequences',
    ]);
    expect(asksAsList('', 'One question. At least 4 sources; each is used.')).toEqual([
      'One question',
      'At least 4 sources',
      'each is used',
    ]);
    expect(asksAsList('Clear.', 'Clear.')).toEqual(['Clear']);
  });

  it('is ticked by hand, or by what a draft has', () => {
    const [criterion] = exampleRubric([
      {
        levels: [
          level('Low', null, null, 'Some sources.'),
          level('High', null, null, 'At least six sources; between 2,500 and 3,200 words; a clear aim.'),
        ],
      },
    ]).criteria;
    const items = aimItems(criterion, 1, ['a clear aim'], { words: 3300, references: 6 });
    expect(items.map(({ text, counted, done }) => [text, counted?.found ?? null, done])).toEqual([
      ['At least six sources', 6, true],
      ['between 2,500 and 3,200 words', 3300, false],
      ['a clear aim', null, true],
    ]);
    expect(aimItems(criterion, 1, [], null).map(({ done }) => done)).toEqual([false, false, false]);
    expect(aimItems(criterion, 5, [], null)).toEqual([]);
  });

  it('counts the words and the references of a draft', () => {
    const block = (text: string, kind: 'heading' | 'paragraph' = 'paragraph') => ({ kind, level: 1, text });
    const draft = paperOf([
      block('Peat lies deep.'),
      block('References', 'heading'),
      block('Hask, O. (2019). Wet.'),
      block(''),
      block('Wray, P. (2021). Dry.'),
      block('Appendix', 'heading'),
      block('A table.'),
    ]);
    expect(measuredIn(draft)).toEqual({ words: 15, references: 2 });
    expect(measuredIn(paperOf([block('No list here.')])).references).toBe(0);
  });

  it.each([
    ['no more than 3,200 words', 'words', null, 3200],
    ['12 or more references', 'references', 12, null],
    ['more than four independent sources', 'references', 5, null],
    ['250 to 400 words', 'words', 250, 400],
  ])('counts “%s”', (item, what, least, most) => {
    expect(countableIn(item)).toEqual({ what, least, most });
  });

  it('counts nothing where nothing is to be counted', () => {
    expect(countableIn('The sources are used')).toBeNull();
  });
});

describe('points behind remarks', () => {
  const rubric = exampleRubric([
    { id: 'q', possible: '6' },
    { id: 'm', possible: '4' },
  ]);
  const remark = (id: string, criterionId: string | null, text = 'Give the figure.') =>
    exampleRemark({ id, criterionId, text });

  const understood = (remarks: readonly Remark[], judgements: readonly Judgement[] = []): Understood => ({
    judgements: new Map(judgements.map((one) => [one.remarkId, one])),
    sayings: new Map(remarks.map(({ id }) => [id, exampleSaying('fix')])),
  });

  it('follow the student’s link before the source’s word', () => {
    const moved = exampleJudgement('x', { link: { criterionId: 'm' } });
    const none = exampleJudgement('x', { link: { criterionId: null } });
    expect(criterionOf(remark('x', 'q'), moved)).toBe('m');
    expect(criterionOf(remark('x', 'q'), none)).toBeNull();
    expect(criterionOf(remark('x', 'q'), undefined)).toBe('q');
    const losses = criterionLosses(
      rubric,
      [result('q', '4'), result('m', '3')],
      null,
      [remark('x', 'q')],
      understood([remark('x', 'q')], [moved]),
    );
    expect(losses.map(({ lost, unexplained }) => [lost, unexplained])).toEqual([
      [200, 200],
      [100, 0],
    ]);
  });

  it('add up to what was lost, whatever the scale: criteria to the sum, remarks to their criterion', () => {
    const given = fc.tuple(
      fc.integer({ min: 0, max: 60 }),
      fc.integer({ min: 0, max: 40 }),
      fc.integer({ min: 1, max: 97 }),
      fc.nat({ max: 6 }),
    );
    fc.assert(
      fc.property(given, ([q, m, possible, count]) => {
        const results = [result('q', String(q / 10)), result('m', String(m / 10))];
        const remarks = Array.from({ length: count }, (_, i) => remark(`r${i}`, i % 2 === 0 ? 'q' : 'm'));
        const losses = criterionLosses(rubric, results, dec(String(possible)), remarks, understood(remarks));
        for (const loss of losses) {
          const shared = [...loss.shareByRemark.values()].reduce((x, y) => x + y, 0);
          expect(shared + loss.unexplained).toBe(loss.lost);
        }
        const lost = scaledResults(rubric, results, dec(String(possible))).reduce(
          (sum, one) =>
            one.possible === null || one.got === null
              ? sum
              : add(sum, add(one.possible, { n: -one.got.n, d: one.got.d })),
          ZERO,
        );
        expect(losses.reduce((sum, loss) => sum + loss.lost, 0)).toBe(toHundredths(lost));
      }),
    );
  });

  it('are of the whole without criteria, and at stake in the final on a draft', () => {
    const remarks = [remark('x', 'q'), remark('y', 'm', 'Good.')];
    const praise = understood(remarks, [exampleJudgement('y', { stance: 'praise' })]);
    const whole = wholeLoss(fromDecimal(dec('10')), fromDecimal(dec('7')), remarks, praise);
    expect([...whole.shareByRemark]).toEqual([['x', 300]]);
    const stakes = lossesAtStake(rubric, [], dec('30'), remarks, praise);
    expect(stakes.map(({ lost, atStake, unexplained }) => [lost, atStake, unexplained])).toEqual([
      [1800, true, 0],
      [1200, true, 0],
    ]);
    expect([...stakes[0].shareByRemark]).toEqual([['x', 1800]]);
    expect(lossesAtStake(rubric, [result('q', '5')], dec('30'), remarks, praise)[0].lost).toBe(300);
  });
});

describe('the rules of a course', () => {
  const course = exampleCourse({
    policy: { kind: 'best' },
    late: { graceHours: 1, pointsPerDay: '2', maxPoints: null },
    scales: [
      {
        id: 'letters',
        title: 'Letters',
        steps: [
          { name: 'A', from: '0.8', worth: '0.95' },
          { name: 'B', from: '0.6', worth: '0.7' },
          { name: 'seen', from: null, worth: null },
        ],
      },
    ],
  });

  it('hold where an assignment has none of its own', () => {
    expect(policyOf(exampleAssignment({ policy: null }), course)).toEqual({ kind: 'best' });
    expect(policyOf(exampleAssignment({ policy: { kind: 'mean' } }), course)).toEqual({ kind: 'mean' });
    expect(policyOf(exampleAssignment({ policy: null }), null)).toEqual({ kind: 'latest' });
    expect(lateRuleOf(exampleAssignment(), course)?.pointsPerDay).toBe('2');
    const free = { graceHours: 0, pointsPerDay: '0', maxPoints: null };
    expect(lateRuleOf(exampleAssignment({ late: free }), course)).toBeNull();
  });

  it('count own points before the group’s, and steps by what they are worth', () => {
    const assignment = exampleAssignment({ scaleId: 'letters', possible: '40' });
    const points = (given: object) => shown(pointsGiven(exampleMarking(given), assignment, course));
    expect(points({ score: '30', groupScore: '35' })).toBe('30');
    expect(points({ groupScore: '35', result: 'A' })).toBe('35');
    expect(points({ result: 'B' })).toBe('28');
    expect(points({ result: 'seen' })).toBeNull();
    expect(points({ result: 'Z' })).toBeNull();
    expect(points({})).toBeNull();
  });

  it('name the best step that a share reaches', () => {
    const [letters] = course.scales;
    const named = (share: string) => stepReached(letters, fromDecimal(dec(share)))?.name ?? null;
    expect([named('1.1'), named('0.8'), named('0.799'), named('0.6'), named('0.59')]).toEqual([
      'A',
      'A',
      'B',
      'B',
      null,
    ]);
  });
});

/** Remarks whose criterion their marker named, and the rubric that it is of: the demo's main paper. */
interface Named {
  readonly remarks: { id: string; text: string; quote?: string; beside?: string; criterion?: string }[];
}
const demo = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../demo/feedback/${name}`, import.meta.url), 'utf8'));

describe('the criterion that is suggested', () => {
  const [given] = demo('rubrics.json') as {
    criteria: { id: string; title: string; descriptions: string[] }[];
  }[];
  const rubric = exampleRubric(
    given.criteria.map(({ id, title, descriptions }) => ({
      id,
      title,
      levels: descriptions.map((description, i) => level(`Level ${i}`, null, null, description)),
    })),
  );
  const remarks = (demo('skarn-moss-remarks.json') as Named).remarks.flatMap(
    ({ id, text, quote, beside, criterion }) =>
      criterion === undefined
        ? []
        : [{ remark: exampleRemark({ id, text, targets: [wordsTarget(quote ?? beside ?? '')] }), criterion }],
  );
  type Known = (typeof remarks)[number];
  /** How many suggestions were made, and how many right, each remark given what `earlier` says was linked before. */
  const rightWith = (earlier: (one: Known) => readonly Known[]) => {
    const made = remarks.flatMap((one) => {
      const linked = earlier(one).map(({ remark, criterion }) => ({ criterionTitle: criterion, remark }));
      const found = criterionSuggester(rubric, linked)(one.remark);
      const title = rubric.criteria.find(({ id }) => id === found?.criterionId)?.title;
      return found === null ? [] : [title === one.criterion];
    });
    return { made: made.length, right: made.filter(Boolean).length };
  };

  it('is more often right than not on remarks whose criterion is known, and found more often for what was linked', () => {
    const cold = rightWith(() => []);
    const warm = rightWith((one) => remarks.filter((other) => other !== one));
    console.info(
      `suggested criteria, of ${remarks.length}: ${cold.right} of ${cold.made} right with nothing linked, ` +
        `${warm.right} of ${warm.made} with all others linked`,
    );
    expect(cold.right / cold.made).toBeGreaterThan(0.6);
    expect(warm.right / warm.made).toBeGreaterThan(0.6);
    expect(warm.right).toBeGreaterThan(cold.right);
  });

  it('is none where nothing fits, or two fit alike', () => {
    const suggest = criterionSuggester(rubric, []);
    expect(suggest(exampleRemark({ text: 'Hm.' }))).toBeNull();
    const twice = exampleRubric([{ title: 'Use of maps' }, { title: 'Use of maps' }]);
    expect(criterionSuggester(twice, [])(exampleRemark({ text: 'Use a map here.' }))).toBeNull();
  });

  it('has the score that BM25 gives', () => {
    // One criterion of two has the words, each three times (a title counts so): idf ln(1 + 1.5/1.5), and all are as long.
    const two = exampleRubric([{ title: 'peat core log hags' }, { title: 'moss sedge heath fern' }]);
    const found = criterionSuggester(two, [])(exampleRemark({ text: 'peat core log hags' }));
    const each = (Math.log(2) * 3 * 2.2) / (3 + 1.2);
    expect(found?.score).toBeCloseTo(4 * each, 10);
  });
});

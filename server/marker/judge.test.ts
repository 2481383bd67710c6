import { describe, expect, it } from 'vitest';
import type { Rubric } from '#core/model/facts.ts';
import { paperOf } from '#core/paper/paper.ts';
import { writeDraftDocx } from '#formats/docx/write-draft.ts';
import { readDocx } from '#formats/docx/read-docx.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { buildDesk } from '#demo/build-desk.ts';
import bold from '../../e2e/rewrites/bold.json' with { type: 'json' };
import careful from '../../e2e/rewrites/careful.json' with { type: 'json' };
import hurried from '../../e2e/rewrites/hurried.json' with { type: 'json' };
import methodical from '../../e2e/rewrites/methodical.json' with { type: 'json' };
import spare from '../../e2e/rewrites/spare.json' with { type: 'json' };
import tentative from '../../e2e/rewrites/tentative.json' with { type: 'json' };
import feedback from '#demo/feedback/skarn-moss-remarks.json' with { type: 'json' };
import { sentencesOf } from './sentences.ts';
import { judgeResubmission } from './judge.ts';
import { MarkingRules } from './marking-rules.ts';
import * as v from 'valibot';

const desk = await buildDesk('2026-11-02');
const first = desk.facts.flatMap((f) =>
  f.kind === 'marking' && f.value.assignmentId === 'skarn-moss-report' ? [f.value] : [],
)[0];
const marked = first.files.find(({ role }) => role === 'marked');
const pdf = await readMarkedPdf(desk.files.get(marked?.hash ?? '') ?? new Uint8Array(), null);
const rules = v.parse(MarkingRules, desk.markingRules);
const rubric: Rubric = desk.rubrics[0];
const before = first.criteria;
const others = desk.library.filter(({ relation }) => relation === 'fellow').map(({ text }) => text);

type Changes = readonly (readonly string[])[];
const blocks = pdf.paper.blocks;
const rewritten = (changes: Changes, how: (old: string, anew: string) => string = (_, anew) => anew) =>
  blocks.map((block) => ({
    ...block,
    text: changes.reduce((text, [old, anew]) => text.replace(old, how(old, anew)), block.text),
  }));

/** Marks a text through the same Word file that a student would send. */
async function mark(
  texts: readonly { kind: 'heading' | 'paragraph' | 'item'; level: number; text: string }[],
) {
  const docx = await writeDraftDocx(
    texts.map(({ kind, level, text }) => ({ kind, level, runs: [{ text, bold: false, italic: false }] })),
    'report',
    new Map(),
  );
  const judged = judgeResubmission(
    {
      marked: pdf.paper,
      passages: new Map(pdf.marks.flatMap((m) => (m.sourceId && m.anchor ? [[m.sourceId, m.anchor]] : []))),
      remarks: new Map(pdf.marks.map((m) => [m.sourceId ?? '', m.text])),
      others,
      submitted: paperOf(readDocx(docx).blocks),
      rubric,
      before,
      wordsMax: 3300,
    },
    rules,
  );
  return { ...judged, points: Number(judged.score) };
}

/** Shuffles in a way that is the same each time. */
function shuffled<T>(list: readonly T[], seed: number): T[] {
  const result = [...list];
  let state = seed;
  for (let i = result.length - 1; i > 0; i--) {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    const j = state % (i + 1);
    [result[i], result[j]] = [result[j], result[i]];
  }
  return result;
}
/** The sentence that holds some words; the words alone where there is none. */
function sentenceWith(text: string, words: string): string {
  return sentencesOf(text).find((one) => one.text.includes(words))?.text ?? words;
}

/** About the subject, and none of them with what its remark asks for. */
const VAGUE: Changes = [
  [
    'The results show that ditch blocking works and that Skarn Moss is now a healthy bog again.',
    'The work was a great success and everyone is happy with the bog.',
  ],
  [
    'to look at the water table of Skarn Moss and to find out about the effects of the dams and other things.',
    'to describe the water table of Skarn Moss and the dams in detail.',
  ],
  [
    'Sometimes a week was missed because of the weather.',
    'Now and then nobody could go out because of the weather.',
  ],
  [
    'It was not possible to leave a part of the bog without dams.',
    'The dams were built in every part of the bog.',
  ],
  [
    'The data were analysed statistically in a spreadsheet.',
    'The data were worked out very carefully with a computer.',
  ],
  [
    'This proves that blocking alone restored the bog.',
    'This shows very clearly that the dams have restored the bog.',
  ],
  [
    'The difference between the transects is significant.',
    'The difference between the transects is very large indeed.',
  ],
  [
    'Sphagnum will now come back to the whole of Skarn Moss within a few years.',
    'Sphagnum is going to return to the moss soon, and that is certain.',
  ],
  [', so the whole of the bog has been rewetted.', ', which means that the bog is wet everywhere.'],
  ['These limits do not change the results.', 'These limits have been thought about with great care.'],
  [
    'Blocking ditches is the best method of restoring a bog and should be used on all bogs in the country.',
    'Blocking ditches is an excellent method and should be used everywhere.',
  ],
  [
    'Everybody agrees that drained bogs should be rewetted as soon as possible.',
    'It is widely agreed that drained bogs should be rewetted as soon as possible.',
  ],
];

const rewrites = { careful, hurried, bold, methodical, spare, tentative };

describe('what earns a better result', () => {
  it.each(Object.entries(rewrites))('the honest rewrite “%s” does', async (_, { changes }) => {
    const judged = await mark(rewritten(changes));
    expect(judged.points).toBeGreaterThan(28.5);
    expect(judged.met.length).toBeGreaterThanOrEqual(changes.length / 2);
  });

  it('the patient rewrite earns more than the hurried one, and never more than there is', async () => {
    const [most, less] = [await mark(rewritten(careful.changes)), await mark(rewritten(hurried.changes))];
    expect(most.points).toBeGreaterThan(less.points);
    for (const result of most.criteria) {
      const criterion = rubric.criteria.find((c) => c.id === result.criterionId);
      expect(Number(result.points)).toBeLessThanOrEqual(Number(criterion?.possible));
    }
  });
});

describe('what earns nothing', () => {
  const same = async (texts: Parameters<typeof mark>[0]) => {
    const judged = await mark(texts);
    expect(judged.met).toEqual([]);
    expect(judged.points).toBe(28.5);
  };

  it('the same text again', () => same(rewritten([])));

  it('a comma here and there', () =>
    same(blocks.map((block) => ({ ...block, text: block.text.replaceAll(' and ', ', and ') }))));

  it.each(Object.entries(rewrites))('the passages of “%s” merely deleted', (_, { changes }) =>
    same(rewritten(changes, () => '')),
  );

  it.each(Object.entries(rewrites))('the passages of “%s” moved to the end as they were', (_, { changes }) =>
    same([
      ...rewritten(changes, () => ''),
      ...changes.map(([old]) => ({ kind: 'paragraph' as const, level: 0, text: old })),
    ]),
  );

  it.each(Object.entries(rewrites))(
    'the new sentences of “%s” with their words scrambled',
    async (_, { changes }) => {
      for (let seed = 1; seed <= 5; seed++)
        await same(
          rewritten(changes, (_old, anew) => {
            const words = shuffled(anew.replace(/[.,;:]/g, '').split(' '), seed).join(' ');
            return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
          }),
        );
    },
  );

  it('the whole paper with its words scrambled', () =>
    same(
      blocks.map((block) => ({
        ...block,
        text: block.text.replace(
          /[^.]+/g,
          (sentence) => ` ${shuffled(sentence.trim().split(' '), 7).join(' ')}`,
        ),
      })),
    ));

  it('lists of keywords in place of the passages', () => {
    const list =
      'Control, rainfall, season, test, Wilcoxon, 5 %, May to September, 61 mm, 118 mm, partly, may, because, Hask 2018, trust, smaller, Skarn Moss.';
    return same(rewritten(careful.changes, () => list));
  });

  it('a keyword sentence that is no sentence', () =>
    same(
      rewritten(
        careful.changes,
        () =>
          'May suggests the whether control because season compared with rainfall the Hask 2018 of 61 mm to 118 mm than May.',
      ),
    ));

  it('the marker’s own remarks put in place of the passages', () => {
    const texts = pdf.marks.map((m) => m.text);
    return same(rewritten(careful.changes.map(([old], i) => [old, texts[i % texts.length]])));
  });

  it('each remark’s own words put in its own place', () =>
    same(
      blocks.map((block) => ({
        ...block,
        text: feedback.remarks.reduce(
          (text, { quote, text: said }) =>
            quote === undefined ? text : text.replace(sentenceWith(text, quote), said),
          block.text,
        ),
      })),
    ));

  it.each(Object.entries(rewrites))(
    'one answer of “%s” at every place, each time a little different',
    async (_, { changes }) => {
      for (const [, answer] of changes.filter(([, text]) => text.split(' ').length >= 10)) {
        let n = 0;
        const judged = await mark(
          rewritten(
            changes,
            () =>
              `${answer.replace(/\.$/, '')} in ${['all', 'most', 'each', 'part'][n % 4]} of the ${n++} cases.`,
          ),
        );
        expect(judged.met.length, answer).toBeLessThanOrEqual(2);
      }
    },
  );

  it('sentences of another student in place of the passages', async () => {
    const theirs = others
      .flatMap((text) => sentencesOf(text).map((one) => one.text))
      .filter((text) => text.length > 40);
    for (let seed = 0; seed < 10; seed++) {
      const some = shuffled(theirs, seed);
      await same(rewritten(careful.changes.map(([old], i) => [old, some[i % some.length]])));
    }
  });

  it('passages written anew that say nothing of what was asked', () => same(rewritten(VAGUE)));

  it('one good sentence put everywhere', () => same(rewritten(careful.changes, () => careful.changes[0][1])));

  it('the whole text twice', () => same([...blocks, ...blocks]));

  it('padding, within the length and beyond it', async () => {
    const padding = (n: number) => ({
      kind: 'paragraph' as const,
      level: 0,
      text: Array.from(
        { length: n },
        (_, i) => `On day ${i} of the ${i + 3} days we went to the bog and came back in the evening.`,
      ).join(' '),
    });
    await same([...blocks, padding(20)]);
    await same([...rewritten(careful.changes), padding(60)]);
  });

  it('another text altogether', () =>
    same([
      {
        kind: 'paragraph',
        level: 0,
        text: 'This is a letter about the weather in May. It may rain, and the control of it is not ours.',
      },
    ]));
});

import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DecimalString } from '#core/model/ids.ts';
import { pairOf, questionKinds, type QuizQuestion } from '#core/quiz/question.ts';
import { toShown } from '#core/scores/fraction.ts';
import { readPaper } from '../read-paper.ts';
import { recognise } from '../recognise.ts';
import { UnreadableFile } from '../unreadable.ts';
import { readQuizPaper } from './quiz-paper.ts';
import { readQuizResults } from './read-results.ts';
import { writeQuizResults } from './write-quiz.ts';

/** Results as QTI 2.1 writes them, with a namespace prefix. */
const RESULTS_21 = `<?xml version="1.0"?>
<qti:assessmentResult xmlns:qti="http://www.imsglobal.org/xsd/imsqti_result_v2p1">
  <qti:context sourcedId="ines"/>
  <qti:testResult identifier="Flow" datestamp="2026-11-01T10:00:00"/>
  <qti:itemResult identifier="b" sequenceIndex="2" datestamp="2026-11-01T10:00:00" sessionStatus="final">
    <qti:responseVariable identifier="RESPONSE" cardinality="multiple" baseType="identifier">
      <qti:candidateResponse><qti:value>A</qti:value><qti:value>C</qti:value></qti:candidateResponse>
    </qti:responseVariable>
    <qti:outcomeVariable identifier="SCORE" cardinality="single" baseType="float"><qti:value>1.50</qti:value></qti:outcomeVariable>
    <qti:outcomeVariable identifier="MAXSCORE" cardinality="single" baseType="float"><qti:value>2</qti:value></qti:outcomeVariable>
    <qti:outcomeVariable identifier="FEEDBACK" cardinality="single" baseType="string"><qti:value>Two &lt; three: look again.</qti:value></qti:outcomeVariable>
  </qti:itemResult>
  <qti:itemResult identifier="a" sequenceIndex="1" datestamp="2026-11-01T10:00:00" sessionStatus="pendingResponseProcessing">
    <qti:responseVariable identifier="RESPONSE" cardinality="single" baseType="string">
      <qti:candidateResponse/>
    </qti:responseVariable>
    <qti:outcomeVariable identifier="SCORE" cardinality="single" baseType="float" normalMaximum="3"><qti:value>0</qti:value></qti:outcomeVariable>
  </qti:itemResult>
</qti:assessmentResult>`;

const ITEM_22 = `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p2" identifier="b" title="Layers" adaptive="false" timeDependent="false">
  <responseDeclaration identifier="RESPONSE" cardinality="multiple" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration>
  <itemBody><p>Fibrous peat lies over humified peat.</p>
    <choiceInteraction responseIdentifier="RESPONSE"><prompt>Where does the <em>water</em> move?</prompt>
      <simpleChoice identifier="A">in the upper layer</simpleChoice>
      <simpleChoice identifier="C">in both</simpleChoice>
    </choiceInteraction></itemBody>
</assessmentItem>`;

const zipped = () =>
  zipSync({ 'assessmentResult.xml': strToU8(RESULTS_21), 'items/b.xml': strToU8(ITEM_22) });

describe('quiz results', () => {
  it('are read from QTI 2.1, question by question, in the order of the quiz', () => {
    const { title, questions } = readQuizResults(strToU8(RESULTS_21));
    expect(title).toBe('Flow');
    expect(questions).toEqual([
      { id: 'a', number: 1, item: null, response: [], score: null, possible: '3', feedback: '' },
      {
        id: 'b',
        number: 2,
        item: null,
        response: ['A', 'C'],
        score: '1.50',
        possible: '2',
        feedback: 'Two < three: look again.',
      },
    ]);
  });

  it('come with their items where those are in the archive', () => {
    const [, question] = readQuizResults(zipped()).questions;
    expect(question.item).toEqual({
      title: 'Layers',
      kind: 'several',
      prompt: 'Fibrous peat lies over humified peat.\nWhere does the water move?',
      choices: [
        { id: 'A', text: 'in the upper layer' },
        { id: 'C', text: 'in both' },
      ],
      partners: [],
      correct: ['A'],
    });
  });

  it('are a text to read, with feedback on the answer it is about', () => {
    const { paper, marks } = readQuizPaper(zipped());
    expect(paper.blocks.map(({ text }) => text)).toEqual([
      'Flow',
      'Total: 1.5 of 5 points. One answer is not marked yet. Questions that lost points come first.',
      'Question 2: Layers',
      'Fibrous peat lies over humified peat.',
      'Where does the water move?',
      'in the upper layer',
      'in both',
      'Your answer: in the upper layer; in both',
      '1.50 of 2 points',
      'Question 1',
      'Your answer: no answer',
      'not marked yet',
    ]);
    expect(marks).toHaveLength(1);
    expect(marks[0]).toMatchObject({ text: 'Two < three: look again.', points: '1.50', sourceId: 'b' });
    expect(marks[0].targets[0]).toEqual({ kind: 'question', questionId: 'b', number: 2 });
    const { from, to } = marks[0].anchor ?? { from: 0, to: 0 };
    expect(paper.text.slice(from, to)).toBe('Your answer: in the upper layer; in both');
  });

  it('are told by what they hold', async () => {
    expect(recognise(strToU8(RESULTS_21)).kind).toBe('quiz');
    expect(recognise(zipped()).kind).toBe('quiz');
    expect((await readPaper(zipped(), null)).kind).toBe('quiz');
  });

  it.each([
    ['cut off', RESULTS_21.slice(0, 300)],
    ['another thing', '<assessmentResult><itemResult/></assessmentResul>'],
    ['nothing in it', '<assessmentResult></assessmentResult>'],
    ['an entity of its own', `<!DOCTYPE x [<!ENTITY e "boom">]>${RESULTS_21.slice(21)}`],
  ])('that are %s give one sentence', (_, xml) => {
    expect(() => readQuizResults(strToU8(xml))).toThrow(UnreadableFile);
    expect(() => readQuizResults(strToU8(xml))).toThrow(/damaged quiz/);
  });

  it.each([
    ['orderInteraction', 'ordered', 'identifier', '<simpleChoice identifier="A">a</simpleChoice>', 'order'],
    ['textEntryInteraction', 'single', 'float', '', 'number'],
    ['textEntryInteraction', 'single', 'string', '', 'short'],
    ['extendedTextInteraction', 'single', 'string', '', 'long'],
    ['hotspotInteraction', 'single', 'identifier', '', 'long'],
    [
      'inlineChoiceInteraction',
      'single',
      'identifier',
      '<inlineChoice identifier="A">a</inlineChoice>',
      'one',
    ],
  ])('of QTI 2 with %s, %s, %s are told as they are answered', (name, cardinality, type, inside, kind) => {
    const item = `<assessmentItem identifier="b"><responseDeclaration identifier="R" cardinality="${cardinality}" baseType="${type}"/><itemBody><${name} responseIdentifier="R"><prompt>Which?</prompt>${inside}</${name}></itemBody></assessmentItem>`;
    const bytes = zipSync({ 'r.xml': strToU8(RESULTS_21), 'b.xml': strToU8(item) });
    const [, question] = readQuizResults(bytes).questions;
    expect(question.item).toMatchObject({ kind, prompt: 'Which?' });
    expect(question.item?.choices).toHaveLength(inside === '' ? 0 : 1);
  });
});

describe('results that are written', () => {
  const text = fc.string({ minLength: 1, maxLength: 30, unit: 'grapheme-ascii' }).map((one) => {
    const squeezed = one.replace(/\s+/g, ' ').trim();
    return squeezed === '' ? 'x' : squeezed;
  });
  const list = fc.array(text, { minLength: 2, maxLength: 4 });
  const named = (texts: readonly string[], prefix: string) =>
    texts.map((one, index) => ({ id: `${prefix}${index}`, text: one }));
  const score = fc.nat(400).map((n) => toShown({ n: BigInt(n), d: 100n }, 2) as DecimalString);
  const question = fc
    .record({
      kind: fc.constantFrom(...questionKinds),
      title: text,
      prompt: text,
      choices: list,
      partners: list,
      response: text,
      score: fc.option(score),
      possible: score,
      feedback: fc.option(text),
    })
    .map(({ kind, title, prompt, choices, partners, response, feedback, ...points }): QuizQuestion => {
      const hasChoices = ['one', 'several', 'order', 'pairs'].includes(kind);
      const own = hasChoices ? named(choices, 'c') : [];
      const others = kind === 'pairs' ? named(partners, 'p') : [];
      const right = kind === 'pairs' ? [pairOf('c0', 'p1')] : hasChoices ? ['c1'] : [response];
      return {
        id: 'q',
        number: 1,
        item: { title, kind, prompt, choices: own, partners: others, correct: right },
        response: right,
        feedback: feedback ?? '',
        ...points,
      };
    });

  it('are read as they were, whatever they hold', () => {
    fc.assert(
      fc.property(text, fc.array(question, { minLength: 1, maxLength: 6 }), (title, questions) => {
        const results = {
          title,
          questions: questions.map((one, i) => ({ ...one, id: `q${i}`, number: i + 1 })),
        };
        expect(readQuizResults(writeQuizResults(results, '2026-11-02T10:00:00.000Z'))).toEqual(results);
      }),
    );
  });
});

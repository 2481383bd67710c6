import { strToU8, zipSync } from 'fflate';
import type { QuestionKind, QuizItem, QuizResults } from '#core/quiz/question.ts';
import { escapeXml } from '../xml/escape-xml.ts';

/** Writes the results of one attempt at a quiz: QTI 3.0 Results Reporting, in a ZIP with the items it is about. */

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const ITEM_NS = 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0';
const RESULT_NS = 'http://www.imsglobal.org/xsd/imsqti_result_v3p0';
/** A ZIP holds the time of its parts: always the same, so that the same results give the same bytes. */
const PART_TIME = new Date('2020-01-01T00:00:00Z');

type Cardinality = 'single' | 'multiple' | 'ordered';
const DECLARED: Readonly<Record<QuestionKind, readonly [Cardinality, string]>> = {
  one: ['single', 'identifier'],
  several: ['multiple', 'identifier'],
  order: ['ordered', 'identifier'],
  pairs: ['multiple', 'directedPair'],
  number: ['single', 'float'],
  short: ['single', 'string'],
  long: ['single', 'string'],
};

type Attributes = Readonly<Record<string, string | number | null>>;

function element(name: string, attributes: Attributes, ...content: string[]): string {
  const written = Object.entries(attributes)
    .map(([key, value]) => (value === null ? '' : ` ${key}="${escapeXml(String(value))}"`))
    .join('');
  return `<${name}${written}>${content.join('')}</${name}>`;
}

function interactionOf({ kind, prompt, choices, partners }: QuizItem): string {
  const to = { 'response-identifier': 'RESPONSE' };
  const asked = element('qti-prompt', {}, escapeXml(prompt));
  const each = (name: string, list: QuizItem['choices'], more: Attributes = {}) =>
    list.map(({ id, text }) => element(name, { identifier: id, ...more }, escapeXml(text)));
  switch (kind) {
    case 'one':
    case 'several':
      return element(
        'qti-choice-interaction',
        { ...to, 'max-choices': kind === 'one' ? 1 : 0 },
        asked,
        ...each('qti-simple-choice', choices),
      );
    case 'order':
      return element('qti-order-interaction', to, asked, ...each('qti-simple-choice', choices));
    case 'pairs':
      return element(
        'qti-match-interaction',
        { ...to, 'max-associations': choices.length },
        asked,
        ...[choices, partners].map((list, side) =>
          element(
            'qti-simple-match-set',
            {},
            ...each('qti-simple-associable-choice', list, { 'match-max': side === 0 ? 1 : 0 }),
          ),
        ),
      );
    case 'number':
    case 'short':
      return element(
        'div',
        {},
        element('p', {}, escapeXml(prompt)),
        element('qti-text-entry-interaction', to),
      );
    case 'long':
      return element('qti-extended-text-interaction', to, asked);
  }
}

function itemXml(id: string, item: QuizItem): string {
  const [cardinality, type] = DECLARED[item.kind];
  const right = item.correct.map((value) => element('qti-value', {}, escapeXml(value)));
  return (
    HEAD +
    element(
      'qti-assessment-item',
      { xmlns: ITEM_NS, identifier: id, title: item.title, 'time-dependent': 'false' },
      element(
        'qti-response-declaration',
        { identifier: 'RESPONSE', cardinality, 'base-type': type },
        ...(right.length === 0 ? [] : [element('qti-correct-response', {}, ...right)]),
      ),
      element('qti-item-body', {}, interactionOf(item)),
    )
  );
}

/** @param at the moment of handing in, ISO 8601 */
export function writeQuizResults({ title, questions }: QuizResults, at: string): Uint8Array<ArrayBuffer> {
  const values = (list: readonly string[]) =>
    list.map((one) => element('value', {}, escapeXml(one))).join('');
  const outcome = (identifier: string, baseType: string, value: string, more: Attributes = {}) =>
    element('outcomeVariable', { identifier, cardinality: 'single', baseType, ...more }, values([value]));
  const results = questions.map(({ id, number, item, response, score, possible, feedback }) => {
    const [cardinality, baseType] = DECLARED[item?.kind ?? 'long'];
    return element(
      'itemResult',
      {
        identifier: id,
        sequenceIndex: number,
        datestamp: at,
        sessionStatus: score === null ? 'pendingResponseProcessing' : 'final',
      },
      element(
        'responseVariable',
        { identifier: 'RESPONSE', cardinality, baseType },
        element('candidateResponse', {}, values(response)),
      ),
      ...(score === null ? [] : [outcome('SCORE', 'float', score, { normalMaximum: possible })]),
      ...(score === null && possible !== null ? [outcome('MAXSCORE', 'float', possible)] : []),
      ...(feedback === '' ? [] : [outcome('FEEDBACK', 'string', feedback)]),
    );
  });
  const test = { identifier: title, datestamp: at };
  const report = element(
    'assessmentResult',
    { xmlns: RESULT_NS },
    element('context', {}),
    element('testResult', test),
    ...results,
  );
  const items = questions.flatMap(({ id, item }) =>
    item === null ? [] : [[`items/${id}.xml`, strToU8(itemXml(id, item))] as const],
  );
  return zipSync(
    { 'assessmentResult.xml': strToU8(HEAD + report), ...Object.fromEntries(items) },
    { mtime: PART_TIME },
  );
}

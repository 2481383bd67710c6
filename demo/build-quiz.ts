import { strToU8, zipSync } from 'fflate';
import { escapeXml } from './escape-xml.ts';

/** Makes the results of one attempt at a quiz: QTI 3.0 Results Reporting, with the items it is about. */

export interface DemoQuiz {
  readonly title: string;
  readonly items: readonly {
    readonly id: string;
    readonly title: string;
    readonly prompt: string;
    readonly choices?: readonly (readonly string[])[] | undefined;
    readonly correct: readonly string[];
    readonly possible: string;
  }[];
  readonly attempts: readonly (readonly {
    readonly id: string;
    readonly response: readonly string[];
    readonly score: string | null;
    readonly feedback: string;
  }[])[];
}

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const ITEM_NS = 'http://www.imsglobal.org/xsd/imsqtiasi_v3p0';
const RESULT_NS = 'http://www.imsglobal.org/xsd/imsqti_result_v3p0';

function itemXml({ id, title, prompt, choices, correct }: DemoQuiz['items'][number]): string {
  const right = correct.map((value) => `<qti-value>${escapeXml(value)}</qti-value>`).join('');
  const asked = `<qti-prompt>${escapeXml(prompt)}</qti-prompt>`;
  const body =
    choices === undefined
      ? `<qti-extended-text-interaction response-identifier="RESPONSE">${asked}</qti-extended-text-interaction>`
      : `<qti-choice-interaction response-identifier="RESPONSE" max-choices="1">${asked}${choices
          .map(
            ([name, text]) =>
              `<qti-simple-choice identifier="${escapeXml(name)}">${escapeXml(text)}</qti-simple-choice>`,
          )
          .join('')}</qti-choice-interaction>`;
  return `${HEAD}<qti-assessment-item xmlns="${ITEM_NS}" identifier="${id}" title="${escapeXml(title)}" time-dependent="false"><qti-response-declaration identifier="RESPONSE" cardinality="single" base-type="string">${right === '' ? '' : `<qti-correct-response>${right}</qti-correct-response>`}</qti-response-declaration><qti-item-body>${body}</qti-item-body></qti-assessment-item>`;
}

/** @param at the moment of handing in, so that the same day gives the same bytes */
export function buildQuiz(quiz: DemoQuiz, attempt: number, at: string): Uint8Array {
  const results = quiz.attempts[attempt]
    .map(({ id, response, score, feedback }, index) => {
      const possible = quiz.items.find((item) => item.id === id)?.possible ?? '0';
      const status = score === null ? 'pendingResponseProcessing' : 'final';
      const given = response.map((value) => `<value>${escapeXml(value)}</value>`).join('');
      const marked =
        score === null
          ? ''
          : `<outcomeVariable identifier="SCORE" cardinality="single" baseType="float" normalMaximum="${possible}"><value>${score}</value></outcomeVariable>`;
      const said =
        feedback === ''
          ? ''
          : `<outcomeVariable identifier="FEEDBACK" cardinality="single" baseType="string"><value>${escapeXml(feedback)}</value></outcomeVariable>`;
      return `<itemResult identifier="${id}" sequenceIndex="${index + 1}" datestamp="${at}" sessionStatus="${status}"><responseVariable identifier="RESPONSE" cardinality="single" baseType="string"><candidateResponse>${given}</candidateResponse></responseVariable>${marked}${said}</itemResult>`;
    })
    .join('');
  const result = `${HEAD}<assessmentResult xmlns="${RESULT_NS}"><context/><testResult identifier="${escapeXml(quiz.title)}" datestamp="${at}"/>${results}</assessmentResult>`;
  const items = Object.fromEntries(
    quiz.items.map((item) => [`items/${item.id}.xml`, strToU8(itemXml(item))]),
  );
  return zipSync(
    { 'assessmentResult.xml': strToU8(result), ...items },
    { mtime: new Date('2020-01-01T00:00:00Z') },
  );
}

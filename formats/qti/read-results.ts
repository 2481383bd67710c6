import { refusedAs } from '../malformed.ts';
import * as v from 'valibot';
import { DecimalString } from '#core/model/ids.ts';
import type { Choice, QuestionKind, QuizItem, QuizQuestion, QuizResults } from '#core/quiz/question.ts';
import { UnreadableFile } from '../unreadable.ts';
import { parseXml, textOfPart, type Attributes } from '../xml/parse-xml.ts';
import { readZip } from '../zip/read-zip.ts';

interface Node {
  readonly name: string;
  readonly attributes: Attributes;
  readonly children: (Node | string)[];
}

/** Element names without prefix, and QTI 3's hyphened names as QTI 2 writes them. */
function plainName(name: string): string {
  return name
    .replace(/^[^:]*:/, '')
    .replace(/^qti-/, '')
    .replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
}

function treeOf(xml: string): Node {
  const root: Node = { name: '', attributes: {}, children: [] };
  const open = [root];
  const last = () => open[open.length - 1];
  parseXml(xml, {
    open(name, attributes) {
      const node: Node = { name: plainName(name), attributes, children: [] };
      last().children.push(node);
      open.push(node);
    },
    text: (text) => void last().children.push(text),
    close: () => void open.pop(),
  });
  return root;
}

function all(node: Node, name: string): Node[] {
  return node.children.flatMap((child) =>
    typeof child === 'string' ? [] : [...(child.name === name ? [child] : []), ...all(child, name)],
  );
}

const OWN_LINE = new Set(['p', 'div', 'li', 'h1', 'h2', 'h3', 'prompt', 'tr', 'br']);

function textOf(node: Node, without: ReadonlySet<string> = new Set()): string {
  const piece = (child: Node | string): string => {
    if (typeof child === 'string') return child.replace(/\s+/g, ' ');
    if (without.has(child.name)) return '';
    const text = child.children.map(piece).join('');
    return OWN_LINE.has(child.name) ? `\n${text}\n` : text;
  };
  return node.children
    .map(piece)
    .join('')
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .join('\n');
}

function valuesOf(node: Node | undefined): string[] {
  return node === undefined ? [] : all(node, 'value').map((value) => textOf(value));
}

function decimalOf(text: string | undefined): DecimalString | null {
  const parsed = v.safeParse(DecimalString, text?.trim().replace(/(\.\d{6})\d+$/, '$1'));
  return parsed.success ? parsed.output : null;
}

const INTERACTIONS: readonly (readonly [string, QuestionKind])[] = [
  ['orderInteraction', 'order'],
  ['matchInteraction', 'pairs'],
  ['textEntryInteraction', 'short'],
  ['inlineChoiceInteraction', 'one'],
];
const NUMERIC = new Set(['float', 'integer']);

/** How a question is answered; what has none of the known ways is a text. */
function kindOf(node: Node): QuestionKind {
  const declared = all(node, 'responseDeclaration').at(0)?.attributes;
  const [choice] = all(node, 'choiceInteraction') as (Node | undefined)[];
  if (choice !== undefined)
    return declared?.cardinality === 'multiple' ||
      (choice.attributes.maxChoices ?? choice.attributes['max-choices'] ?? '1') !== '1'
      ? 'several'
      : 'one';
  const known = INTERACTIONS.find(([name]) => all(node, name).length > 0)?.[1] ?? 'long';
  return known === 'short' && NUMERIC.has(declared?.baseType ?? declared?.['base-type'] ?? '')
    ? 'number'
    : known;
}

function choicesIn(nodes: readonly Node[]): Choice[] {
  return nodes.map((choice) => ({ id: choice.attributes.identifier ?? '', text: textOf(choice) }));
}

const CHOICES = ['simpleChoice', 'inlineChoice', 'simpleAssociableChoice'];

function itemOf(node: Node): QuizItem {
  const [body] = all(node, 'itemBody') as (Node | undefined)[];
  const answers = new Set([...CHOICES, 'modalFeedback', 'rubricBlock']);
  const [from, to] = body === undefined ? [] : (all(body, 'simpleMatchSet') as (Node | undefined)[]);
  return {
    title: node.attributes.title ?? '',
    kind: kindOf(node),
    prompt: body === undefined ? '' : textOf(body, answers),
    choices: choicesIn(
      from !== undefined
        ? all(from, 'simpleAssociableChoice')
        : body === undefined
          ? []
          : CHOICES.flatMap((name) => all(body, name)),
    ),
    partners: to === undefined ? [] : choicesIn(all(to, 'simpleAssociableChoice')),
    correct: all(node, 'correctResponse').flatMap(valuesOf),
  };
}

function questionOf(node: Node, index: number, items: ReadonlyMap<string, QuizItem>): QuizQuestion {
  const outcomes = all(node, 'outcomeVariable');
  const outcome = (name: string) =>
    outcomes.find(({ attributes }) => attributes.identifier?.toUpperCase() === name);
  const score = outcome('SCORE');
  const pending = /^pending/i.test(node.attributes.sessionStatus ?? '');
  const id = node.attributes.identifier ?? `item ${index + 1}`;
  const position = Number(node.attributes.sequenceIndex);
  return {
    id,
    number: Number.isInteger(position) && position > 0 ? position : index + 1,
    item: items.get(id) ?? null,
    response: all(node, 'candidateResponse').flatMap(valuesOf),
    score: pending ? null : decimalOf(valuesOf(score).at(0)),
    possible: decimalOf(score?.attributes.normalMaximum ?? valuesOf(outcome('MAXSCORE')).at(0)),
    feedback: valuesOf(outcome('FEEDBACK')).join('\n'),
  };
}

/**
 * Reads the results of one attempt at a quiz: QTI Results Reporting (assessmentResult of QTI 2.1, 2.2 and 3.0), alone or
 * in a ZIP with the items it is about. Feedback is the outcome FEEDBACK of each item.
 * @throws UnreadableFile 'damaged quiz'
 */
export function readQuizResults(bytes: Uint8Array): QuizResults {
  return refusedAs('damaged quiz', () => {
    const zipped = bytes[0] === 0x50 && bytes[1] === 0x4b;
    const parts = zipped ? Object.values(readZip(bytes, (name) => /\.xml$/i.test(name))) : [bytes];
    const trees = parts.map((part) => treeOf(textOfPart(part)));
    const result = trees.flatMap((tree) => all(tree, 'assessmentResult')).at(0);
    if (result === undefined) throw new UnreadableFile('damaged quiz');
    const items = new Map(
      trees
        .flatMap((tree) => all(tree, 'assessmentItem'))
        .map((node) => [node.attributes.identifier ?? '', itemOf(node)]),
    );
    const questions = all(result, 'itemResult')
      .map((node, index) => questionOf(node, index, items))
      .sort((x, y) => x.number - y.number);
    if (questions.length === 0) throw new UnreadableFile('damaged quiz');
    const test = all(result, 'testResult').at(0);
    return { title: test?.attributes.identifier ?? '', questions };
  });
}

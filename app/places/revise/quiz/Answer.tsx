import { ArrowDown, ArrowUp } from 'lucide-react';
import type { ReactNode } from 'react';
import { pairOf, type QuizItem } from '#core/quiz/question.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { CheckBox } from '../../../shared/controls/CheckBox.tsx';
import { RadioList } from '../../../shared/controls/Radios.tsx';
import { Select } from '../../../shared/controls/Select.tsx';
import * as words from '../../../words/en.ts';

interface AnswerProps {
  readonly item: QuizItem;
  readonly response: readonly string[];
  readonly onRespond: (response: readonly string[]) => void;
}

/** The answer to a question, given in the way that the question asks for. */
export function Answer({ item, response, onRespond }: AnswerProps) {
  const { kind, choices, partners } = item;
  switch (kind) {
    case 'one':
      return (
        <RadioList
          aria-label={words.practice.yourAnswer}
          className="grid gap-2"
          chosen={response.at(0) ?? null}
          options={choices.map(({ id, text }) => ({ value: id, label: text }))}
          onChoose={(id) => onRespond([id])}
        />
      );
    case 'several':
      return (
        <ul aria-label={words.practice.yourAnswer} className="grid gap-2">
          {choices.map(({ id, text }) => (
            <li key={id}>
              <label className="inline-flex items-center gap-2">
                <CheckBox
                  large
                  checked={response.includes(id)}
                  onChange={(on) => onRespond(on ? [...response, id] : response.filter((one) => one !== id))}
                />
                {text}
              </label>
            </li>
          ))}
        </ul>
      );
    case 'order':
      return <Ordered choices={choices} response={response} onRespond={onRespond} />;
    case 'pairs':
      return (
        <ul aria-label={words.practice.yourAnswer}>
          {choices.map(({ id, text }) => (
            <Row key={id} label={text}>
              <Select
                label={text}
                className="min-w-48"
                value={partners.find((partner) => response.includes(pairOf(id, partner.id)))?.id ?? ''}
                options={[
                  ['', words.practice.choose],
                  ...partners.map((partner) => [partner.id, partner.text] as const),
                ]}
                onChange={(partner) =>
                  onRespond([
                    ...response.filter((one) => !one.startsWith(`${id} `)),
                    ...(partner === '' ? [] : [pairOf(id, partner)]),
                  ])
                }
              />
            </Row>
          ))}
        </ul>
      );
    case 'number':
    case 'short':
    case 'long':
      return (
        <label className="block">
          <span className="text-sm font-semibold">{words.practice.yourAnswer}</span>
          <textarea
            rows={kind === 'long' ? 4 : 1}
            value={response.at(0) ?? ''}
            onChange={(event) => onRespond([event.target.value])}
            className="mt-0.5 block w-full resize-y rounded-md border border-rule bg-paper px-3 py-2"
          />
        </label>
      );
  }
}

/** Choices that are put in order; as they were listed until one is moved. */
function Ordered({ choices, response, onRespond }: Omit<AnswerProps, 'item'> & Pick<QuizItem, 'choices'>) {
  const order = response.length === 0 ? choices.map(({ id }) => id) : response;
  const move = (index: number, to: number) =>
    onRespond(order.toSpliced(index, 1).toSpliced(to, 0, order[index]));
  return (
    <ol aria-label={words.practice.yourAnswer}>
      {order.map((id, index) => {
        const text = choices.find((choice) => choice.id === id)?.text ?? id;
        return (
          <Row key={id} label={`${index + 1}. ${text}`}>
            <span className="flex gap-2">
              <Button
                aria-label={words.practice.up(text)}
                disabled={index === 0}
                onClick={() => move(index, index - 1)}
              >
                <ArrowUp size="1em" aria-hidden />
              </Button>
              <Button
                aria-label={words.practice.down(text)}
                disabled={index === order.length - 1}
                onClick={() => move(index, index + 1)}
              >
                <ArrowDown size="1em" aria-hidden />
              </Button>
            </span>
          </Row>
        );
      })}
    </ol>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-t border-rule py-1.5">
      <span>{label}</span>
      {children}
    </li>
  );
}

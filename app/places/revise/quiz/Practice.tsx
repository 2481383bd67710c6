import { useState } from 'react';
import { Link } from 'react-router';
import type { Missed } from '#core/quiz/practice.ts';
import { correctText, responseText } from '#core/quiz/question.ts';
import { isRight } from '#core/quiz/share-right.ts';
import { Button, Empty, SectionTitle } from '../../../shared/controls/Controls.tsx';
import { StationNotice } from '../../../shared/line/StationNotice.tsx';
import { assignmentAddress } from '../../../shared/page/addresses.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { shownPoints } from '../../../shared/shown/figures.ts';
import * as words from '../../../words/en.ts';
import { useMissed } from '../../../workspace/state/missed.ts';
import { Answer } from './Answer.tsx';

/** The missed questions, one after the other, without their answers until they are asked for. */
export function Practice({ outlet: { view } }: { outlet: AssignmentOutlet }) {
  const missed = useMissed(view);
  const isBack = view.papers.some(({ role }) => role === 'quiz');
  const [at, setAt] = useState(0);
  return (
    <div className="mx-auto grid max-w-3xl grid-cols-1 gap-5 p-6 max-md:p-4">
      <StationNotice view={view} station="revise" />
      <div>
        <SectionTitle>{words.practice.title}</SectionTitle>
        <p className="text-sm text-quiet">
          {missed === null || missed.length === 0
            ? words.practice.lead
            : words.practice.at(at + 1, missed.length)}
        </p>
      </div>
      {missed === null ? (
        <Empty>{words.reading.opening}</Empty>
      ) : missed.length === 0 ? (
        <Empty>
          {!isBack ? words.practice.noResults : words.practice.nothingMissed}{' '}
          <Link
            to={assignmentAddress(view.assignment.id, 'read')}
            className="font-semibold text-accent hover:underline"
          >
            {words.practice.toQuestions}
          </Link>
        </Empty>
      ) : (
        <Question
          key={missed[at].question.id}
          missed={missed[at]}
          onBack={at > 0 ? () => setAt(at - 1) : null}
          onNext={at + 1 < missed.length ? () => setAt(at + 1) : null}
        />
      )}
    </div>
  );
}

function Question({
  missed: { question, item, lost },
  onBack,
  onNext,
}: {
  missed: Missed;
  onBack: (() => void) | null;
  onNext: (() => void) | null;
}) {
  const [response, respond] = useState<readonly string[]>([]);
  const [shown, setShown] = useState(false);
  const textOf = (value: string) => responseText(item, value);
  const right = isRight(item, response);
  return (
    <section className="rounded-lg border border-rule bg-surface p-5">
      <p className="text-sm text-quiet">{words.practice.question(question.number, shownPoints(lost))}</p>
      <h3 className="mt-1 font-serif text-[1.1rem] whitespace-pre-line">{item.prompt}</h3>
      <div className="mt-3">
        <Answer item={item} response={response} onRespond={respond} />
      </div>
      {shown && (
        <div role="status" className="mt-4 border-t border-dashed border-rule pt-3">
          {response.length > 0 && right !== null && (
            <p className="font-semibold">{right ? words.practice.right : words.practice.notRight}</p>
          )}
          <dl className="mt-1">
            <dt className="text-sm text-quiet">{words.practice.wanted}</dt>
            <dd className="mb-2">{item.correct.length === 0 ? words.practice.notTold : correctText(item)}</dd>
            <dt className="text-sm text-quiet">{words.practice.before}</dt>
            <dd className="mb-2">
              {question.response.map(textOf).filter(Boolean).join('; ') || words.practice.nothing}
            </dd>
            {question.feedback !== '' && (
              <>
                <dt className="text-sm text-quiet">{words.practice.said}</dt>
                <dd className="font-serif">{question.feedback}</dd>
              </>
            )}
          </dl>
        </div>
      )}
      <div className="mt-4 flex flex-wrap gap-3">
        {!shown && (
          <Button look="main" onClick={() => setShown(true)}>
            {words.practice.show}
          </Button>
        )}
        {onBack !== null && <Button onClick={onBack}>{words.practice.back}</Button>}
        {onNext !== null && (
          <Button look={shown ? 'main' : 'plain'} onClick={onNext}>
            {words.practice.next}
          </Button>
        )}
        {onNext === null && shown && <p className="self-center text-quiet">{words.practice.last}</p>}
      </div>
    </section>
  );
}

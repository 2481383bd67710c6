import clsx from 'clsx';
import type { Criterion, CriterionResult } from '#core/model/facts.ts';
import type { DecimalString } from '#core/model/ids.ts';
import { compare, fromDecimal, subtract, toHundredths } from '#core/scores/fraction.ts';
import { Empty } from '../../shared/Controls.tsx';
import { Slip } from '../../shared/Slip.tsx';
import { SlipList } from './SlipList.tsx';
import { words } from '../../words/en.ts';
import { hundredths, type AssignmentView } from '../../workspace/assignment-view.ts';

/** Each criterion as a rule with its levels as steps: the one reached, what the next asks, and what was said. */
export function RubricView({
  view,
  focusedId,
  onFocus,
}: {
  view: AssignmentView;
  focusedId: string | null;
  onFocus: (id: string) => void;
}) {
  const criteria = view.rubric?.criteria ?? [];
  // Comments on a criterion that no rubric here has are there all the same.
  const others = view.remarks.filter(
    (remark) =>
      remark.channel === 'criterion' && criteria.every((criterion) => criterion.id !== remark.criterionId),
  );
  return (
    <>
      {view.rubric === null && <Empty>{words.reading.noRubric}</Empty>}
      <ol className="grid gap-7">
        {criteria.map((criterion) => (
          <li key={criterion.id}>
            <CriterionRule
              criterion={criterion}
              result={view.latestMarking?.criteria.find((r) => r.criterionId === criterion.id) ?? null}
            />
            <CriterionRemarks view={view} criterion={criterion} focusedId={focusedId} onFocus={onFocus} />
          </li>
        ))}
      </ol>
      {others.length > 0 && (
        <div className="mt-5">
          <SlipList view={view} remarks={others} focusedId={focusedId} onFocus={onFocus} />
        </div>
      )}
    </>
  );
}

function CriterionRule({ criterion, result }: { criterion: Criterion; result: CriterionResult | null }) {
  const points = result?.points ?? null;
  const reached = criterion.levels.findIndex((level) => level.title === result?.level);
  return (
    <>
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="font-serif text-[1.05rem] font-semibold">{criterion.title}</h2>
        {points !== null && criterion.possible !== null && (
          <p className="text-sm whitespace-nowrap text-quiet">
            <b className="text-ink">{points}</b> ·{' '}
            {words.reading.lost(hundredths(lostOf(criterion.possible, points)), criterion.possible)}
          </p>
        )}
      </div>
      <ol className="mt-1.5 grid gap-x-3 gap-y-2 sm:grid-flow-col sm:auto-cols-fr">
        {criterion.levels.map((level, index) => {
          const passed =
            points !== null &&
            level.points !== null &&
            compare(fromDecimal(level.points), fromDecimal(points)) <= 0;
          return (
            <li
              key={level.title}
              className={clsx(
                'border-t-[3px] pt-1.5 text-sm',
                passed ? 'border-ink' : 'border-rule',
                index === reached && 'font-semibold',
              )}
            >
              <p>
                {level.title} <span className="font-normal text-quiet">{level.points}</span>
                {index === reached && (
                  <span className="ml-1.5 rounded border border-ink px-1 text-xs font-normal">
                    {words.reading.reached}
                  </span>
                )}
              </p>
              <p
                className={clsx(
                  'mt-0.5 font-normal',
                  index === reached || index === reached + 1 ? 'text-ink' : 'text-quiet',
                )}
              >
                {level.description}
              </p>
            </li>
          );
        })}
      </ol>
    </>
  );
}

function lostOf(possible: DecimalString, points: DecimalString): number {
  return Math.max(0, toHundredths(subtract(fromDecimal(possible), fromDecimal(points))));
}

function CriterionRemarks({
  view,
  criterion,
  focusedId,
  onFocus,
}: {
  view: AssignmentView;
  criterion: Criterion;
  focusedId: string | null;
  onFocus: (id: string) => void;
}) {
  const own = view.remarks.filter((r) => r.channel === 'criterion' && r.criterionId === criterion.id);
  const inPaper = view.remarks.filter(
    (r) => r.channel === 'passage' && r.criterionId === criterion.id,
  ).length;
  return (
    <div className="mt-3 grid gap-2">
      {own.map((remark) => (
        <Slip
          key={remark.id}
          view={view}
          remark={remark}
          focused={remark.id === focusedId}
          onFocus={() => onFocus(remark.id)}
        />
      ))}
      <p className="text-sm text-quiet">
        {own.length === 0 && view.latestMarking !== null && `${words.reading.noComment} `}
        {inPaper > 0 && words.reading.remarksOn(inPaper)}
      </p>
    </div>
  );
}

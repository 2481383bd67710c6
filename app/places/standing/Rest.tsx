import { useMemo, useState } from 'react';
import { decimalIn } from '#core/model/ids.ts';
import { courseGrade, type GradedCourse } from '#core/scores/course-grade.ts';
import {
  HUNDRED,
  ONE,
  toShownUp,
  compare,
  divide,
  fromDecimal,
  multiply,
  type Fraction,
} from '#core/scores/fraction.ts';
import { neededAverage, restOf, withRest } from '#core/scores/what-if.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { shownShare } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';

const FIRST_GOAL = '80';

/** What would the rest have to be, to reach a goal in the course. */
export function Rest({ graded, withIfs }: { graded: GradedCourse; withIfs: boolean }) {
  const [goal, setGoal] = useState(FIRST_GOAL);
  const rest = useMemo(() => restOf(graded), [graded]);
  const number = decimalIn(goal);
  const told = useMemo(
    () =>
      number === null
        ? words.standing.restGoalWrong
        : neededTold(graded, divide(fromDecimal(number), HUNDRED)),
    [graded, number],
  );
  return (
    <section>
      <SectionTitle>{words.standing.rest}</SectionTitle>
      {rest.length === 0 ? (
        <p className="mt-1 text-quiet">{words.standing.restNone}</p>
      ) : (
        <>
          <p className="mt-1 text-sm text-quiet">{words.standing.restLead(rest.length)}</p>
          <label className="mt-2 flex flex-wrap items-baseline gap-2">
            {words.standing.restGoal}
            <input
              type="text"
              inputMode="decimal"
              value={goal}
              aria-invalid={number === null}
              onChange={(event) => setGoal(event.target.value)}
              className="w-16 rounded-md border border-rule-strong/60 bg-paper px-1.5 py-0.5 text-right"
            />
            {words.standing.restGoalUnit}
          </label>
          <p role="status" className="mt-1 font-semibold" data-needed>
            {told}
          </p>
          {withIfs && <p className="text-sm text-quiet">{words.standing.restIf}</p>}
        </>
      )}
    </section>
  );
}

function neededTold(graded: GradedCourse, goal: Fraction): string {
  const needed = neededAverage(graded, goal);
  const full = courseGrade(withRest(graded, new Set(restOf(graded).map(({ id }) => id)), ONE)).grade;
  const most = full === null ? '' : shownShare(full);
  switch (needed.kind) {
    case 'nothing to come':
      return words.standing.restNone;
    case 'out of reach':
      return words.standing.restOut(most);
    case 'ratio':
      if (needed.ratio.n === 0n) return words.standing.restDone;
      return compare(needed.ratio, ONE) > 0
        ? words.standing.restBeyond(toShownUp(multiply(needed.ratio, HUNDRED), 1), most)
        : words.standing.restNeeds(toShownUp(multiply(needed.ratio, HUNDRED), 1));
  }
}

import { stepReached } from '#core/scores/rules.ts';
import { toShown, type Fraction } from '#core/scores/fraction.ts';
import { shownShare, shownShares } from '../../shared/shown/figures.ts';
import * as words from '../../words/en.ts';
import type { Standing } from '#core/assignment/standing.ts';

/** The grade of a course as it is told: per cent, and the step of the course's own scale. */
function gradeTold({ course }: Standing, grade: Fraction | null): string {
  if (grade === null) return words.standing.noGrade;
  const scale = course.scales.find(({ id }) => id === course.gradeScaleId);
  const step = scale === undefined ? null : stepReached(scale, grade);
  return `${words.standing.percent(shownShare(grade))}${step === null ? '' : ` · ${step.name}`}`;
}

/** The grade, and what each category brings of it: the parts add up to it. */
export function GradeHead({
  standing,
  ifGrade,
}: {
  standing: Standing;
  /** With the “if” scores; not given where there are none. */
  ifGrade: Fraction | null | undefined;
}) {
  const { grade, categories } = standing;
  const weighted = standing.graded.scheme === 'weighted';
  const brings = shownShares(categories.map(({ part }) => part.brings));
  const counted = categories.some(({ part }) => part.possible.n > 0n);
  return (
    <section aria-label={words.standing.grade}>
      <dl className="flex flex-wrap items-baseline gap-x-10 gap-y-2">
        <div>
          <dt className="text-sm text-quiet">{words.standing.grade}</dt>
          <dd className="font-serif text-4xl font-semibold" data-grade>
            {gradeTold(standing, grade.grade)}
          </dd>
        </div>
        {ifGrade !== undefined && (
          <div>
            <dt className="text-sm font-semibold text-accent">{words.standing.ifGrade}</dt>
            <dd className="font-serif text-4xl font-semibold text-accent italic" data-if-grade>
              {gradeTold(standing, ifGrade)}
            </dd>
          </div>
        )}
      </dl>
      {grade.grade === null && <p className="mt-1 text-quiet">{words.standing.noGradeLead}</p>}
      <Notes standing={standing} />
      {counted && (
        <table className="mt-4 w-full max-w-2xl text-sm" data-made>
          <caption className="sr-only">{words.standing.howMade}</caption>
          <thead className="text-quiet">
            <tr>
              <th scope="col" className="py-1 text-left font-normal">
                {words.standing.category}
              </th>
              <th scope="col" className="pl-4 text-right font-normal">
                {weighted ? words.standing.weight : words.standing.worth}
              </th>
              <th scope="col" className="pl-4 text-right font-normal">
                {words.standing.average}
              </th>
              <th scope="col" className="pl-4 text-right font-normal">
                {words.standing.brings}
              </th>
            </tr>
          </thead>
          <tbody>
            {categories.map(({ id, title, part, extraCredit }, i) => (
              <tr key={id} className="border-t border-rule">
                <th scope="row" className="py-1.5 text-left font-normal">
                  {title === '' ? words.standing.noCategory : title}
                  {extraCredit && <span className="text-quiet"> · {words.standing.extraCategory}</span>}
                </th>
                <td className="pl-4 text-right whitespace-nowrap">
                  {weighted ? toShown(part.weight, 2) : toShown(part.possible, 2)}
                </td>
                <td className="pl-4 text-right whitespace-nowrap">
                  {part.ratio === null ? '–' : words.standing.percent(shownShare(part.ratio))}
                </td>
                <td className="pl-4 text-right">
                  {part.ratio === null && part.brings.n === 0n ? '–' : brings[i]}
                </td>
              </tr>
            ))}
            {grade.grade !== null && (
              <tr className="border-t border-ink font-bold">
                <th scope="row" className="py-1.5 text-left">
                  {words.standing.together}
                </th>
                <td className="pl-4 text-right">
                  {toShown(weighted ? grade.weightsCounted : grade.possibleCounted, 2)}
                </td>
                <td />
                <td className="pl-4 text-right" data-total>
                  {shownShares([grade.grade])[0]}
                </td>
              </tr>
            )}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Notes({ standing: { grade, categories } }: { standing: Standing }) {
  const { weights, weightsCounted } = grade;
  const sum = weights === null ? null : toShown(weights, 2);
  const notes = [
    sum !== null && sum !== '100' ? words.standing.weightsOff(sum) : '',
    sum !== null && toShown(weightsCounted, 2) !== sum && grade.grade !== null
      ? words.standing.weightsCounted(toShown(weightsCounted, 2), sum)
      : '',
    ...categories.map(({ title, drop, part }) => {
      const marked = part.assignments.filter(
        ({ counting }) => counting === 'counts' || counting === 'dropped',
      ).length;
      return drop > 0 && marked > 0 && drop >= marked
        ? `${title}: ${words.standing.dropsAll(drop, marked)}`
        : '';
    }),
  ].filter(Boolean);
  return notes.map((note) => (
    <p key={note} className="mt-1 text-sm text-quiet">
      {note}
    </p>
  ));
}

import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useFormContext, useWatch } from 'react-hook-form';
import type { Rubric } from '#core/model/facts.ts';
import * as v from 'valibot';
import { asId, CriterionId, decimalIn } from '#core/model/ids.ts';
import { instantOfWall, wallTimeOf } from '#core/model/zoned.ts';
import { scaleOf } from '#core/scores/rules.ts';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { AreaField, FormSelect, TextField } from '../../shared/controls/Field.tsx';
import { KeptForm, useKeptForm } from '../../shared/controls/KeptForm.tsx';
import { ownZone } from '../../shared/shown/own-zone.ts';
import * as words from '../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { ownMarkingOf, putScore, type TypedScore } from '../../workspace/commands/by-hand.ts';
import { standing } from '#core/assignment/attempts.ts';
import { numberText, wallText } from '../../shared/controls/rule-fields.ts';
import { assignmentAddress } from '../../shared/page/addresses.ts';

const said = words.standing.form;

const ScoreFields = v.object({
  score: numberText,
  groupScore: numberText,
  result: v.string(),
  handedIn: wallText,
  overall: v.pipe(v.string(), v.maxLength(100_000)),
  criteria: v.array(
    v.object({ level: v.string(), points: numberText, comment: v.pipe(v.string(), v.maxLength(100_000)) }),
  ),
});
type ScoreFields = v.InferOutput<typeof ScoreFields>;

function fieldsOf({ rubric, attempts, course }: AssignmentView): ScoreFields {
  const last = standing(attempts).at(-1);
  const marking = ownMarkingOf(last?.markings ?? []);
  return {
    score: marking?.score ?? '',
    groupScore: marking?.groupScore ?? '',
    result: marking?.result ?? '',
    handedIn: last === undefined ? '' : wallTimeOf(last.attempt.at, course?.zone ?? ownZone()),
    overall: marking?.overall ?? '',
    criteria: (rubric?.criteria ?? []).map((criterion) => {
      const result = marking?.criteria.find(({ criterionId }) => criterionId === criterion.id);
      return { level: result?.level ?? '', points: result?.points ?? '', comment: result?.comment ?? '' };
    }),
  };
}

function scoreOfFields(fields: ScoreFields, rubric: Rubric | null, zone: string): TypedScore {
  const criteria = (rubric?.criteria ?? []).flatMap((criterion, i) => {
    const { level, points, comment } = fields.criteria[i] ?? { level: '', points: '', comment: '' };
    const given = decimalIn(points);
    if (level === '' && given === null && comment.trim() === '') return [];
    return [
      {
        criterionId: asId(CriterionId, criterion.id),
        points: given,
        level: level || null,
        comment: comment.trim(),
      },
    ];
  });
  return {
    score: decimalIn(fields.score),
    groupScore: decimalIn(fields.groupScore),
    result: fields.result === '' ? null : fields.result,
    overall: fields.overall.trim(),
    criteria,
    handedInAt: fields.handedIn === '' ? null : instantOfWall(fields.handedIn.slice(0, 16), zone),
  };
}

/** What an attempt was given, typed in: points, the group's, a step, overall words, criterion by criterion. */
export function ScoreForm() {
  const workspace = useWorkspace();
  const { view } = useAssignment();
  const { assignment, course, rubric, attempts } = view;
  const kept = useKeptForm(`score/${assignment.id}`, ScoreFields, fieldsOf(view));
  const { register, formState, control } = kept.form;
  const [score, groupScore] = useWatch({ control, name: ['score', 'groupScore'] });
  const { errors } = formState;
  const back = assignmentAddress(assignment.id);
  const last = standing(attempts).at(-1) ?? null;
  const bySchool = last?.markings.some(({ byHand }) => !byHand) === true;
  const scale = scaleOf(assignment, course);
  const above = (text: string) => {
    const number = decimalIn(text);
    return number !== null && assignment.possible !== null && Number(number) > Number(assignment.possible)
      ? said.above(assignment.possible)
      : undefined;
  };
  const keep = async (fields: ScoreFields) => {
    const zone = course?.zone ?? ownZone();
    await putScore(workspace, assignment, scoreOfFields(fields, rubric, zone), last?.attempt.id ?? null);
    return back;
  };
  return (
    <KeptForm
      kept={kept}
      title={said.scoreTitle(assignment.title)}
      lead={bySchool ? said.scoreSchool : said.scoreLead}
      back={back}
      onKeep={keep}
    >
      {!bySchool && (
        <div className="grid gap-3 sm:grid-cols-2">
          <TextField
            label={assignment.group === null ? said.own : said.ownOfGroup}
            inputMode="decimal"
            hint={above(score)}
            error={errors.score?.message}
            {...register('score')}
          />
          {assignment.group !== null && (
            <TextField
              label={said.groupScore}
              inputMode="decimal"
              hint={above(groupScore) ?? said.groupHint}
              error={errors.groupScore?.message}
              {...register('groupScore')}
            />
          )}
          {scale !== null && (
            <FormSelect
              label={said.result}
              options={[['', said.noResult], ...scale.steps.map((step) => [step.name, step.name] as const)]}
              name="result"
            />
          )}
          {(last === null || last.attempt.outside) && (
            <TextField
              label={said.handedIn}
              type="datetime-local"
              error={errors.handedIn?.message}
              {...register('handedIn')}
            />
          )}
          <AreaField
            label={said.overall}
            hint={said.overallHint}
            className="sm:col-span-2"
            {...register('overall')}
          />
        </div>
      )}
      {rubric !== null && <CriteriaFields rubric={rubric} />}
    </KeptForm>
  );
}

function CriteriaFields({ rubric }: { rubric: Rubric }) {
  const { register, formState } = useFormContext<ScoreFields>();
  const { errors } = formState;
  return (
    <section>
      <SectionTitle>{said.criteria}</SectionTitle>
      <ul className="mt-2 grid gap-4">
        {rubric.criteria.map((criterion, i) => (
          <li key={criterion.id} className="border-t border-rule pt-3">
            <h3 className="font-serif font-semibold">{criterion.title}</h3>
            <div className="mt-1 grid gap-3 sm:grid-cols-[1fr_8rem]">
              <FormSelect
                label={said.level}
                aria-label={said.criterionLevel(criterion.title)}
                options={[
                  ['', said.noLevel],
                  ...criterion.levels.map((level) => [level.title, level.title] as const),
                ]}
                name={`criteria.${i}.level`}
              />
              {criterion.possible !== null && (
                <TextField
                  label={said.points}
                  aria-label={said.criterionPoints(criterion.title)}
                  inputMode="decimal"
                  error={errors.criteria?.[i]?.points?.message}
                  {...register(`criteria.${i}.points`)}
                />
              )}
              <AreaField
                label={said.overall}
                aria-label={said.criterionComment(criterion.title)}
                className="sm:col-span-2"
                rows={1}
                {...register(`criteria.${i}.comment`)}
              />
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

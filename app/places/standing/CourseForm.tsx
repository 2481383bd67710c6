import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { useParams } from 'react-router';
import * as v from 'valibot';
import { blankCourse } from '#core/model/blank.ts';
import type { Course } from '#core/model/facts.ts';
import { asId, CategoryId, decimalIn } from '#core/model/ids.ts';
import { instantOfWall, wallTimeOf } from '#core/model/zoned.ts';
import { add, fromDecimal, toShown, ZERO } from '#core/scores/fraction.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { FormCheck, FormSelect, TextField } from '../../shared/controls/Field.tsx';
import { KeptForm, useKeptForm } from '../../shared/controls/KeptForm.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import * as words from '../../words/en.ts';
import { putCourse, removeCourse } from '../../workspace/commands/by-hand.ts';
import { newId } from '../../workspace/commands/draft.ts';
import { PolicyInputs } from '../../shared/controls/PolicyInputs.tsx';
import {
  lateOfFields,
  numberText,
  policyFields,
  PolicyFields,
  policyOfFields,
  wholeText,
} from '../../shared/controls/rule-fields.ts';
import { ScaleInputs } from './ScaleInputs.tsx';
import { scaleFields, ScaleFields, scaleOfFields } from './scale-fields.ts';
import { courseAddress } from '../../shared/page/addresses.ts';
import { ownCategoryId, ownCourseId } from '#core/model/own-ids.ts';

const said = words.standing.form;

const CourseFields = v.object({
  title: v.pipe(v.string(), v.trim(), v.minLength(1, said.titleWanted), v.maxLength(500)),
  code: v.pipe(v.string(), v.maxLength(500)),
  term: v.pipe(v.string(), v.maxLength(500)),
  termEnds: v.pipe(
    v.string(),
    v.check((text) => text === '' || /^\d{4}-\d\d-\d\d$/.test(text), said.dateWrong),
  ),
  instructor: v.pipe(v.string(), v.maxLength(500)),
  zone: v.string(),
  scheme: v.picklist(['weighted', 'points']),
  categories: v.pipe(
    v.array(
      v.object({
        id: v.string(),
        title: v.pipe(v.string(), v.trim(), v.minLength(1, said.categoryTitleWanted), v.maxLength(500)),
        weight: numberText,
        drop: wholeText,
        extraCredit: v.boolean(),
      }),
    ),
    v.rawCheck(({ dataset, addIssue }) => {
      if (!dataset.typed) return;
      const titles = dataset.value.map(({ title }) => title.toLowerCase());
      titles.forEach((title, i) => {
        if (titles.indexOf(title) !== i)
          addIssue({
            message: said.categoryTwice,
            path: [
              { type: 'array', origin: 'value', input: dataset.value, key: i, value: dataset.value[i] },
              { type: 'object', origin: 'value', input: dataset.value[i], key: 'title', value: title },
            ],
          });
      });
    }),
  ),
  rules: PolicyFields,
  scales: v.array(ScaleFields),
  gradeScaleId: v.string(),
});
type CourseFields = v.InferOutput<typeof CourseFields>;

function fieldsOf(course: Course): CourseFields {
  return {
    title: course.title,
    code: course.code,
    term: course.term,
    termEnds: course.termEndsAt === null ? '' : wallTimeOf(course.termEndsAt, course.zone).slice(0, 10),
    instructor: course.instructor.name,
    zone: course.zone,
    scheme: course.scheme ?? 'points',
    categories: course.categories.map(({ id, title, weight, drop, extraCredit }) => ({
      id,
      title,
      weight: weight ?? '',
      drop: String(drop),
      extraCredit,
    })),
    rules: policyFields(course.policy ?? { kind: 'latest' }, course.late ?? null),
    scales: course.scales.map(scaleFields),
    gradeScaleId: course.gradeScaleId ?? '',
  };
}

function courseOfFields(fields: CourseFields, before: Course): Course {
  const scales = fields.scales.map(scaleOfFields);
  return {
    ...before,
    title: fields.title.trim(),
    code: fields.code.trim(),
    term: fields.term.trim(),
    termEndsAt: fields.termEnds === '' ? null : instantOfWall(`${fields.termEnds}T23:59`, fields.zone),
    instructor: { ...before.instructor, name: fields.instructor.trim() },
    zone: fields.zone,
    scheme: fields.scheme,
    categories: fields.categories.map(({ id, title, weight, drop, extraCredit }) => ({
      id: asId(CategoryId, id),
      title: title.trim(),
      weight: decimalIn(weight),
      drop: Number(drop),
      extraCredit,
    })),
    policy: policyOfFields(fields.rules),
    late: lateOfFields(fields.rules),
    scales,
    gradeScaleId: scales.some(({ id }) => id === fields.gradeScaleId) ? fields.gradeScaleId : null,
  };
}

export function NewCourse() {
  const course = blankCourse(ownCourseId(newId()), '', ownZone());
  return <CourseForm course={course} fresh />;
}

export function EditCourse() {
  const { courseId } = useParams();
  const course = useWorkspaceState((state) => state.records.courses.get(courseId ?? ''));
  if (course?.byHand !== true)
    return (
      <div className="mx-auto max-w-3xl p-6">
        <Empty>{words.standing.noCourses}</Empty>
      </div>
    );
  return <CourseForm key={course.id} course={course} fresh={false} />;
}

function CourseForm({ course, fresh }: { course: Course; fresh: boolean }) {
  const workspace = useWorkspace();
  const title = fresh ? said.newCourse : said.editCourse(course.title);
  usePlaceTitle(title);
  const kept = useKeptForm(fresh ? 'course/new' : `course/${course.id}`, CourseFields, fieldsOf(course));
  const { register, formState, control } = kept.form;
  const zone = useWatch({ control, name: 'zone' });
  const { errors } = formState;
  const keep = async (fields: CourseFields) => {
    const next = courseOfFields(fields, course);
    await putCourse(workspace, next);
    return courseAddress(next.id);
  };
  return (
    <KeptForm
      kept={kept}
      title={title}
      lead={said.lead}
      main
      back={fresh ? '/standing' : courseAddress(course.id)}
      onKeep={keep}
      remove={
        fresh
          ? undefined
          : { label: said.remove, act: () => removeCourse(workspace, course), to: '/standing' }
      }
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label={said.title}
          error={errors.title?.message}
          className="sm:col-span-2"
          {...register('title')}
        />
        <TextField label={said.code} {...register('code')} />
        <TextField label={said.instructor} {...register('instructor')} />
        <TextField label={said.term} {...register('term')} />
        <TextField
          label={said.termEnds}
          type="date"
          error={errors.termEnds?.message}
          {...register('termEnds')}
        />
        <FormSelect label={said.zone} options={zones(zone)} name="zone" />
        <FormSelect
          label={said.scheme}
          options={(['points', 'weighted'] as const).map((scheme) => [scheme, said.schemes[scheme]])}
          name="scheme"
        />
      </div>
      <Categories />
      <section>
        <SectionTitle>{said.rules}</SectionTitle>
        <p className="mt-1 mb-3 text-quiet">{said.rulesLead}</p>
        <PolicyInputs course={null} />
      </section>
      <ScaleInputs />
    </KeptForm>
  );
}

/** The zones that the browser knows, the chosen one among them in any case. */
function zones(chosen: string): (readonly [string, string])[] {
  const known = Intl.supportedValuesOf('timeZone');
  return [...new Set([chosen, 'UTC', ...known])].map((zone) => [zone, zone.replaceAll('_', ' ')]);
}

function Categories() {
  const { control, register, formState } = useFormContext<CourseFields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'categories' });
  const scheme = useWatch({ control, name: 'scheme' });
  const typed = useWatch({ control, name: 'categories' });
  const weighted = scheme === 'weighted';
  const errors = formState.errors.categories;
  return (
    <section>
      <SectionTitle>{said.categories}</SectionTitle>
      <p className="mt-1 text-quiet">{said.categoriesLead}</p>
      <ul className="mt-3 grid gap-3">
        {fields.map((field, i) => (
          <li
            key={field.id}
            className={clsx(
              'grid grid-cols-2 items-start gap-3 border-t border-rule pt-3',
              weighted
                ? 'sm:grid-cols-[minmax(0,1fr)_6rem_8rem_9rem_auto]'
                : 'sm:grid-cols-[minmax(0,1fr)_8rem_9rem_auto]',
            )}
          >
            <TextField
              label={said.categoryTitle}
              error={errors?.[i]?.title?.message}
              className="max-sm:col-span-2"
              {...register(`categories.${i}.title`)}
            />
            {weighted && (
              <TextField
                label={said.weight}
                inputMode="decimal"
                error={errors?.[i]?.weight?.message}
                {...register(`categories.${i}.weight`)}
              />
            )}
            <TextField
              label={said.drop}
              inputMode="numeric"
              error={errors?.[i]?.drop?.message}
              {...register(`categories.${i}.drop`)}
            />
            <FormCheck
              label={said.extraCredit}
              className="mt-5 min-h-9"
              name={`categories.${i}.extraCredit`}
            />
            <RemoveButton label={said.removeCategory(typed[i]?.title ?? '')} onClick={() => remove(i)} />
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap items-center gap-4">
        <Button
          onClick={() =>
            append({ id: ownCategoryId(newId()), title: '', weight: '', drop: '0', extraCredit: false })
          }
        >
          {said.addCategory}
        </Button>
        {weighted && fields.length > 0 && <WeightsSum categories={typed} />}
      </div>
    </section>
  );
}

function WeightsSum({ categories }: { categories: CourseFields['categories'] }) {
  const sum = categories.reduce((total, { weight, extraCredit }) => {
    const number = decimalIn(weight);
    return number === null || extraCredit ? total : add(total, fromDecimal(number));
  }, ZERO);
  const shown = toShown(sum, 2);
  return (
    <p role="status" className="text-sm text-quiet">
      {shown === '100' ? said.weightsSum(shown) : said.weightsOff(shown)}
    </p>
  );
}

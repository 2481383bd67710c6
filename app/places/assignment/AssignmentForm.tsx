import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useMemo } from 'react';
import { useWatch } from 'react-hook-form';
import { useParams } from 'react-router';
import * as v from 'valibot';
import { blankAssignment } from '#core/model/blank.ts';
import type { Assignment, Course } from '#core/model/facts.ts';
import { asId, AssignmentId, CategoryId, decimalIn, type Instant } from '#core/model/ids.ts';
import { workKinds } from '#core/model/work-kind.ts';
import { canLeadTo } from '#core/assignment/stages.ts';
import { instantOfWall, wallTimeOf } from '#core/model/zoned.ts';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import { Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { AreaField, FormCheck, FormSelect, TextField } from '../../shared/controls/Field.tsx';
import { KeptForm, useKeptForm } from '../../shared/controls/KeptForm.tsx';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import * as words from '../../words/en.ts';
import { putOwnAssignment, removeOwnAssignment } from '../../workspace/commands/by-hand.ts';
import { newId } from '../../workspace/commands/draft.ts';
import { PolicyInputs } from '../../shared/controls/PolicyInputs.tsx';
import {
  lateOfFields,
  numberText,
  policyFields,
  PolicyFields,
  policyOfFields,
  wallText,
  wholeText,
} from '../../shared/controls/rule-fields.ts';
import { assignmentAddress, courseAddress } from '../../shared/page/addresses.ts';
import { ownAssignmentId } from '#core/model/own-ids.ts';

const said = words.standing.form;

const AssignmentFields = v.pipe(
  v.object({
    courseId: v.string(),
    title: v.pipe(v.string(), v.trim(), v.minLength(1, said.assignmentTitleWanted), v.maxLength(500)),
    categoryId: v.string(),
    kind: v.string(),
    draftOf: v.string(),
    possible: numberText,
    scaleId: v.string(),
    extraCredit: v.boolean(),
    excused: v.boolean(),
    due: wallText,
    extended: wallText,
    closes: wallText,
    attemptsAllowed: wholeText,
    rules: PolicyFields,
    groupName: v.pipe(v.string(), v.maxLength(500)),
    members: v.string(),
    brief: v.pipe(v.string(), v.maxLength(100_000)),
  }),
  v.forward(
    v.partialCheck(
      [['due'], ['extended']],
      ({ due, extended }) => due === '' || extended === '' || extended >= due,
      said.extendedBefore,
    ),
    ['extended'],
  ),
  v.forward(
    v.partialCheck(
      [['due'], ['closes']],
      ({ due, closes }) => due === '' || closes === '' || closes >= due,
      said.closesBefore,
    ),
    ['closes'],
  ),
);
type AssignmentFields = v.InferOutput<typeof AssignmentFields>;

function fieldsOf(assignment: Assignment, zone: string): AssignmentFields {
  const wall = (at: Instant | null) => (at === null ? '' : wallTimeOf(at, zone));
  return {
    courseId: assignment.courseId ?? '',
    title: assignment.title,
    categoryId: assignment.categoryId ?? '',
    kind: assignment.kind ?? '',
    draftOf: assignment.draftOf ?? '',
    possible: assignment.possible ?? '',
    scaleId: assignment.scaleId ?? '',
    extraCredit: assignment.extraCredit,
    excused: assignment.excused,
    due: wall(assignment.dueAt),
    extended: wall(assignment.extendedTo),
    closes: wall(assignment.closesAt),
    attemptsAllowed: String(assignment.attemptsAllowed),
    rules: policyFields(assignment.policy, assignment.late),
    groupName: assignment.group?.name ?? '',
    members: assignment.group?.members.join('\n') ?? '',
    brief: assignment.brief,
  };
}

function assignmentOfFields(
  fields: AssignmentFields,
  before: Assignment,
  course: Course | null,
  zone: string,
): Assignment {
  const at = (wall: string) => (wall === '' ? null : instantOfWall(wall.slice(0, 16), zone));
  const members = fields.members
    .split('\n')
    .map((name) => name.trim())
    .filter(Boolean);
  const category = course?.categories.find(({ id }) => id === fields.categoryId);
  return {
    ...before,
    courseId: course?.id ?? null,
    title: fields.title.trim(),
    categoryId: category === undefined ? null : asId(CategoryId, category.id),
    kind: workKinds.find((kind) => kind === fields.kind) ?? null,
    draftOf: fields.draftOf === '' ? null : asId(AssignmentId, fields.draftOf),
    possible: decimalIn(fields.possible),
    scaleId: course?.scales.some(({ id }) => id === fields.scaleId) === true ? fields.scaleId : null,
    extraCredit: fields.extraCredit,
    excused: fields.excused,
    dueAt: at(fields.due),
    extendedTo: at(fields.extended),
    closesAt: at(fields.closes),
    attemptsAllowed: Math.max(1, Math.min(100, Number(fields.attemptsAllowed))),
    policy: policyOfFields(fields.rules),
    late: lateOfFields(fields.rules),
    group:
      fields.groupName.trim() === '' && members.length === 0
        ? null
        : { name: fields.groupName.trim(), members },
    brief: fields.brief.trim(),
  };
}

/** A new assignment in a course of the student's own. */
export function NewAssignment() {
  const { courseId } = useParams();
  const course = useWorkspaceState((state) => state.records.courses.get(courseId ?? ''));
  if (course?.byHand !== true)
    return (
      <div className="mx-auto max-w-3xl p-6">
        <Empty>{words.standing.noCourses}</Empty>
      </div>
    );
  const assignment = blankAssignment(ownAssignmentId(newId()), course.id, '');
  return <AssignmentForm assignment={assignment} fresh />;
}

/** An assignment of the student's own, or a paper that is in no course yet. */
export function EditAssignment() {
  const { view } = useAssignment();
  const { assignment } = view;
  if (!assignment.byHand && assignment.courseId !== null)
    return (
      <div className="mx-auto max-w-3xl p-6">
        <Empty>{said.scoreSchool}</Empty>
      </div>
    );
  return <AssignmentForm key={assignment.id} assignment={assignment} fresh={false} />;
}

function AssignmentForm({ assignment, fresh }: { assignment: Assignment; fresh: boolean }) {
  const workspace = useWorkspace();
  const courses = useWorkspaceState((state) => state.records.courses);
  const before = courses.get(assignment.courseId ?? '') ?? null;
  const name = fresh ? `assignment/new/${assignment.courseId ?? ''}` : `assignment/${assignment.id}`;
  const title = fresh ? said.newAssignment(before?.title ?? '') : said.editAssignment(assignment.title);
  usePlaceTitle(title);
  const zone = before?.zone ?? ownZone();
  const kept = useKeptForm(name, AssignmentFields, fieldsOf(assignment, zone));
  const { register, formState, control } = kept.form;
  const { errors } = formState;
  const chosenId = useWatch({ control, name: 'courseId' });
  const course = courses.get(chosenId) ?? null;
  const back =
    fresh && assignment.courseId !== null
      ? courseAddress(assignment.courseId)
      : assignmentAddress(assignment.id);
  const keep = async (fields: AssignmentFields) => {
    const chosen = courses.get(fields.courseId) ?? null;
    await putOwnAssignment(workspace, {
      ...assignmentOfFields(fields, assignment, chosen, zone),
      byHand: true,
    });
    return chosen === null ? back : courseAddress(chosen.id);
  };
  const own = [...courses.values()].filter(({ byHand }) => byHand);
  const assignments = useWorkspaceState((state) => state.records.assignments);
  const finals = useMemo(
    () =>
      [...assignments.values()].filter((one) =>
        canLeadTo((id) => assignments.get(id) ?? null, assignment.id, one),
      ),
    [assignments, assignment.id],
  );
  return (
    <KeptForm
      kept={kept}
      title={title}
      main={fresh}
      back={back}
      onKeep={keep}
      remove={
        fresh || !assignment.byHand
          ? undefined
          : {
              label: said.removeAssignment,
              act: () => removeOwnAssignment(workspace, assignment),
              to: before === null ? '/' : courseAddress(before.id),
            }
      }
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label={said.assignmentTitle}
          error={errors.title?.message}
          className="sm:col-span-2"
          {...register('title')}
        />
        <FormSelect
          label={said.course}
          options={[['', said.noCourse], ...own.map(({ id, title }) => [id, title] as const)]}
          name="courseId"
        />
        <FormSelect
          label={said.category}
          options={[
            ['', said.inNone],
            ...(course?.categories ?? []).map(({ id, title }) => [id, title] as const),
          ]}
          name="categoryId"
        />
        <FormSelect
          label={said.kind}
          options={[
            ['', said.kindByItself],
            ...workKinds.map((kind) => [kind, words.stations.kinds[kind]] as const),
          ]}
          name="kind"
        />
        <FormSelect
          label={said.draftOf}
          options={[['', said.noDraft], ...finals.map(({ id, title }) => [id, title] as const)]}
          name="draftOf"
        />
        <TextField
          label={said.possible}
          hint={said.possibleHint}
          inputMode="decimal"
          error={errors.possible?.message}
          {...register('possible')}
        />
        <FormSelect
          label={said.scale}
          options={[
            ['', said.points],
            ...(course?.scales ?? []).map(({ id, title }) => [id, title] as const),
          ]}
          name="scaleId"
        />
        <FormCheck label={said.extra} name="extraCredit" />
        <FormCheck label={said.excused} name="excused" />
      </div>
      <div className="grid gap-3 sm:grid-cols-3">
        <TextField label={said.due} type="datetime-local" error={errors.due?.message} {...register('due')} />
        <TextField
          label={said.extended}
          type="datetime-local"
          error={errors.extended?.message}
          {...register('extended')}
        />
        <TextField
          label={said.closes}
          type="datetime-local"
          error={errors.closes?.message}
          {...register('closes')}
        />
        <TextField
          label={said.attemptsAllowed}
          inputMode="numeric"
          error={errors.attemptsAllowed?.message}
          {...register('attemptsAllowed')}
        />
      </div>
      <PolicyInputs course={{ policy: course?.policy ?? null, late: course?.late ?? null }} />
      <section>
        <SectionTitle>{said.group}</SectionTitle>
        <div className="mt-2 grid gap-3 sm:grid-cols-2">
          <TextField label={said.groupName} {...register('groupName')} />
          <AreaField label={said.members} {...register('members')} />
        </div>
      </section>
      <AreaField label={said.brief} {...register('brief')} />
    </KeptForm>
  );
}

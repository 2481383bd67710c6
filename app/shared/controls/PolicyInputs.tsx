import { useFormContext } from 'react-hook-form';
import type { AttemptPolicy, LateRule } from '#core/model/facts.ts';
import { FormSelect, TextField } from './Field.tsx';
import * as words from '../../words/en.ts';
import { lateInWords, policyInWords, policyKinds, type PolicyFields } from './rule-fields.ts';

/** How several attempts count and what lateness costs. `course`: what holds where nothing of its own is set. */
export function PolicyInputs({
  course,
}: {
  course: { policy: AttemptPolicy | null; late: LateRule | null } | null;
}) {
  const said = words.standing.form;
  const { register, watch, formState } = useFormContext<{ rules: PolicyFields }>();
  const [policy, late] = watch(['rules.policy', 'rules.late']);
  const errors = formState.errors.rules;
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <FormSelect
        label={said.policy}
        options={[
          ...(course === null ? [] : [['', said.asCourse(policyInWords(course.policy))] as const]),
          ...policyKinds.map((kind) => [kind, said.policies[kind]] as const),
        ]}
        name="rules.policy"
      />
      {policy === 'capped' || policy === 'recover' ? (
        <TextField
          label={policy === 'capped' ? said.cap : said.share}
          inputMode="decimal"
          error={errors?.percent?.message}
          {...register('rules.percent')}
        />
      ) : (
        <span className="max-sm:hidden" />
      )}
      <FormSelect
        label={said.late}
        options={[
          ...(course === null ? [] : [['', said.lateAsCourse(lateInWords(course.late))] as const]),
          ['none', said.lateKinds.none],
          ['own', said.lateKinds.own],
        ]}
        name="rules.late"
      />
      {late === 'own' && (
        <div className="grid grid-cols-3 gap-2">
          <TextField
            label={said.pointsPerDay}
            inputMode="decimal"
            error={errors?.pointsPerDay?.message}
            {...register('rules.pointsPerDay')}
          />
          <TextField
            label={said.graceHours}
            inputMode="decimal"
            error={errors?.graceHours?.message}
            {...register('rules.graceHours')}
          />
          <TextField
            label={said.maxPoints}
            inputMode="decimal"
            error={errors?.maxPoints?.message}
            {...register('rules.maxPoints')}
          />
        </div>
      )}
    </div>
  );
}

import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { AreaField, FormSelect, TextField } from '../../shared/controls/Field.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import * as words from '../../words/en.ts';
import { newId } from '../../workspace/commands/draft.ts';
import type { ScaleFields } from './scale-fields.ts';

const said = words.standing.form;

/** Results other than points: letters, pass or fail, complete or not. */
export function ScaleInputs() {
  const { control, register, formState } = useFormContext<{ scales: ScaleFields[]; gradeScaleId: string }>();
  const { fields, append, remove } = useFieldArray({ control, name: 'scales', keyName: 'key' });
  const typed = useWatch({ control, name: 'scales' });
  const errors = formState.errors.scales;
  return (
    <section>
      <SectionTitle>{said.scales}</SectionTitle>
      <p className="mt-1 text-quiet">{said.scalesLead}</p>
      <ul className="mt-3 grid gap-3">
        {fields.map((field, i) => (
          <li
            key={field.key}
            className="grid gap-3 border-t border-rule pt-3 sm:grid-cols-[14rem_minmax(0,1fr)_auto]"
          >
            <TextField
              label={said.scaleTitle}
              error={errors?.[i]?.title?.message}
              {...register(`scales.${i}.title`)}
            />
            <AreaField
              label={said.scaleSteps}
              placeholder={said.scaleExample}
              error={errors?.[i]?.steps?.message}
              {...register(`scales.${i}.steps`)}
            />
            <RemoveButton label={said.removeScale(typed[i]?.title ?? '')} onClick={() => remove(i)} />
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap items-end gap-4">
        <Button onClick={() => append({ id: newId(), title: '', steps: '' })}>{said.addScale}</Button>
        {fields.length > 0 && (
          <FormSelect
            label={said.gradeScale}
            options={[['', said.percentOnly], ...typed.map(({ id, title }) => [id, title] as const)]}
            name="gradeScaleId"
          />
        )}
      </div>
    </section>
  );
}

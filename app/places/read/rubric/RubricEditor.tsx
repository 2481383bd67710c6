import { ToggleButton } from '../../../shared/controls/Toggles.tsx';
import { Fold } from '../../../shared/controls/Fold.tsx';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { useState } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { draftOfRubric } from '#core/rubric/draft.ts';
import type { ReadRubricTable } from '#formats/rubric/rubric-table.ts';
import { useAssignment } from '../../../shared/page/assignment-outlet.ts';
import { Button, Empty } from '../../../shared/controls/Controls.tsx';
import { AreaField, FormCheck, TextField } from '../../../shared/controls/Field.tsx';
import { KeptForm, useKeptForm } from '../../../shared/controls/KeptForm.tsx';
import { PasteTable } from '../../../shared/controls/PasteTable.tsx';
import { RemoveButton } from '../../../shared/controls/RemoveButton.tsx';
import * as words from '../../../words/en.ts';
import type { Pasted, ReadResult } from '../../../workers/protocol.ts';
import { tables } from '../../../workers/clients.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { putOwnRubric, removeOwnRubric } from '../../../workspace/commands/by-hand.ts';
import { draftOfFields, fieldsOfDraft, NO_CRITERION, NO_LEVEL, RubricFields } from './rubric-fields.ts';
import { assignmentAddress } from '../../../shared/page/addresses.ts';

const said = words.rubric.editor;

/** A rubric that the student puts in: typed, pasted, or read from a file, and looked through before it is kept. */
export function RubricEditor() {
  const { view } = useAssignment();
  if (view.rubric !== null && view.rubric.byHandFor === null)
    return (
      <div className="mx-auto max-w-3xl p-6">
        <Empty>{said.school}</Empty>
      </div>
    );
  return <Editor key={view.assignment.id} view={view} />;
}

function Editor({ view }: { view: AssignmentView }) {
  const workspace = useWorkspace();
  const { assignment, rubric } = view;
  const kept = useKeptForm(
    `rubric/${assignment.id}`,
    RubricFields,
    rubric === null
      ? { title: assignment.title, unscaled: false, criteria: [NO_CRITERION] }
      : fieldsOfDraft(draftOfRubric(rubric)),
  );
  const { register, formState } = kept.form;
  const back = assignmentAddress(assignment.id, 'read', { material: 'criteria' });
  const keep = async (fields: RubricFields) => {
    await putOwnRubric(workspace, assignment, draftOfFields(fields));
    return back;
  };
  return (
    <KeptForm
      kept={kept}
      title={said.title}
      lead={said.lead(assignment.title)}
      wide
      back={back}
      onKeep={keep}
      remove={
        rubric === null
          ? undefined
          : { label: said.remove, act: () => removeOwnRubric(workspace, assignment), to: back }
      }
    >
      <FromTable title={assignment.title} />
      <TextField label={said.name} error={formState.errors.title?.message} {...register('title')} />
      <Criteria />
      <FormCheck label={said.keepsPoints} name="unscaled" />
    </KeptForm>
  );
}

/** A table that is pasted or a file with one; of several rubrics one is chosen. */
function FromTable({ title }: { title: string }) {
  const { reset } = useFormContext<RubricFields>();
  const [text, setText] = useState('');
  const [found, setFound] = useState<readonly ReadRubricTable[]>([]);
  const [chosen, setChosen] = useState<ReadRubricTable | null>(null);
  const [wrong, setWrong] = useState('');
  const choose = (one: ReadRubricTable) => {
    setChosen(one);
    reset(fieldsOfDraft(one.draft), { keepDefaultValues: true });
  };
  const show = (result: ReadResult<ReadRubricTable[]>, name: string) => {
    const rubrics = result.kind === 'read' ? result.value : [];
    setFound(rubrics);
    setChosen(null);
    setWrong(
      result.kind === 'unreadable'
        ? words.unreadable[result.reason](name, result.detail)
        : rubrics.length === 0
          ? said.noTable
          : '',
    );
    if (rubrics.length === 1) choose(rubrics[0]);
  };
  const readFile = async (file: File) => {
    const bytes = new Uint8Array(await file.arrayBuffer());
    show(await tables.ask((worker) => worker.readRubrics(bytes, title)), file.name);
  };
  const readPasted = async (pasted: Pasted) => {
    show(await tables.ask((worker) => worker.pasteRubrics(pasted, title)), said.pasteLabel);
  };
  return (
    <Fold className="rounded-lg border border-rule bg-surface p-4" label={said.paste}>
      <p className="mt-1 mb-3 text-quiet">{said.pasteLead}</p>
      <PasteTable
        label={said.pasteLabel}
        text={text}
        onText={setText}
        onPasted={(pasted) => void readPasted(pasted)}
        read={said.read}
        choose={said.choose}
        accept=".json,.csv,.tsv,.docx,.odt,.html,.txt"
        onFiles={(files) => void readFile(files[0])}
      />
      {wrong !== '' && (
        <p role="alert" className="mt-3 font-semibold">
          {wrong}
        </p>
      )}
      {found.length > 1 && (
        <fieldset className="mt-3">
          <legend className="font-semibold">{said.several(found.length)}</legend>
          <div className="mt-1 flex flex-wrap gap-2">
            {found.map((one, i) => (
              <ToggleButton key={i} pressed={one === chosen} onToggle={() => choose(one)}>
                {one.draft.title || said.criterion(i + 1)}
              </ToggleButton>
            ))}
          </div>
        </fieldset>
      )}
      {chosen !== null && (
        <div role="status" className="mt-3">
          <p className="font-semibold">
            {said.found(
              chosen.draft.criteria.length,
              Math.max(0, ...chosen.draft.criteria.map(({ levels }) => levels.length)),
            )}
          </p>
          <ul className="mt-1 text-sm text-quiet">
            {chosen.problems.map(({ kind, where }, i) => (
              <li key={i}>{said.problems[kind](where)}</li>
            ))}
          </ul>
        </div>
      )}
    </Fold>
  );
}

function Criteria() {
  const { control, register, formState } = useFormContext<RubricFields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'criteria' });
  const typed = useWatch({ control, name: 'criteria' });
  const errors = formState.errors.criteria;
  return (
    <section>
      <ul className="grid gap-6">
        {fields.map((field, i) => (
          <li key={field.id} className="border-t border-rule pt-4">
            <div className="grid grid-cols-2 items-start gap-3 sm:grid-cols-[minmax(0,1fr)_7rem_7rem_auto]">
              <TextField
                label={`${said.criterion(i + 1)}: ${said.criterionTitle}`}
                error={errors?.[i]?.title?.message}
                className="max-sm:col-span-2"
                {...register(`criteria.${i}.title`)}
              />
              <TextField
                label={said.possible}
                hint={said.possibleHint}
                inputMode="decimal"
                error={errors?.[i]?.possible?.message}
                {...register(`criteria.${i}.possible`)}
              />
              <TextField
                label={said.weight}
                inputMode="decimal"
                error={errors?.[i]?.weight?.message}
                {...register(`criteria.${i}.weight`)}
              />
              <RemoveButton label={said.removeCriterion(typed[i]?.title ?? '')} onClick={() => remove(i)} />
              <AreaField
                label={said.description}
                rows={1}
                className="col-span-2 sm:col-span-4"
                {...register(`criteria.${i}.description`)}
              />
            </div>
            <Levels criterion={i} />
          </li>
        ))}
      </ul>
      {errors?.root?.message !== undefined || (fields.length === 0 && errors?.message !== undefined) ? (
        <p role="alert" className="mt-2 font-semibold">
          {said.criterionWanted}
        </p>
      ) : null}
      <Button className="mt-4" onClick={() => append(NO_CRITERION)}>
        {said.addCriterion}
      </Button>
    </section>
  );
}

function Levels({ criterion }: { criterion: number }) {
  const { control, register, formState } = useFormContext<RubricFields>();
  const { fields, append, remove } = useFieldArray({ control, name: `criteria.${criterion}.levels` });
  const errors = formState.errors.criteria?.[criterion]?.levels;
  return (
    <>
      <ol aria-label={said.levels} className="mt-3 grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        {fields.map((field, i) => (
          <li key={field.id} className="grid grid-cols-1 content-start gap-2 border-t-[3px] border-rule pt-2">
            <div className="flex items-start gap-1">
              <TextField
                label={said.levelTitle(i + 1)}
                error={errors?.[i]?.title?.message}
                className="flex-1"
                {...register(`criteria.${criterion}.levels.${i}.title`)}
              />
              <RemoveButton label={said.removeLevel(i + 1)} onClick={() => remove(i)} />
            </div>
            <div className="grid grid-cols-2 gap-2">
              <TextField
                label={said.levelFrom}
                inputMode="decimal"
                error={errors?.[i]?.from?.message}
                {...register(`criteria.${criterion}.levels.${i}.from`)}
              />
              <TextField
                label={said.levelPoints}
                inputMode="decimal"
                error={errors?.[i]?.points?.message}
                {...register(`criteria.${criterion}.levels.${i}.points`)}
              />
            </div>
            <AreaField
              label={said.levelDescription}
              {...register(`criteria.${criterion}.levels.${i}.description`)}
            />
          </li>
        ))}
      </ol>
      <Button className="mt-2" look="quiet" onClick={() => append(NO_LEVEL)}>
        {said.addLevel}
      </Button>
    </>
  );
}

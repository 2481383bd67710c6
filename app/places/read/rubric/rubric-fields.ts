import * as v from 'valibot';
import { decimalIn } from '#core/model/ids.ts';
import type { RubricDraft } from '#core/rubric/draft.ts';
import * as words from '../../../words/en.ts';

/** A rubric as the fields of a form. */

const said = words.rubric.editor;

const numberText = v.pipe(
  v.string(),
  v.check((text) => text.trim() === '' || Number(decimalIn(text) ?? '-1') >= 0, said.numberWanted),
);
const short = v.pipe(v.string(), v.maxLength(500));
const long = v.pipe(v.string(), v.maxLength(100_000));

const LevelFields = v.pipe(
  v.object({
    title: v.pipe(
      short,
      v.check((text) => text.trim() !== '', said.levelWanted),
    ),
    from: numberText,
    points: numberText,
    description: long,
  }),
  v.forward(
    v.partialCheck(
      [['from'], ['points']],
      ({ from, points }) =>
        from.trim() === '' || Number(decimalIn(from)) <= Number(decimalIn(points) ?? Infinity),
      said.rangeWrong,
    ),
    ['from'],
  ),
);

export const RubricFields = v.object({
  title: short,
  unscaled: v.boolean(),
  criteria: v.pipe(
    v.array(
      v.object({
        title: v.pipe(
          short,
          v.check((text) => text.trim() !== '', said.titleWanted),
        ),
        description: long,
        possible: numberText,
        weight: numberText,
        levels: v.array(LevelFields),
      }),
    ),
    v.minLength(1, said.criterionWanted),
  ),
});
export type RubricFields = v.InferOutput<typeof RubricFields>;

export const NO_LEVEL = { title: '', from: '', points: '', description: '' };
export const NO_CRITERION = { title: '', description: '', possible: '', weight: '', levels: [NO_LEVEL] };

export function fieldsOfDraft({ title, unscaled, criteria }: RubricDraft): RubricFields {
  return {
    title,
    unscaled,
    criteria: criteria.map((criterion) => ({
      title: criterion.title,
      description: criterion.description,
      possible: criterion.possible ?? '',
      weight: criterion.weight ?? '',
      levels: criterion.levels.map((level) => ({
        title: level.title,
        from: level.pointsFrom ?? '',
        points: level.points ?? '',
        description: level.description,
      })),
    })),
  };
}

export function draftOfFields({ title, unscaled, criteria }: RubricFields): RubricDraft {
  return {
    title: title.trim(),
    unscaled,
    criteria: criteria.map((criterion) => ({
      title: criterion.title.trim(),
      description: criterion.description.trim(),
      possible: decimalIn(criterion.possible),
      weight: decimalIn(criterion.weight),
      levels: criterion.levels.map((level) => ({
        title: level.title.trim(),
        description: level.description.trim(),
        points: decimalIn(level.points),
        pointsFrom: decimalIn(level.from),
      })),
    })),
  };
}

import { useWorkspace } from '../../../workspace/use-workspace.ts';
import clsx from 'clsx';
import { Target } from 'lucide-react';
import type { Level } from '#core/model/facts.ts';
import { asksBeyond } from '#core/rubric/asks.ts';
import type { ScaledResult } from '#core/rubric/result.ts';
import { fromDecimal, multiply, toShown } from '#core/scores/fraction.ts';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import { aimAt } from '../../../workspace/commands/by-hand.ts';

/** The levels of a criterion as steps: the one reached and the one aimed at have marks of their own, with words. */
export function Levels({
  view,
  scaled: { criterion, factor },
  reached,
  aimed,
  asList,
}: {
  view: AssignmentView;
  scaled: ScaledResult;
  reached: number;
  aimed: number | null;
  asList: boolean;
}) {
  const workspace = useWorkspace();
  const { levels } = criterion;
  if (levels.length === 0) return null;
  // Beyond what is reached, a level's new words are marked against the level below it; so are those of the one aimed at.
  const marked = (index: number) => index > 0 && (index === reached + 1 || index === aimed);
  return (
    <ol
      className={clsx('mt-2 grid gap-x-4 gap-y-3', !asList && 'sm:grid-flow-col sm:auto-cols-fr')}
      data-layout={asList ? 'list' : 'grid'}
    >
      {levels.map((level, index) => (
        <li
          key={index}
          className={clsx(
            'group text-sm',
            asList ? 'border-l-[3px] pl-3' : 'border-t-[3px] pt-1.5',
            index <= reached ? 'border-ink' : index === aimed ? 'border-accent border-dashed' : 'border-rule',
          )}
        >
          <p className="flex flex-wrap items-baseline gap-x-2">
            <span className={clsx(index === reached && 'font-semibold')}>{level.title}</span>
            <span className="text-quiet">{pointsOf(level, factor)}</span>
            {index === reached && (
              <span className="rounded border border-ink px-1 text-xs">{words.rubric.reached}</span>
            )}
            {index === aimed && (
              <span className="inline-flex items-center gap-1 rounded border border-dashed border-accent px-1 text-xs text-accent">
                <Target size={11} aria-hidden />
                {words.rubric.aimed}
              </span>
            )}
          </p>
          <p
            className={clsx(
              'mt-0.5',
              index === reached || index === reached + 1 || index === aimed ? 'text-ink' : 'text-quiet',
            )}
          >
            {marked(index)
              ? asksBeyond(levels[index - 1].description, level.description).map((piece, i) =>
                  piece.more ? (
                    <ins key={i} className="font-semibold decoration-accent decoration-2 underline-offset-3">
                      {piece.text}
                    </ins>
                  ) : (
                    <span key={i}>{piece.text}</span>
                  ),
                )
              : level.description}
          </p>
          {index > reached && (
            <button
              type="button"
              aria-label={`${index === aimed ? words.rubric.aimOff : words.rubric.aim}: ${level.title}, ${criterion.title}`}
              onClick={() =>
                void aimAt(workspace, view.assignment.id, criterion.id, index === aimed ? null : index)
              }
              className="mt-1 font-semibold text-accent hover:underline"
            >
              {index === aimed ? words.rubric.aimOff : words.rubric.aim}
            </button>
          )}
        </li>
      ))}
    </ol>
  );
}

function pointsOf({ points, pointsFrom }: Level, factor: ScaledResult['factor']): string {
  if (points === null) return '';
  const shown = (text: NonNullable<Level['points']>) => toShown(multiply(fromDecimal(text), factor), 2);
  return pointsFrom === null ? shown(points) : words.rubric.range(shown(pointsFrom), shown(points));
}

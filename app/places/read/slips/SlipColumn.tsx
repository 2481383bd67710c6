import clsx from 'clsx';
import { useMemo } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import { setPreference } from '../../../shared/page/preferences.ts';
import * as words from '../../../words/en.ts';
import type { Desk } from '../paper/desk.ts';
import { useUnfolded } from '../reading-state.ts';
import { Curves } from './Curves.tsx';
import { SlipEdge } from './SlipEdge.tsx';
import { SlipPlace } from './SlipPlace.tsx';
import { ASIDE } from './slips.ts';

/** The slips beside the paper, each level with its passage, and the curves that join them. */
export function SlipColumn({
  view,
  desk,
  isDrawn,
  focusedId,
  onFocus,
}: {
  view: AssignmentView;
  desk: Desk;
  /** Whether what reaches so far down from there is in sight or near. */
  isDrawn: (top: number, tall: number) => boolean;
  focusedId: string | null;
  onFocus: (id: string) => void;
}) {
  const { side, size, left, paperRight, height, over, edge, slipLeft, slipWidth, crowded, wants } = desk;
  const { slips, places, lines, aside, measure } = desk.placed;
  // What is shown may have the place of a double; what is decided about is the remark itself.
  const byId = useMemo(() => new Map(view.remarks.map((remark) => [remark.id, remark])), [view.remarks]);
  const [unfolded, unfold] = useUnfolded(view.assignment.id);
  const drawn = new Set(
    slips.flatMap(({ id, height: tall }) =>
      id === focusedId || isDrawn(places.get(id) ?? 0, tall) ? [id] : [],
    ),
  );
  return (
    <div className="sticky left-0 z-20 h-0" style={{ width: size.width }}>
      {over && (
        <div
          className={clsx('absolute top-0 border-rule bg-paper', side === 'left' ? 'border-r' : 'border-l')}
          style={{
            left: side === 'left' ? 0 : edge,
            width: side === 'left' ? edge : size.width - edge,
            height,
          }}
        />
      )}
      <Curves
        ends={wants
          .filter(({ id, y }) => !aside.has(id) && (drawn.has(id) || isDrawn(y, 1)))
          .map(({ id, y }) => ({
            id,
            from: { x: over ? edge : side === 'left' ? left - 6 : paperRight + 6, y },
            to: {
              x: side === 'left' ? slipLeft + slipWidth : slipLeft,
              y: (places.get(id) ?? 0) + 16,
            },
          }))}
        width={size.width}
        height={height}
        focusedId={focusedId}
        faint={crowded}
      />
      <SlipEdge
        at={side === 'left' ? slipLeft + slipWidth + 8 : slipLeft - 8}
        height={height}
        side={side}
        width={slipWidth}
        most={desk.mostWidth}
        onWidth={(slipWidth) => setPreference({ slipWidth })}
      />
      {aside.size > 0 && drawn.has(ASIDE) && (
        <button
          type="button"
          className="absolute rounded-lg border border-dashed border-rule-strong bg-surface px-2.5 py-1.5 text-left text-sm text-quiet hover:text-ink"
          style={{ left: slipLeft, width: slipWidth, top: places.get(ASIDE) ?? 0 }}
          onClick={() => onFocus([...aside].at(-1) ?? '')}
        >
          {words.reading.aside(aside.size)}
        </button>
      )}
      <ol aria-label={words.reading.slips}>
        {desk.inOrder.map(({ remark }, index) =>
          !drawn.has(remark.id) ? null : (
            <SlipPlace
              key={remark.id}
              view={view}
              remark={byId.get(remark.id) ?? remark}
              number={index + 1}
              of={wants.length}
              left={slipLeft}
              width={slipWidth}
              top={places.get(remark.id) ?? 0}
              focused={remark.id === focusedId}
              compact={crowded.has(remark.id) || lines.has(remark.id) || remark.author.role === 'machine'}
              fold={desk.folds.get(remark.id)}
              unfolded={unfolded.includes(remark.id)}
              onUnfold={unfold}
              onFocus={onFocus}
              onMeasure={measure}
            />
          ),
        )}
      </ol>
    </div>
  );
}

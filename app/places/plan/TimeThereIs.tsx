import { lazy, Suspense } from 'react';
import { Slider } from '../../shared/controls/Slider.tsx';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import * as words from '../../words/en.ts';
import { hundredths } from '#core/assignment/view.ts';
import { CURVE_HEIGHT_PX, type TimePlan } from './time-plan.ts';

const GainCurve = lazy(async () => ({ default: (await import('./GainCurve.tsx')).GainCurve }));

/** The slider moves in steps of so many minutes. */
const STEP_MINUTES = 5;
/** What so much more time would gain is told. */
const MORE_MINUTES = 30;

/** Keeps the place of the curve until it is there, so that the tasks below stay where they are. */
const CURVE_PLACE = <div className="mt-2" style={{ height: CURVE_HEIGHT_PX }} />;

/** The minutes there are, to be moved, and what they buy. */
export function TimeThereIs({
  minutes,
  whole,
  onMinutes,
  plan,
  cap,
  hasPoints,
}: {
  minutes: number;
  /** Minutes that all open tasks take together. */
  whole: number;
  onMinutes: (minutes: number) => void;
  plan: TimePlan | null;
  /** What may be gained at most, in hundredths of a point; null where nothing caps it. */
  cap: number | null;
  hasPoints: boolean;
}) {
  const steps = Math.max(1, Math.ceil(whole / STEP_MINUTES));
  const shown = minutes >= whole ? words.plan.allTime(words.plan.hours(whole)) : words.plan.hours(minutes);
  return (
    <>
      <SectionTitle>{words.plan.time}</SectionTitle>
      <div className="mt-1 flex items-center gap-4">
        <Slider
          label={words.plan.time}
          value={Math.min(1, minutes / (steps * STEP_MINUTES))}
          steps={steps}
          onChange={(share) => onMinutes(Math.min(whole, Math.round(share * steps) * STEP_MINUTES))}
          valueText={shown}
        />
        <b className="min-w-24 shrink-0 text-right whitespace-nowrap">{shown}</b>
      </div>
      {hasPoints && (
        <>
          <p className="min-h-[2lh] text-sm" role="status">
            {plan !== null && gained(plan)}
          </p>
          <Suspense fallback={CURVE_PLACE}>
            {plan === null ? (
              CURVE_PLACE
            ) : (
              <GainCurve curve={plan.curve} minutes={minutes} whole={whole} cap={cap} />
            )}
          </Suspense>
        </>
      )}
      {plan !== null && !hasPoints && minutes < whole && <p className="text-sm">{words.plan.weightiest}</p>}
      {plan !== null && plan.bought.short !== null && (
        <p role="alert" className="text-sm font-semibold">
          {words.plan.tooMuch(words.plan.hours(plan.bought.short), words.plan.hours(minutes))}
        </p>
      )}
      {plan !== null && !plan.bought.proven && <p className="text-sm text-quiet">{words.plan.notProven}</p>}
    </>
  );
}

/** What the time buys, and what some more of it would add. */
function gained({ gain, next }: TimePlan): string {
  const more =
    next === null
      ? words.plan.noMore
      : next.minutes <= MORE_MINUTES
        ? words.plan.more(words.plan.hours(next.minutes), hundredths(next.gain))
        : words.plan.moreLater(words.plan.hours(next.minutes), hundredths(next.gain));
  return `${words.plan.buys(hundredths(gain))} ${more}`;
}

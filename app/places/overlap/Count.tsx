import { switches } from '#core/model/source.ts';
import type { Figures } from '#core/overlap/items.ts';
import { CheckBox } from '../../shared/controls/CheckBox.tsx';
import { Slider } from '../../shared/controls/Slider.tsx';
import * as words from '../../words/en.ts';
import type { Choosing } from './choice.ts';

const FEWEST = 8;
const MOST = 25;

/** How much of the text stands in sources, and what is left out of that figure. */
export function Count({ figures, choosing }: { figures: Figures; choosing: Choosing }) {
  const { counting, turn, setLeast } = choosing;
  return (
    <section>
      <p className="flex flex-wrap items-baseline gap-x-3" aria-live="polite">
        <b className="font-serif text-2xl tabular-nums">
          {words.overlap.total(figures.matched, figures.words)}
        </b>
        <span className="text-sm text-quiet">{words.overlap.totalIs(figures.percent)}</span>
        <span className="text-sm text-quiet">
          {words.overlap.withAll(figures.all.matched, figures.all.percent)}
        </span>
      </p>
      <fieldset className="mt-2">
        <legend className="sr-only">{words.overlap.switches}</legend>
        <div className="grid gap-x-6 gap-y-1 sm:grid-cols-2">
          {switches.map((which) => {
            const isOut = counting.without.has(which);
            const effect = figures.effects[which];
            return (
              <label key={which} className="flex items-center gap-2 text-sm">
                <CheckBox checked={isOut} onChange={(on) => turn(which, on)} />
                <span className="flex-1">{words.overlap.switch[which]}</span>
                <span className="text-quiet tabular-nums">
                  {isOut ? words.overlap.takesOff(effect) : words.overlap.putsBack(effect)}
                </span>
              </label>
            );
          })}
        </div>
        <div className="mt-1 flex items-center gap-3 text-sm">
          <span className="whitespace-nowrap">{words.overlap.least(counting.least)}</span>
          <Slider
            label={words.overlap.least(counting.least)}
            value={(counting.least - FEWEST) / (MOST - FEWEST)}
            steps={MOST - FEWEST}
            valueText={String(counting.least)}
            onChange={(share) => setLeast(FEWEST + Math.round(share * (MOST - FEWEST)))}
          />
        </div>
      </fieldset>
    </section>
  );
}

import { stances } from '../../model/work.ts';
import type { SayingModel } from '../model.ts';
import { CALLS_FOR_CHANGE } from '../saying.ts';
import { stanceLabelled, type Judged } from './measure.ts';

/** Of what is said without a "perhaps" at least so much is right. */
const SURELY_RIGHT = 0.8;
/** Temperatures and thresholds are looked for in steps of a hundredth. */
const HUNDREDTHS = (from: number, to: number) =>
  Array.from({ length: to - from + 1 }, (_, step) => (from + step) / 100);

function bestOf(list: readonly number[], worth: (one: number) => number): number {
  return list.reduce((best, one) => (worth(one) > worth(best) ? one : best));
}

/**
 * The temperature at which the probabilities of held-out remarks of one part fit best what they were labelled as (least
 * logarithmic loss). They were told at temperature 1.
 */
export function temperatureOf(judged: readonly Judged[]): number {
  const told = judged.flatMap(({ remark, saying }) =>
    remark.parts.length === 1 && saying.parts.length === 1
      ? [{ likely: saying.parts[0].likely, stance: remark.parts[0].stance }]
      : [],
  );
  return bestOf(HUNDREDTHS(50, 300), (temperature) =>
    told.reduce((sum, { likely, stance }) => {
      const all = stances.reduce((total, one) => total + likely[one] ** (1 / temperature), 0);
      return sum + Math.log(likely[stance] ** (1 / temperature) / all);
    }, 0),
  );
}

/** Thresholds that fit held-out remarks, which were judged at the model's temperature. */
export function thresholdsOf(
  judged: readonly Judged[],
): Pick<SayingModel, 'callsFrom' | 'promisesFrom' | 'sureFrom'> {
  const changes = judged.map(({ remark, saying }) => ({
    called: remark.parts.some(({ stance }) => CALLS_FOR_CHANGE.has(stance)),
    likely: Math.max(...saying.parts.map(({ likely }) => likely['must-fix'] + likely.fix + likely.polish)),
  }));
  const callsFrom = bestOf(
    HUNDREDTHS(30, 70),
    (from) => changes.filter(({ called, likely }) => called === likely > from).length,
  );
  const promises = judged.map(({ remark, saying }) => ({
    promised: remark.parts.some(({ promise }) => promise !== null),
    likely: Math.max(...saying.parts.map(({ promising }) => promising)),
  }));
  const promisesFrom = bestOf(HUNDREDTHS(10, 80), (from) => {
    const right = promises.filter(({ promised, likely }) => promised && likely > from).length;
    const either = promises.filter(({ promised }) => promised).length;
    return (2 * right) / (either + promises.filter(({ likely }) => likely > from).length);
  });
  const right = judged.map((one) => ({
    sure: one.saying.confidence,
    right: stanceLabelled(one.remark) === one.saying.stance,
  }));
  const sureFrom =
    HUNDREDTHS(20, 95).find((from) => {
      const said = right.filter(({ sure }) => sure >= from);
      return said.filter((one) => one.right).length >= SURELY_RIGHT * said.length;
    }) ?? 1;
  return { callsFrom, promisesFrom, sureFrom };
}

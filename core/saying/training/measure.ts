import { stances, type Stance } from '../../model/work.ts';
import type { SayingModel } from '../model.ts';
import { says } from '../says.ts';
import { CALLS_FOR_CHANGE, WEIGHTIEST, type Saying } from '../saying.ts';
import { learn } from './train.ts';
import { textOf, type LabelledRemark } from './voices.ts';

/** How many of those found were right, and how many of the right ones were found; 0 to 1. */
interface Found {
  readonly precision: number;
  readonly recall: number;
}

/** How well remarks were read. */
export interface Measured {
  readonly remarks: number;
  /** Labelled (down) against proposed (across), in the order of `stances`. */
  readonly table: readonly (readonly number[])[];
  readonly f1: readonly number[];
  readonly macroF1: number;
  readonly exact: number;
  readonly callsForChange: number;
  readonly hints: Found;
  readonly promises: Found;
  readonly promisePlaces: number;
  readonly points: Found;
}

/** A remark with what it was taken to say by a model that knew nothing of its voice. */
export interface Judged {
  readonly remark: LabelledRemark;
  readonly saying: Saying;
}

/** What a remark is labelled as, in whole: its weightiest part's stance. */
export function stanceLabelled({ parts }: LabelledRemark): Stance {
  return WEIGHTIEST.find((stance) => parts.some((part) => part.stance === stance)) ?? 'note';
}

/** What is found on held-out voices and not learnt. */
export interface Calibration extends Pick<SayingModel, 'callsFrom' | 'promisesFrom' | 'sureFrom'> {
  readonly temperature: number;
}

/** As it stands before anything is found. */
export const PLAIN: Calibration = { temperature: 1, callsFrom: 0.5, promisesFrom: 0.5, sureFrom: 0.5 };

/**
 * Reads every remark by a model learnt from the voices of the other groups.
 * @param groups of voices; as many as there are voices leaves one out at a time
 */
export function judgedByOthers(
  remarks: readonly LabelledRemark[],
  groups: number,
  { temperature, ...thresholds }: Calibration = PLAIN,
): Judged[] {
  const voices = [...new Set(remarks.map(({ voice }) => voice))];
  return Array.from({ length: groups }, (_, group) => {
    const held = new Set(voices.filter((_voice, index) => index % groups === group));
    const model = {
      ...learn(
        remarks.filter(({ voice }) => !held.has(voice)),
        temperature,
      ),
      ...thresholds,
      version: 'measured',
    };
    return remarks
      .filter(({ voice }) => held.has(voice))
      .map((remark) => ({
        remark,
        saying: says({ text: textOf(remark), kind: 'text', change: null }, model),
      }));
  }).flat();
}

/** What came of it, in figures. */
export function measured(judged: readonly Judged[]): Measured {
  const pairs = judged.map(({ remark, saying }) => ({
    labelled: stanceLabelled(remark),
    proposed: saying.stance,
  }));
  const table = stances.map((labelled) =>
    stances.map((proposed) => pairs.filter((p) => p.labelled === labelled && p.proposed === proposed).length),
  );
  const f1 = stances.map((stance) => {
    const right = pairs.filter((p) => p.labelled === stance && p.proposed === stance).length;
    const either =
      pairs.filter((p) => p.labelled === stance).length + pairs.filter((p) => p.proposed === stance).length;
    return either === 0 ? 0 : (2 * right) / either;
  });
  const share = (test: (one: Judged) => boolean) => judged.filter(test).length / judged.length;
  const promises = judged.filter(({ remark }) => promiseLabelled(remark) !== null);
  return {
    remarks: judged.length,
    table,
    f1,
    macroF1: f1.reduce((x, y) => x + y, 0) / stances.length,
    exact: share(({ remark, saying }) => stanceLabelled(remark) === saying.stance),
    callsForChange: share(
      ({ remark, saying }) =>
        remark.parts.some(({ stance }) => CALLS_FOR_CHANGE.has(stance)) === saying.callsForChange,
    ),
    hints: foundOf(
      judged,
      ({ remark }) => remark.parts.some(({ stance }) => stance === 'advice'),
      ({ saying }) => saying.hint !== null,
    ),
    promises: foundOf(
      judged,
      ({ remark }) => promiseLabelled(remark) !== null,
      ({ saying }) => saying.promise !== null,
    ),
    promisePlaces:
      promises.filter(({ remark, saying }) => promiseLabelled(remark) === saying.promise).length /
      promises.length,
    points: foundOf(
      judged,
      ({ remark }) => remark.parts.some(({ points }) => points !== null),
      ({ remark, saying }) =>
        saying.points !== null &&
        (saying.points === remark.parts.find(({ points }) => points !== null)?.points ||
          remark.parts.every(({ points }) => points === null)),
    ),
  };
}

function promiseLabelled({ parts }: LabelledRemark) {
  return parts.find(({ promise }) => promise !== null)?.promise ?? null;
}

function foundOf(
  judged: readonly Judged[],
  wanted: (one: Judged) => boolean,
  found: (one: Judged) => boolean,
): Found {
  const both = judged.filter((one) => wanted(one) && found(one)).length;
  return {
    precision: both / Math.max(1, judged.filter(found).length),
    recall: both / Math.max(1, judged.filter(wanted).length),
  };
}

/** The figures as lines to be printed. */
export function shown(name: string, figures: Measured): string {
  const two = (x: number) => x.toFixed(2);
  const found = ({ precision, recall }: Found) => `precision ${two(precision)}, recall ${two(recall)}`;
  const rows = stances.map(
    (stance, i) =>
      `${stance.padEnd(9)}${figures.table[i].map((n) => String(n || '.').padStart(6)).join('')}   F1 ${two(figures.f1[i])}`,
  );
  return [
    `${name}: ${figures.remarks} remarks; labelled (down), proposed (across: ${stances.join(', ')})`,
    ...rows,
    `macro F1 ${two(figures.macroF1)}; stance right ${two(figures.exact)}; whether a change is called for ${two(figures.callsForChange)}`,
    `hints: ${found(figures.hints)}`,
    `promises: ${found(figures.promises)}, right place ${two(figures.promisePlaces)}`,
    `points named: ${found(figures.points)}`,
  ].join('\n');
}

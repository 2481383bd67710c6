import { changeKinds, type ChangeKind } from '../model/work.ts';
import { MINUTES_BY_KIND } from './tasks.ts';

/** What a change of one kind is taken to be good for and to need. */
interface KindEstimate {
  /** The chance that it wins the points behind its remarks, 0.05 to 0.95. */
  readonly chance: number;
  /** Whole minutes that it needs: a quarter to four times the standard. */
  readonly minutes: number;
  /** Changes of the record that the chance was learnt from, and those that the minutes were. */
  readonly cases: number;
  readonly timed: number;
}

/** What changes of each kind are taken to be good for and to need. */
export type Estimates = Readonly<Record<ChangeKind, KindEstimate>>;

/** The chance before anything is known, and as how many changes that counts. */
const FIRST = { chance: 0.7, cases: 10 };
/** As how many timed changes the standard minutes count. */
const FIRST_TIMED = 3;
const LEAST_CHANCE = 0.05;
const MOST_CHANCE = 0.95;
/** Minutes stay within this many times the standard, either way. */
const MOST_TIMES = 4;
/** A clock that ran on overnight tells nothing of a change: a single one counts as so many times the standard at most. */
const MOST_TIMES_ONCE = 8;

function each<Value>(of: (kind: ChangeKind) => Value): Record<ChangeKind, Value> {
  return Object.fromEntries(changeKinds.map((kind) => [kind, of(kind)])) as Record<ChangeKind, Value>;
}

/** What changes are taken for before there is a record of one's own (computation.md 7). */
export const STANDARD_ESTIMATES: Estimates = each((kind) => ({
  chance: FIRST.chance,
  minutes: MINUTES_BY_KIND[kind],
  cases: 0,
  timed: 0,
}));

/** Points that were lost in one place before another attempt, and came back or didn't. Hundredths of a point. */
export interface PastLoss {
  /** What came back, less than 0 where more was lost. */
  readonly real: number;
  /** The changes that were made for it, each with the points that lay behind it there. */
  readonly shares: readonly { readonly kind: ChangeKind; readonly points: number }[];
}

/** How long a change took. */
export interface TimedChange {
  readonly kind: ChangeKind;
  readonly minutes: number;
}

/**
 * Learns from what changes won and took. What came back in one place is shared over its changes as their gain was planned,
 * with the chances known by then; a change that got all of its points is a case that worked, one that got half of them half a
 * case. Chances are means that begin as ten cases at 0.7, minutes means that begin as three at the standard.
 * @param losses in the order in which they were marked again
 */
export function estimatesFrom(losses: readonly PastLoss[], timed: readonly TimedChange[]): Estimates {
  const { chance, cases } = chancesFrom(losses);
  const minutes = each((kind) => MINUTES_BY_KIND[kind] * FIRST_TIMED);
  const times = each(() => 0);
  for (const { kind, minutes: took } of timed) {
    minutes[kind] += Math.min(took, MOST_TIMES_ONCE * MINUTES_BY_KIND[kind]);
    times[kind]++;
  }
  return each((kind) => {
    const standard = MINUTES_BY_KIND[kind];
    const mean = minutes[kind] / (FIRST_TIMED + times[kind]);
    return {
      chance: chance[kind],
      minutes: Math.max(1, Math.round(within(standard / MOST_TIMES, mean, standard * MOST_TIMES))),
      cases: cases[kind],
      timed: times[kind],
    };
  });
}

/** How much what one change wins of its points varies, at most about its mean: p (1 - p) at 0.7. */
const VARIANCE = FIRST.chance * (1 - FIRST.chance);

/**
 * The chances by kind, and from how many changes. Where one change was made for a loss its chance is the mean of what changes
 * like it won, begun as ten cases at 0.7; where several were, what came back is their points times their chances: least
 * squares over all of it, a loss weighing less the more changes it was (ridge regression, Hoerl and Kennard 1970, towards 0.7).
 */
function chancesFrom(losses: readonly PastLoss[]) {
  const cases = each(() => 0);
  const index = new Map(changeKinds.map((kind, at) => [kind, at]));
  const matrix = changeKinds.map((_, i) =>
    changeKinds.map((__, j) => (i === j ? FIRST.cases / VARIANCE : 0)),
  );
  const right = changeKinds.map(() => (FIRST.cases * FIRST.chance) / VARIANCE);
  for (const { real, shares } of losses) {
    const row = changeKinds.map(() => 0);
    let spread = 0;
    let all = 0;
    for (const { kind, points } of shares) {
      if (points <= 0) continue;
      cases[kind]++;
      row[index.get(kind) ?? 0] += points;
      spread += points * points * VARIANCE;
      all += points;
    }
    if (spread === 0) continue;
    const won = within(0, real, all);
    for (const [i, x] of row.entries()) {
      right[i] += (x * won) / spread;
      for (const [j, y] of row.entries()) matrix[i][j] += (x * y) / spread;
    }
  }
  const solved = solve(matrix, right);
  return { chance: each((kind) => within(LEAST_CHANCE, solved[index.get(kind) ?? 0], MOST_CHANCE)), cases };
}

/** Solves a system of linear equations that is symmetric and positive definite, by elimination; changes what it is given. */
function solve(matrix: number[][], right: number[]): number[] {
  const n = right.length;
  for (let i = 0; i < n; i++)
    for (let row = i + 1; row < n; row++) {
      const times = matrix[row][i] / matrix[i][i];
      for (let column = i; column < n; column++) matrix[row][column] -= times * matrix[i][column];
      right[row] -= times * right[i];
    }
  const solved = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    const known = matrix[i].reduce(
      (sum, value, column) => sum + (column > i ? value * solved[column] : 0),
      0,
    );
    solved[i] = (right[i] - known) / matrix[i][i];
  }
  return solved;
}

/**
 * What came back in one place, shared over the changes made for it in proportion to their planned gain; none gets more than
 * lay behind it, and what is over goes to the others.
 */
export function sharedGain(
  real: number,
  shares: PastLoss['shares'],
  chanceOf: (kind: ChangeKind) => number,
): number[] {
  const got = shares.map(() => 0);
  let left = Math.max(0, real);
  let open = shares.map((_, index) => index);
  while (left > 0 && open.length > 0) {
    const planned = (index: number) => shares[index].points * chanceOf(shares[index].kind);
    const all = open.reduce((sum, index) => sum + planned(index), 0);
    const room = (index: number) => shares[index].points - got[index];
    const full = open.filter((index) => (left * planned(index)) / all >= room(index));
    if (full.length === 0) {
      for (const index of open) got[index] += (left * planned(index)) / all;
      break;
    }
    for (const index of full) {
      left -= room(index);
      got[index] = shares[index].points;
    }
    open = open.filter((index) => !full.includes(index));
  }
  return got;
}

const within = (least: number, value: number, most: number) => Math.min(most, Math.max(least, value));

/** The kinds of change of which the record says something else than the standard. */
export function learnedKinds(estimates: Estimates): ChangeKind[] {
  return changeKinds.filter((kind) => estimates[kind].cases > 0 || estimates[kind].timed > 0);
}

/** Chance that comes out the same each time (a linear congruential generator; Numerical Recipes, 2nd edition, 7.1). */
export interface Seeded {
  /** At least 0 and below `limit`, a whole number. */
  below(limit: number): number;
  /** Puts a list into another order, in place (Fisher and Yates). */
  shuffle(list: unknown[]): void;
}

/** Chance from a seed. */
export function seeded(seed: number): Seeded {
  let state = seed >>> 0;
  const below = (limit: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * limit);
  };
  return {
    below,
    shuffle(list) {
      for (let last = list.length - 1; last > 0; last--) {
        const other = below(last + 1);
        [list[last], list[other]] = [list[other], list[last]];
      }
    },
  };
}

/** The index of the first of things in order whose value, ascending, is `least` or more; their count where none is. */
export function firstOf<T>(things: readonly T[], valueOf: (thing: T) => number, least: number): number {
  let low = 0;
  let high = things.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (valueOf(things[middle]) < least) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The index of the first of ascending values that is `least` or more; their count where none is. */
export function firstFrom(values: ArrayLike<number>, least: number): number {
  let low = 0;
  let high = values.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle] < least) low = middle + 1;
    else high = middle;
  }
  return low;
}

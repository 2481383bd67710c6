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

/** How many UTF-16 units two texts have in common at their beginning. */
export function commonStart(x: string, y: string): number {
  let length = 0;
  while (length < x.length && length < y.length && x[length] === y[length]) length++;
  return length;
}

/** How many they have in common at their end. */
export function commonEnd(x: string, y: string): number {
  let length = 0;
  while (length < x.length && length < y.length && x[x.length - 1 - length] === y[y.length - 1 - length])
    length++;
  return length;
}

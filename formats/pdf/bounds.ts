/** The rectangle around points (x y x y ..., in PDF points): left, bottom, right, top. */
export function boundsOf(points: readonly number[]): [number, number, number, number] {
  const xs = points.filter((_, i) => i % 2 === 0);
  const ys = points.filter((_, i) => i % 2 === 1);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

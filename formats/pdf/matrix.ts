/** A change of axes (ISO 32000-1, 8.3.3): x' = a x + c y + e, y' = b x + d y + f. */
export type Matrix = readonly [number, number, number, number, number, number];

/** Changes nothing. */
export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** First by `n`, then by `m`. */
export function multiply(m: Matrix, n: Matrix): Matrix {
  return [
    m[0] * n[0] + m[2] * n[1],
    m[1] * n[0] + m[3] * n[1],
    m[0] * n[2] + m[2] * n[3],
    m[1] * n[2] + m[3] * n[3],
    m[0] * n[4] + m[2] * n[5] + m[4],
    m[1] * n[4] + m[3] * n[5] + m[5],
  ];
}

/** From whatever a file has for one: six numbers. */
export function matrixOf(raw: unknown): Matrix {
  const values = Array.from({ length: 6 }, (_, i) => Number((raw as ArrayLike<unknown>)[i]));
  return [values[0], values[1], values[2], values[3], values[4], values[5]];
}

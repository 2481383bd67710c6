/** A stretch of both texts, in words: the same in both, or changed (one side may be empty). */
export interface Stretch {
  readonly kind: 'same' | 'changed';
  readonly fromA: number;
  readonly toA: number;
  readonly fromB: number;
  readonly toB: number;
}

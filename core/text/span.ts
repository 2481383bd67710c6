/** A place in a text, in UTF-16 units; from equals to for a gap between words. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

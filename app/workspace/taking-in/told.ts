import type { UnreadableReason } from '#formats/unreadable.ts';

/** Why a file was not taken in. */
export type NotTaken =
  /** Its bytes are here already. */
  | { readonly kind: 'known' }
  | { readonly kind: 'cancelled' }
  /** The reader died over it again and again. */
  | { readonly kind: 'stopped' }
  | { readonly kind: 'unreadable'; readonly reason: UnreadableReason; readonly detail: string };

/** Tells of one file from when its reading begins. */
export interface ReadingTeller {
  /** So many pages were read; `of` 0: not one is counted yet. */
  pages(done: number, of: number): void;
  /** The place that shows the paper tells it. */
  hide(): void;
  /** It was read. */
  read(): void;
  notTaken(why: NotTaken): void;
}

/** Who tells the student how taking in goes (the frame, in notices). */
export interface TakingInTeller {
  reading(name: string, cancel: () => void): ReadingTeller;
  /** Remarks have nothing here that they could be put onto. */
  nothingToPlaceOn(): void;
  /** Remarks could not be put onto what they are about. */
  notPlaced(name: string, reason: UnreadableReason, detail: string): void;
  taken(names: readonly string[], remarks: number): void;
}

import type { Attributes } from './parse-xml.ts';

/** What a walk over a document does at the beginning of an element and at its end. */
export interface ElementRow<Walk> {
  readonly open?: (walk: Walk, attributes: Attributes, name: string) => void;
  readonly close?: (walk: Walk, name: string) => void;
}

/** The elements that a reader knows, by name with prefix; any other has no row, and only its content counts. */
export type ElementRows<Walk> = Readonly<Partial<Record<string, ElementRow<Walk>>>>;

/** The same row for several elements. */
export function rowsFor<Walk>(names: readonly string[], row: ElementRow<Walk>): ElementRows<Walk> {
  return Object.fromEntries(names.map((name) => [name, row]));
}

import type { Attributes } from '../xml/parse-xml.ts';

/** Spaces written by number; a file can ask for any number of them. */
export function spacesOf(attributes: Attributes): number {
  return Math.min(100, Math.max(1, Number(attributes['text:c'] ?? 1) || 1));
}

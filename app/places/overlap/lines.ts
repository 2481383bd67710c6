import type { Relation } from '#core/model/source.ts';

/** How words that stand in a source are underlined: one line for each relation, told apart without colour. */
export const lineOf: Readonly<Record<Relation, string>> = {
  published: 'decoration-solid',
  web: 'decoration-dashed',
  course: 'decoration-dotted',
  fellow: 'decoration-double',
  own: 'decoration-wavy',
  brief: 'decoration-dotted',
};

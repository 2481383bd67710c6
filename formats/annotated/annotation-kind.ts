import type { MarkPlace } from './mark-place.ts';

const MARKUPS: Readonly<Partial<Record<string, string>>> = {
  highlight: 'Highlight',
  underline: 'Underline',
  squiggly: 'Squiggly',
  strikeout: 'StrikeOut',
  insertion: 'Underline',
  deletion: 'StrikeOut',
};
const SHAPES: Readonly<Partial<Record<string, string>>> = {
  freetext: 'FreeText',
  ink: 'Ink',
  square: 'Square',
  circle: 'Circle',
  polygon: 'Polygon',
  polyline: 'PolyLine',
  line: 'Line',
  caret: 'Caret',
  stamp: 'Stamp',
};
/** The kind of annotation that a remark becomes at a place. */
export function annotationKind(kind: string, { quads, shape, rect }: MarkPlace): string {
  if (quads.length > 0) return MARKUPS[kind] ?? SHAPES[kind] ?? 'Highlight';
  const own = SHAPES[kind] ?? (kind !== 'text' && isArea(rect) ? 'Square' : 'Text');
  const needsShape = ['Ink', 'Line', 'Polygon', 'PolyLine'].includes(own);
  if (needsShape && shape.length === 0) return 'Square';
  return own === 'Text' && shape.length > 0 ? 'Polygon' : own;
}

/** Larger than the sign of a note, in points. */
const NOTE = 24;

function isArea([left, bottom, right, top]: readonly number[]): boolean {
  return right - left > NOTE || top - bottom > NOTE;
}

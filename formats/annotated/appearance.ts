import { boundsOf } from '../pdf/bounds.ts';
import type { MarkPlace } from './mark-place.ts';

/** How a mark is drawn, so that it looks the same in any reader (ISO 32000-1, 12.5.5). */
export interface Appearance {
  /** Operators of a content stream, in the page's own coordinates. */
  readonly content: string;
  /** What they reach over. */
  readonly box: readonly [number, number, number, number];
  /** What lies below shows through, by a graphics state of the name Through. */
  readonly multiplied: boolean;
}

/** In points. */
const LINE = 1.2;
/** Half of the height of a squiggle's wave. */
const WAVE = 1.1;

const shown = (value: number) => String(Math.round(value * 1000) / 1000);
const numbers = (...values: readonly number[]) => values.map(shown).join(' ');

/** @param color #rrggbb */
export function colorParts(color: string): number[] {
  return [1, 3, 5].map((at) => parseInt(color.slice(at, at + 2), 16) / 255);
}

/** The appearance of an annotation of a kind (ISO 32000-1, table 169) at a place. */
export function appearanceOf(kind: string, place: MarkPlace, color: string): Appearance {
  const stroke = `${numbers(...colorParts(color))} RG ${shown(LINE)} w 1 J 1 j`;
  const fill = `${numbers(...colorParts(color))} rg`;
  switch (kind) {
    case 'Highlight':
      return drawn(
        `/Through gs ${fill}\n${place.quads.map((quad) => `${outline(quad)} f`).join('\n')}`,
        place,
        true,
      );
    case 'Underline':
    case 'StrikeOut':
    case 'Squiggly':
      return drawn(`${stroke}\n${place.quads.map((quad) => lineOn(kind, quad)).join('\n')}`, place);
    case 'Ink':
    case 'Line':
    case 'PolyLine':
      return drawn(`${stroke}\n${place.shape.map((points) => `${path(points)} S`).join('\n')}`, place);
    case 'Polygon':
      return drawn(`${stroke}\n${place.shape.map((points) => `${path(points)} s`).join('\n')}`, place);
    case 'Circle':
      return drawn(`${stroke}\n${ellipse(inner(place.rect))} s`, place);
    case 'Square':
    case 'Stamp':
    case 'FreeText': {
      const [left, bottom, right, top] = inner(place.rect);
      return drawn(`${stroke}\n${numbers(left, bottom, right - left, top - bottom)} re S`, place);
    }
    case 'Caret': {
      const [left, bottom, right, top] = place.rect;
      const middle = (left + right) / 2;
      return drawn(`${fill}\n${path([left, bottom, middle, top, right, bottom])} f`, place);
    }
    default:
      return drawn(note(place.rect, stroke), place);
  }
}

function drawn(content: string, { rect, quads, shape }: MarkPlace, multiplied = false): Appearance {
  const [left, bottom, right, top] = boundsOf([...rect, ...quads.flat(), ...shape.flat()]);
  // Lines are as thick outside of what they go around as inside.
  return { content, box: [left - LINE, bottom - LINE, right + LINE, top + LINE], multiplied };
}

function inner([left, bottom, right, top]: readonly number[]): [number, number, number, number] {
  const edge = Math.min(LINE / 2, (right - left) / 2, (top - bottom) / 2);
  return [left + edge, bottom + edge, right - edge, top - edge];
}

function path(points: readonly number[]): string {
  const steps: string[] = [];
  for (let i = 0; i + 1 < points.length; i += 2)
    steps.push(`${numbers(points[i], points[i + 1])} ${i === 0 ? 'm' : 'l'}`);
  return steps.join(' ');
}

/** A quad's corners come in the order of lines, an outline goes around. */
function outline([a, b, c, d, e, f, g, h]: readonly number[]): string {
  return `${path([a, b, c, d, g, h, e, f])} h`;
}

function lineOn(kind: string, [left, top, right, topRight, x, y, x2, y2]: readonly number[]): string {
  if (kind === 'StrikeOut')
    return `${path([(left + x) / 2, (top + y) / 2, (right + x2) / 2, (topRight + y2) / 2])} S`;
  if (kind === 'Underline') return `${path([x, y + LINE, x2, y2 + LINE])} S`;
  const length = Math.hypot(x2 - x, y2 - y);
  const steps = Math.max(2, Math.round(length / (2 * WAVE)));
  const wave = Array.from({ length: steps + 1 }, (_, i) => [
    x + ((x2 - x) * i) / steps,
    y + ((y2 - y) * i) / steps + (i % 2 === 0 ? 0 : 2 * WAVE),
  ]);
  return `${path(wave.flat())} S`;
}

/** How far the handles of a Bézier curve stand from its ends for a quarter of a circle. */
const QUARTER = 0.5523;

function ellipse([left, bottom, right, top]: readonly number[]): string {
  const [x, y] = [(left + right) / 2, (bottom + top) / 2];
  const [rx, ry] = [(right - left) / 2, (top - bottom) / 2];
  const curve = (...points: readonly number[]) => `${numbers(...points)} c`;
  return [
    `${numbers(x + rx, y)} m`,
    curve(x + rx, y + ry * QUARTER, x + rx * QUARTER, y + ry, x, y + ry),
    curve(x - rx * QUARTER, y + ry, x - rx, y + ry * QUARTER, x - rx, y),
    curve(x - rx, y - ry * QUARTER, x - rx * QUARTER, y - ry, x, y - ry),
    curve(x + rx * QUARTER, y - ry, x + rx, y - ry * QUARTER, x + rx, y),
  ].join(' ');
}

/** A small sheet with lines on it. */
function note([left, bottom, right, top]: readonly number[], stroke: string): string {
  const [width, height] = [right - left, top - bottom];
  const line = (share: number) =>
    `${path([left + width * 0.2, bottom + height * share, right - width * 0.2, bottom + height * share])} S`;
  return `1 1 1 rg ${stroke}\n${numbers(left, bottom, width, height)} re B\n${[0.3, 0.5, 0.7].map(line).join('\n')}`;
}

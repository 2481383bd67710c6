import svgpath from 'svgpath';
import { Malformed } from '../malformed.ts';
import { parseXml, type Attributes } from '../xml/parse-xml.ts';

/** The bounds of a shape and the shape itself as an SVG path, in pixels of the picture. */
export interface SvgRegion {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly outline: string;
}

interface Drawn {
  readonly outline: string;
  readonly points: readonly (readonly [number, number])[];
}

/** The first shape of an SVG selector; null where it draws none that is known (rect, circle, ellipse, polygon, path). */
export function regionOfSvg(svg: string): SvgRegion | null {
  const drawn: Drawn[] = [];
  try {
    parseXml(svg, {
      open: (name, attributes) => {
        const shape = shapeOf(name.replace(/^\w+:/, ''), attributes);
        if (shape !== null) drawn.push(shape);
      },
    });
  } catch (error) {
    if (error instanceof Malformed) return null;
    throw error;
  }
  return drawn.length === 0 ? null : bounded(drawn[0]);
}

/** The corners of an outline of straight lines, as x y x y ...; null for one with curves in it. */
export function cornersOf(outline: string): number[] | null {
  return /[CSQTA]/i.test(outline) ? null : pathPoints(outline).flat();
}

function bounded({ outline, points }: Drawn): SvgRegion {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y, outline };
}

function shapeOf(name: string, attributes: Attributes): Drawn | null {
  const number = (key: string) => Number(attributes[key] ?? 0);
  if (name === 'rect') {
    const [x, y, w, h] = ['x', 'y', 'width', 'height'].map(number);
    return polygon([
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ]);
  }
  if (name === 'circle' || name === 'ellipse') {
    const [cx, cy] = [number('cx'), number('cy')];
    const rx = name === 'circle' ? number('r') : number('rx');
    const ry = name === 'circle' ? number('r') : number('ry');
    return {
      outline: `M${cx - rx} ${cy}A${rx} ${ry} 0 1 0 ${cx + rx} ${cy}A${rx} ${ry} 0 1 0 ${cx - rx} ${cy}Z`,
      points: [
        [cx - rx, cy - ry],
        [cx + rx, cy + ry],
      ],
    };
  }
  if (name === 'polygon' || name === 'polyline') return polygon(pairs(numbersOf(attributes.points ?? '')));
  if (name === 'path') {
    const path = attributes.d ?? '';
    // Drawn as it is; only what is made of plain numbers is taken, since it goes into the page.
    if (!/^[\sMLHVCSQTAZmlhvcsqtaz\d.,eE+-]*$/.test(path)) return null;
    const points = pathPoints(path);
    return points.length < 2 ? null : { outline: path, points };
  }
  return null;
}

function polygon(points: readonly (readonly [number, number])[]): Drawn | null {
  if (points.length < 2 || points.some(([x, y]) => !Number.isFinite(x) || !Number.isFinite(y))) return null;
  return { outline: `M${points.map(([x, y]) => `${x} ${y}`).join('L')}Z`, points };
}

function numbersOf(text: string): number[] {
  return [...text.matchAll(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi)].map(([part]) => Number(part));
}

function pairs(numbers: readonly number[]): [number, number][] {
  const found: [number, number][] = [];
  for (let i = 0; i + 1 < numbers.length; i += 2) found.push([numbers[i], numbers[i + 1]]);
  return found;
}

/** The points that a path runs through, with its control points: enough for its bounds. Arcs are drawn as curves first. */
function pathPoints(path: string): [number, number][] {
  const points: [number, number][] = [];
  // A path that breaks off is drawn up to there, as the standard has it.
  svgpath(path)
    .abs()
    .unshort()
    .unarc()
    .iterate(([command, ...given], _index, x, y) => {
      const numbers = given.map(Number);
      if (command === 'H') points.push([numbers[0], y]);
      else if (command === 'V') points.push([x, numbers[0]]);
      else points.push(...pairs(numbers));
    });
  return points;
}

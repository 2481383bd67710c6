import type { PictureShare, PictureSize } from '../check/picture-places.ts';
import { scaledTo, type Grey } from './grey.ts';

/** Where an older picture lies on a newer one, in shares of the newer; it may reach beyond it. */
export interface Alignment {
  readonly place: PictureShare;
  /** What both show fits together; else the older was only brought to the width of the newer. */
  readonly sure: boolean;
}

/** Longest sides at which both are laid over one another: coarse for finding the place, fine for setting it right. */
const COARSE = 96;
const FINE = 240;
/** How much larger or smaller than fitted by width the older may lie, in steps of a share. */
const SCALES = Array.from({ length: 17 }, (_, step) => 0.66 * 1.055 ** step);
/** How far it may be moved from the middle, as a share of the newer picture's longest side. */
const FARTHEST = 0.3;
/** Pictures that correlate less show different things. */
const LEAST_SURE = 0.35;

/** A place of the older on the newer, in pixels of the newer as it is scaled. */
interface Lie {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/**
 * Lays an older picture over a newer one so that what both show lies on itself: the scale and shift for which their
 * brightness correlates best (zero-mean normalised cross-correlation), found coarsely over all, then set right finely.
 * Turned pictures are not found. Both are compared at a few hundred pixels, whatever their size.
 */
export function align(older: Grey, newer: Grey): Alignment {
  const coarse = fieldsOf(older, newer, COARSE);
  let best = bestOf(coarse, coarseLies(coarse));
  const fine = fieldsOf(older, newer, FINE);
  const grown = fine.newer.width / coarse.newer.width;
  best = { ...best, lie: { scale: best.lie.scale, x: best.lie.x * grown, y: best.lie.y * grown } };
  for (let step = 1; step > 0.2; step /= 2) best = climb(fine, best.lie, step);
  if (best.fit < LEAST_SURE) return { place: fittedByWidth(older, newer), sure: false };
  const { lie } = best;
  return {
    place: {
      x: lie.x / fine.newer.width,
      y: lie.y / fine.newer.height,
      width: (lie.scale * fine.older.width) / fine.newer.width,
      height: (lie.scale * fine.older.height) / fine.newer.height,
    },
    sure: true,
  };
}

/** The older picture at the newer's width, from the top: as two sheets are laid on one another. */
export function fittedByWidth(older: PictureSize, newer: PictureSize): PictureShare {
  const height = ((older.height / older.width) * newer.width) / newer.height;
  return { x: 0, y: 0, width: 1, height };
}

/** A rectangle of the older picture where it lies on the newer. */
export function shareOnNewer(share: PictureShare, { place }: Pick<Alignment, 'place'>): PictureShare {
  return {
    x: place.x + share.x * place.width,
    y: place.y + share.y * place.height,
    width: share.width * place.width,
    height: share.height * place.height,
  };
}

interface Fields {
  /** At a scale of 1 as wide as the newer. */
  readonly older: Grey;
  readonly newer: Grey;
}

function fieldsOf(older: Grey, newer: Grey, longest: number): Fields {
  const share = Math.min(1, longest / Math.max(newer.width, newer.height));
  const width = Math.max(8, Math.round(newer.width * share));
  const height = Math.max(8, Math.round(newer.height * share));
  const own = Math.max(8, Math.round((older.height / older.width) * width));
  return {
    older: blurred(scaledTo(older, width, own)),
    newer: blurred(scaledTo(newer, width, height)),
  };
}

/** Spread over the pixels beside it, so that a stroke a pixel off still counts as the same. */
function blurred({ width, height, values }: Grey): Grey {
  const result = new Uint8Array(values.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      let count = 0;
      for (let row = Math.max(0, y - 1); row <= Math.min(height - 1, y + 1); row++)
        for (let column = Math.max(0, x - 1); column <= Math.min(width - 1, x + 1); column++) {
          sum += values[row * width + column];
          count++;
        }
      result[y * width + x] = Math.round(sum / count);
    }
  return { width, height, values: result };
}

function* coarseLies({ older, newer }: Fields): Generator<Lie> {
  const far = FARTHEST * Math.max(newer.width, newer.height);
  for (const scale of SCALES) {
    // In the middle, and moved from there.
    const left = (newer.width - scale * older.width) / 2;
    const top = (newer.height - scale * older.height) / 2;
    for (let y = -far; y <= far; y += 2)
      for (let x = -far; x <= far; x += 2) yield { scale, x: left + x, y: top + y };
  }
}

interface Fitting {
  readonly lie: Lie;
  readonly fit: number;
}

function bestOf(fields: Fields, lies: Iterable<Lie>): Fitting {
  let best: Fitting = { lie: { scale: 1, x: 0, y: 0 }, fit: -1 };
  for (const lie of lies) {
    const fit = fitOf(fields, lie, 3);
    if (fit > best.fit) best = { lie, fit };
  }
  return best;
}

/** Moves and scales as long as that fits better. */
function climb(fields: Fields, from: Lie, step: number): Fitting {
  let best: Fitting = { lie: from, fit: fitOf(fields, from, 1) };
  const grow = step / fields.newer.width;
  for (let better = true; better;) {
    better = false;
    for (const [scale, x, y] of NEIGHBOURS) {
      const larger = best.lie.scale + scale * grow;
      const lie = {
        scale: larger,
        // Scaled about its own middle.
        x: best.lie.x + x * step - (scale * grow * fields.older.width) / 2,
        y: best.lie.y + y * step - (scale * grow * fields.older.height) / 2,
      };
      const fit = fitOf(fields, lie, 1);
      if (fit > best.fit + 1e-6) {
        best = { lie, fit };
        better = true;
      }
    }
  }
  return best;
}

const NEIGHBOURS = [-1, 0, 1].flatMap((scale) =>
  [-1, 0, 1].flatMap((x) => [-1, 0, 1].map((y) => [scale, x, y] as const)),
);

/** Less of the older picture than this on the newer tells nothing. */
const LEAST_OVERLAP = 0.5;

/** How well both correlate where they overlap, -1 to 1. @param every looks at every so-manieth pixel */
function fitOf({ older, newer }: Fields, { scale, x, y }: Lie, every: number): number {
  let [n, all, a, b, aa, bb, ab] = [0, 0, 0, 0, 0, 0, 0];
  for (let row = 0; row < older.height; row += every) {
    const there = Math.round(y + row * scale);
    for (let column = 0; column < older.width; column += every) {
      all++;
      const across = Math.round(x + column * scale);
      if (there < 0 || across < 0 || there >= newer.height || across >= newer.width) continue;
      const one = older.values[row * older.width + column];
      const other = newer.values[there * newer.width + across];
      n++;
      a += one;
      b += other;
      aa += one * one;
      bb += other * other;
      ab += one * other;
    }
  }
  if (n < LEAST_OVERLAP * all) return -1;
  const spread = (n * aa - a * a) * (n * bb - b * b);
  return spread <= 0 ? -1 : (n * ab - a * b) / Math.sqrt(spread);
}

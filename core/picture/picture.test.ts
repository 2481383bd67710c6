import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { align, fittedByWidth, shareOnNewer } from './align.ts';
import { greyOfPixels, partOf, scaledTo, type Grey } from './grey.ts';
import { sharpnessOf } from './sharpness.ts';

/** A drawing of boxes and lines on paper, the same for the same seed; `at` tells where each point of it is drawn. */
function drawing(width: number, height: number, seed: number, lie = { scale: 1, x: 0, y: 0 }): Grey {
  const values = new Uint8Array(width * height).fill(244);
  let state = seed;
  const random = () => (state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648;
  const fill = (left: number, top: number, w: number, h: number, dark: number) => {
    for (let y = Math.round(top); y < Math.round(top + h); y++)
      for (let x = Math.round(left); x < Math.round(left + w); x++)
        if (x >= 0 && y >= 0 && x < width && y < height) values[y * width + x] = dark;
  };
  for (let n = 0; n < 24; n++) {
    const [x, y, w, h] = [random() * 500, random() * 700, 10 + random() * 110, 4 + random() * 70];
    const dark = 20 + Math.floor(random() * 150);
    fill(lie.x + x * lie.scale, lie.y + y * lie.scale, w * lie.scale, h * lie.scale, dark);
  }
  return { width, height, values };
}

describe('an older picture laid on a newer one', () => {
  it('lies where what both show fits, whatever the newer is scaled and moved by', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.double({ min: 0.8, max: 1.3, noNaN: true }),
        fc.integer({ min: -60, max: 60 }),
        fc.integer({ min: -60, max: 60 }),
        (seed, scale, x, y) => {
          const own = drawing(600, 800, seed);
          const newer = drawing(700, 900, seed, { scale, x: 20 + x, y: 20 + y });
          const { place, sure } = align(own, newer);
          expect(sure).toBe(true);
          const off = [
            place.x - (20 + x) / 700,
            place.y - (20 + y) / 900,
            place.width - (scale * 600) / 700,
            place.height - (scale * 800) / 900,
          ];
          for (const one of off) expect(Math.abs(one)).toBeLessThan(0.02);
        },
      ),
      { numRuns: 10, seed: 4 },
    );
  });

  it('is fitted by width where both show different things', () => {
    const [older, newer] = [drawing(600, 800, 1), drawing(600, 900, 999)];
    const found = align(older, newer);
    expect(found.sure).toBe(false);
    expect(found.place).toEqual(fittedByWidth(older, newer));
    expect(found.place.height).toBeCloseTo(800 / 900);
  });

  it('is fitted by width on an even sheet', () => {
    const even = { width: 50, height: 50, values: new Uint8Array(2500).fill(255) };
    expect(align(drawing(600, 800, 3), even).sure).toBe(false);
  });

  it('takes its regions along', () => {
    const place = { x: 0.1, y: 0.2, width: 0.5, height: 0.4 };
    expect(shareOnNewer({ x: 0.5, y: 0.5, width: 0.1, height: 0.2 }, { place })).toEqual({
      x: 0.35,
      y: 0.4,
      width: 0.05,
      height: expect.closeTo(0.08) as number,
    });
  });
});

describe('grey', () => {
  it('is how bright a pixel is on white paper', () => {
    const data = new Uint8Array([0, 0, 0, 255, 255, 255, 255, 255, 255, 0, 0, 255, 0, 0, 0, 0]);
    expect([...greyOfPixels({ width: 4, height: 1, data }).values]).toEqual([0, 255, 76, 255]);
  });

  it('keeps its mean when it is scaled by a whole number', () => {
    const grey = drawing(120, 80, 5);
    const mean = ({ values }: Grey) => values.reduce((sum, one) => sum + one, 0) / values.length;
    expect(Math.abs(mean(scaledTo(grey, 60, 40)) - mean(grey))).toBeLessThan(1);
    expect(scaledTo(grey, 120, 80)).toBe(grey);
    expect(scaledTo(grey, 240, 160).values).toHaveLength(240 * 160);
  });
});

describe('a part of a picture', () => {
  it('of all of it is the picture, and beyond it is white paper', () => {
    const grey = drawing(40, 30, 5);
    const all = { x: 0, y: 0, width: 1, height: 1 };
    expect(partOf(grey, all, 40, 30)).toEqual(grey);
    const beyond = partOf(grey, { x: 1.1, y: 0, width: 0.5, height: 1 }, 10, 10);
    expect([...new Set(beyond.values)]).toEqual([255]);
    const half = partOf(grey, { x: 0.5, y: 0.5, width: 0.5, height: 0.5 }, 20, 15);
    expect(half.values[0]).toBe(grey.values[15 * 40 + 20]);
  });
});

describe('sharpness', () => {
  /** Rows of short dark strokes, as lines of writing are. */
  const page = (): Grey => {
    const [width, height] = [800, 500];
    const values = new Uint8Array(width * height).fill(235);
    for (let y = 30; y < height - 30; y++)
      for (let x = 40; x < width - 40; x++)
        if (y % 24 < 11 && (x * 7 + y) % 13 < 3 && (x * 3) % 17 < 12) values[y * width + x] = 45;
    return { width, height, values };
  };
  const blurredBy = (grey: Grey, radius: number): Grey => {
    const { width, height } = grey;
    let from = grey.values;
    for (const [dx, dy] of [
      [1, 0],
      [0, 1],
    ]) {
      const to = new Uint8Array(from.length);
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++) {
          let sum = 0;
          for (let d = -radius; d <= radius; d++) {
            const column = Math.min(width - 1, Math.max(0, x + d * dx));
            const row = Math.min(height - 1, Math.max(0, y + d * dy));
            sum += from[row * width + column];
          }
          to[y * width + x] = sum / (2 * radius + 1);
        }
      from = to;
    }
    return { width, height, values: from };
  };

  it('falls with every step of blur', () => {
    const edges = [0, 1, 2, 3, 5].map((radius) => sharpnessOf(blurredBy(page(), radius)).edge);
    for (let i = 1; i < edges.length; i++) expect(edges[i]).toBeLessThan(edges[i - 1]);
    console.log('edge by blur 0, 1, 2, 3, 5:', edges.map((edge) => edge.toFixed(2)).join(', '));
    expect(sharpnessOf(page()).sharp).toBe(true);
    expect(sharpnessOf(blurredBy(page(), 4)).sharp).toBe(false);
  });

  it('is none on an even sheet or a picture of a few pixels', () => {
    const even = { width: 60, height: 60, values: new Uint8Array(3600).fill(200) };
    expect(sharpnessOf(even)).toEqual({ edge: 0, sharp: false });
    expect(sharpnessOf({ width: 2, height: 2, values: new Uint8Array(4) }).sharp).toBe(false);
  });
});

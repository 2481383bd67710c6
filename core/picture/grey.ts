import type { PictureShare } from '../check/picture-places.ts';

/** A picture by how bright each pixel is, 0 (black) to 255, row by row. */
export interface Grey {
  readonly width: number;
  readonly height: number;
  readonly values: Uint8Array;
}

/** Red, green, blue and alpha, 0 to 255, row by row. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** How bright each pixel is on white paper (luma of Rec. ITU-R BT.601). */
export function greyOfPixels({ width, height, data }: Pixels): Grey {
  const values = new Uint8Array(width * height);
  for (let i = 0; i < values.length; i++) {
    const ink = 255 - (0.299 * data[4 * i] + 0.587 * data[4 * i + 1] + 0.114 * data[4 * i + 2]);
    values[i] = Math.round(255 - (ink * data[4 * i + 3]) / 255);
  }
  return { width, height, values };
}

/** Brought to another size: each pixel is the mean of those that lie under it. */
export function scaledTo(grey: Grey, width: number, height: number): Grey {
  if (width === grey.width && height === grey.height) return grey;
  return partOf(grey, { x: 0, y: 0, width: 1, height: 1 }, width, height);
}

/**
 * A part of a picture, brought to a size: each pixel is the mean of what lies under it, by the share of each that does.
 * What of the part lies beyond the picture is white paper.
 */
export function partOf(grey: Grey, part: PictureShare, width: number, height: number): Grey {
  const values = new Uint8Array(width * height);
  const columns = under({ from: part.x, length: part.width, pixels: grey.width, to: width });
  const rows = under({ from: part.y, length: part.height, pixels: grey.height, to: height });
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (const row of rows[y])
        for (const column of columns[x]) {
          const inside = row.at >= 0 && row.at < grey.height && column.at >= 0 && column.at < grey.width;
          const value = inside ? grey.values[row.at * grey.width + column.at] : WHITE;
          sum += value * row.share * column.share;
        }
      values[y * width + x] = Math.round(sum);
    }
  return { width, height, values };
}

const WHITE = 255;

interface Line {
  /** Which row or column of the picture, from its first; below 0 or above its last where it lies beyond. */
  readonly at: number;
  /** How much of the new row is made of it; the shares of a new row sum up to 1. */
  readonly share: number;
}

/** For each of `to` rows, which of the picture's lie under it. */
function under(given: { from: number; length: number; pixels: number; to: number }): Line[][] {
  const step = (given.length * given.pixels) / given.to;
  return Array.from({ length: given.to }, (_, row) => {
    const first = given.from * given.pixels + row * step;
    const last = first + step;
    const lines: Line[] = [];
    for (let at = Math.floor(first); at < last; at++) {
      const share = (Math.min(last, at + 1) - Math.max(first, at)) / step;
      if (share > 0) lines.push({ at, share });
    }
    return lines;
  });
}

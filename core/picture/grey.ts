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
  const values = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const [top, bottom] = under(y, grey.height, height);
    for (let x = 0; x < width; x++) {
      const [left, right] = under(x, grey.width, width);
      let sum = 0;
      for (let row = top; row < bottom; row++)
        for (let column = left; column < right; column++) sum += grey.values[row * grey.width + column];
      values[y * width + x] = Math.round(sum / ((bottom - top) * (right - left)));
    }
  }
  return { width, height, values };
}

/** Which of `from` rows lie under row `at` of `to`; at least one. */
function under(at: number, from: number, to: number): [number, number] {
  const first = Math.floor((at * from) / to);
  return [first, Math.max(first + 1, Math.floor(((at + 1) * from) / to))];
}

/** Colours by name, with the hue each is nearest to, in degrees. */
const HUES: readonly (readonly [string, number])[] = [
  ['red', 0],
  ['orange', 24],
  ['amber', 40],
  ['yellow', 56],
  ['green', 125],
  ['teal', 178],
  ['blue', 215],
  ['violet', 272],
  ['pink', 325],
  ['red', 360],
];
/** Other words for the same. */
const ALSO: Readonly<Record<string, string>> = {
  purple: 'violet',
  lilac: 'violet',
  mauve: 'violet',
  gold: 'amber',
  golden: 'amber',
  turquoise: 'teal',
  cyan: 'teal',
  magenta: 'pink',
  rose: 'pink',
  crimson: 'red',
  gray: 'grey',
};
/** Below this saturation, of 1, a colour is a grey. */
const GREY = 0.12;
const DARK = 0.12;
const LIGHT = 0.93;

interface Tone {
  readonly hue: number;
  readonly saturation: number;
  readonly lightness: number;
}

/** Hue in degrees, saturation and lightness from 0 to 1 (the HSL model of CSS Color 4). */
function toneOf(hex: string): Tone | null {
  const found = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (found === null) return null;
  const [r, g, b] = found.slice(1).map((part) => parseInt(part, 16) / 255);
  const [most, least] = [Math.max(r, g, b), Math.min(r, g, b)];
  const range = most - least;
  const lightness = (most + least) / 2;
  if (range === 0) return { hue: 0, saturation: 0, lightness };
  const saturation = range / (1 - Math.abs(2 * lightness - 1));
  const sixth =
    most === r ? ((g - b) / range + 6) % 6 : most === g ? (b - r) / range + 2 : (r - g) / range + 4;
  return { hue: sixth * 60, saturation, lightness };
}

/** The name of a colour as CSS writes it in hexadecimal; as it is given where it is no such colour. */
export function colorName(hex: string): string {
  const tone = toneOf(hex);
  if (tone === null) return ALSO[hex.toLowerCase()] ?? hex.toLowerCase();
  const { hue, saturation, lightness } = tone;
  if (lightness <= DARK) return 'black';
  if (lightness >= LIGHT && saturation < 0.5) return 'white';
  if (saturation < GREY) return 'grey';
  return HUES.reduce((nearest, one) =>
    Math.abs(one[1] - hue) < Math.abs(nearest[1] - hue) ? one : nearest,
  )[0];
}

/** So far apart, in degrees, two people may call the same colour by neighbouring names: amber and yellow. */
const NEIGHBOURS = 35;

/** Which of some names of colours a word means: that name, or its nearest neighbour; null where none is near. */
export function colorMeant(word: string, among: readonly string[]): string | null {
  const said = ALSO[word.toLowerCase()] ?? word.toLowerCase();
  if (among.includes(said)) return said;
  const hue = hueOf(said);
  if (hue === null) return null;
  const near = among
    .flatMap((name) => {
      const own = hueOf(name);
      return own === null ? [] : [{ name, apart: Math.min(Math.abs(own - hue), 360 - Math.abs(own - hue)) }];
    })
    .filter(({ apart }) => apart <= NEIGHBOURS)
    .sort((x, y) => x.apart - y.apart);
  return near.at(0)?.name ?? null;
}

function hueOf(name: string): number | null {
  return HUES.find(([one]) => one === name)?.[1] ?? null;
}

/** Words for colours, as they stand in what a marker writes. */
export const COLOR_WORDS: readonly string[] = [
  ...new Set([...HUES.map(([name]) => name), ...Object.keys(ALSO), 'grey', 'black', 'brown']),
];

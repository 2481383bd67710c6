/** Media types of pictures that a document may hold and a browser shows, by the ending of their part's name. */
const PICTURE_TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
};

/** The media type of a picture part; undefined for one that browsers don't show. */
export function pictureTypeOf(name: string): string | undefined {
  return PICTURE_TYPES[name.split('.').at(-1)?.toLowerCase() ?? ''];
}

/** What a picture's bytes begin with, and its media type. */
const BEGINNINGS: readonly (readonly [readonly number[], string])[] = [
  [[0x89, 0x50, 0x4e, 0x47], 'image/png'],
  [[0xff, 0xd8, 0xff], 'image/jpeg'],
  [[0x47, 0x49, 0x46, 0x38], 'image/gif'],
];

/** The media type of a picture without a name, by its first bytes; undefined for one that browsers don't show. */
export function pictureTypeIn(bytes: Uint8Array): string | undefined {
  return BEGINNINGS.find(([start]) => start.every((byte, i) => bytes[i] === byte))?.[1];
}

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

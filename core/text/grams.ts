/** Everywhere that a piece stands in a text, in order: overlapping ones too. Offsets are UTF-16 units. */
export type Occurrences = (piece: string) => readonly number[];

/** Short enough for a few quoted words, long enough that few places of a paper share one. */
const GRAM = 12;

/** Looks a piece up from the text's start: no preparation, time as the text's length. */
export function searching(text: string): Occurrences {
  return (piece) => {
    const found: number[] = [];
    if (piece === '') return found;
    for (let at = text.indexOf(piece); at >= 0; at = text.indexOf(piece, at + 1)) found.push(at);
    return found;
  };
}

/**
 * The same, prepared for many pieces: every twelfth place of the text is kept by the twelve units that begin there. A piece
 * of 23 units or more covers one such place wherever it stands, so that only the places of its own grams are compared;
 * shorter ones are searched for.
 */
export function indexed(text: string): Occurrences {
  const places = new Map<string, number[]>();
  for (let at = 0; at + GRAM <= text.length; at += GRAM) {
    const gram = text.slice(at, at + GRAM);
    const there = places.get(gram);
    if (there === undefined) places.set(gram, [at]);
    else there.push(at);
  }
  const search = searching(text);
  return (piece) => {
    if (piece.length < 2 * GRAM - 1) return search(piece);
    const found: number[] = [];
    for (let into = 0; into < GRAM; into++)
      for (const at of places.get(piece.slice(into, into + GRAM)) ?? [])
        if (at >= into && text.startsWith(piece, at - into)) found.push(at - into);
    return found.sort((a, b) => a - b);
  };
}

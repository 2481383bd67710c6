import { sentenceSpans } from './sentences.ts';
import type { Words } from './words.ts';

/** Where the sentences of a text begin and end (UTF-16 offsets), in order. */
export interface SentencePlaces {
  readonly from: Int32Array;
  readonly to: Int32Array;
}

const known = new WeakMap<Words, SentencePlaces>();

/** The sentences of a text that was split into words. Remembered: of a joined text only the parts that are new are read. */
export function sentencesOfWords(words: Words): SentencePlaces {
  const before = known.get(words);
  if (before !== undefined) return before;
  const made = words.parts === undefined ? read(words.text) : joined(words.parts);
  known.set(words, made);
  return made;
}

function read(text: string): SentencePlaces {
  const spans = sentenceSpans(text);
  return {
    from: Int32Array.from(spans, ({ from }) => from),
    to: Int32Array.from(spans, ({ to }) => to),
  };
}

/** A line's end ends a sentence, so that those of the parts are those of the whole. */
function joined(parts: readonly Words[]): SentencePlaces {
  const places = parts.map(sentencesOfWords);
  const count = places.reduce((sum, { from }) => sum + from.length, 0);
  const from = new Int32Array(count);
  const to = new Int32Array(count);
  let at = 0;
  let shift = 0;
  for (const [index, part] of places.entries()) {
    for (let s = 0; s < part.from.length; s++) {
      from[at + s] = part.from[s] + shift;
      to[at + s] = part.to[s] + shift;
    }
    at += part.from.length;
    shift += parts[index].text.length + 1;
  }
  return { from, to };
}

import { wordKeysOf } from '../text/words.ts';

/** A file that came in, as far as it tells what it belongs to. */
export interface Incoming {
  readonly name: string;
  /** Its own title or first heading; "" where it has none. */
  readonly title: string;
  readonly text: string;
}

/** An assignment that it may belong to: its title, names of files there, and the texts of papers there. */
export interface Candidate {
  readonly id: string;
  readonly names: readonly string[];
  readonly texts: readonly string[];
}

/** An assignment that a file may belong to, how alike they are, and in what. */
export interface Likely {
  readonly id: string;
  /** 0 to 1. */
  readonly likeness: number;
  readonly because: 'text' | 'name';
}

/** Runs of so many words tell two texts apart from mere common words. */
const RUN = 5;
/** So many runs of a text, spread over it, are looked for in the other. */
const RUNS_ASKED = 300;
/** Less than this is no reason to propose anything. */
const LEAST = 0.3;
/** Words of names shorter than this ("of", "the", "v2") say nothing. */
const TELLING_LETTERS = 4;
/** A likeness of names weighs less than the same one of texts. */
const NAME_WEIGHT = 0.8;

function tellingWords(name: string): Set<string> {
  const plain = name
    .replace(/\.[a-z0-9]{2,5}$/i, '')
    .toLowerCase()
    .normalize('NFKC');
  return new Set(plain.split(/[^\p{L}\p{N}]+/u).filter((word) => word.length >= TELLING_LETTERS));
}

/** The share of the telling words of the shorter name that stand in the other; at least two have to. */
function likenessOfNames(x: string, y: string): number {
  const [a, b] = [tellingWords(x), tellingWords(y)];
  const both = [...a].filter((word) => b.has(word)).length;
  return both < 2 ? 0 : both / Math.min(a.size, b.size);
}

/** The runs of five words of a text; with `most`, about so many of them, spread over it. */
function runsOf(text: string, most = Infinity): string[] {
  const list = wordKeysOf(text);
  const count = Math.max(0, list.length - RUN + 1);
  const step = Math.max(1, Math.floor(count / most));
  return Array.from({ length: Math.ceil(count / step) }, (_, i) =>
    list.slice(i * step, i * step + RUN).join(' '),
  );
}

/**
 * The assignment that a file most likely belongs to: by the share of its runs of five words that stand in a paper of the
 * assignment, else by name and title. null where nothing speaks for any. Equal ones: the first.
 */
export function likelyAssignment(file: Incoming, candidates: readonly Candidate[]): Likely | null {
  if (candidates.length === 0) return null;
  const asked = runsOf(file.text, RUNS_ASKED);
  let best: Likely | null = null;
  for (const { id, names, texts } of candidates) {
    const byText = Math.max(
      0,
      ...texts.map((text) => {
        const there = new Set(runsOf(text));
        return asked.length === 0 ? 0 : asked.filter((run) => there.has(run)).length / asked.length;
      }),
    );
    const byName =
      NAME_WEIGHT *
      Math.max(
        0,
        ...names.flatMap((name) => [likenessOfNames(file.name, name), likenessOfNames(file.title, name)]),
      );
    const likeness = Math.max(byText, byName);
    if (likeness >= LEAST && likeness > (best?.likeness ?? 0))
      best = { id, likeness, because: byText >= byName ? 'text' : 'name' };
  }
  return best;
}

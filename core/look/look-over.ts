import { lookOverCitations } from '../citations/findings.ts';
import { referenceListOf } from '../citations/references.ts';
import type { CitingStyle } from '../model/look.ts';
import type { Paper } from '../paper/paper.ts';
import { lineAt, lookKinds, type LookLine } from './line.ts';
import { slipsIn, type Slip } from './mechanics.ts';
import { captionsOf, numberedLines } from './numbered.ts';
import type { Counts } from './requirement.ts';
import { isKnown, misspelt, spelt } from './spelling.ts';
import type { Speller } from './speller.ts';
import { tableLines } from './tables.ts';
import { otherSides } from './two-spellings.ts';

/** What a text was looked over for. */
export interface LookedOver {
  /** In the order of the text. */
  readonly lines: readonly LookLine[];
  /** The text is in a language that there is no dictionary for: spelling was not looked at. */
  readonly otherLanguage: boolean;
  /** What requirements are held against. */
  readonly counts: Counts;
}

const rank = new Map(lookKinds.map((kind, i) => [kind, i]));

/** Lines by their weight, those of a kind in the order of the text. */
export function byWeight(lines: readonly LookLine[]): LookLine[] {
  return [...lines].sort(
    (x, y) => (rank.get(x.kind) ?? 0) - (rank.get(y.kind) ?? 0) || x.place.from - y.place.from,
  );
}

/**
 * Looks drafts over again and again: what can be told of a paragraph by itself is told anew only for paragraphs that changed,
 * and a word is looked up once.
 */
export class LastLook {
  private slips = new Map<string, readonly Slip[]>();
  private words = new Map<string, ReturnType<typeof spelt>>();
  private ownWords: ReadonlySet<string> = new Set();
  private readonly known = new Map<string, boolean>();
  private readonly suggested = new Map<string, readonly string[]>();

  /** @param speller null: spelling is not looked at */
  constructor(private readonly speller: Speller | null) {}

  private knows(word: string): boolean {
    const before = this.known.get(word);
    if (before !== undefined) return before;
    const found = this.speller === null || this.ownWords.has(word) || isKnown(word, this.speller);
    this.known.set(word, found);
    return found;
  }

  /** Words that are the student's own; those that were before and are not among them any more are none. */
  own(words: readonly string[]): void {
    const next = new Set(words);
    if (next.size === this.ownWords.size && words.every((word) => this.ownWords.has(word))) return;
    this.ownWords = next;
    this.known.clear();
  }

  /** @param style how the paper cites; null: as it shows itself */
  lookOver(paper: Paper, style: CitingStyle | null = null): LookedOver {
    const { text, blocks, starts } = paper;
    const list = referenceListOf(paper);
    const isListed = (at: number) => list !== null && at >= list.from && at < list.to;
    const slips = new Map<string, readonly Slip[]>();
    const words = new Map<string, ReturnType<typeof spelt>>();
    const lines: LookLine[] = [];
    const spelled: ReturnType<typeof spelt> = [];
    blocks.forEach((block, i) => {
      if (isListed(starts[i])) return;
      const isContinued = /^["“«„]/u.test(blocks.at(i + 1)?.text ?? '');
      const key = `${isContinued ? 1 : 0}${block.text}`;
      const own = this.slips.get(key) ?? slipsIn(block.text, isContinued);
      slips.set(key, own);
      for (const { kind, from, to } of own)
        lines.push(lineAt(kind, text, { from: starts[i] + from, to: starts[i] + to }));
      const ownWords = this.words.get(block.text) ?? spelt(block.text);
      words.set(block.text, ownWords);
      for (const one of ownWords)
        spelled.push({ ...one, from: starts[i] + one.from, to: starts[i] + one.to });
    });
    this.slips = slips;
    this.words = words;
    const isKnownWord = (word: string) => this.knows(word);
    const { unknown, otherLanguage } = misspelt(spelled, isKnownWord, (word) => this.suggests(word));
    for (const [word, [first, ...also]] of unknown)
      lines.push({ ...lineAt('spelling', text, first, word), also });
    if (!otherLanguage)
      for (const one of otherSides(spelled, isKnownWord))
        lines.push(lineAt('two spellings', text, one, one.other));
    const { findings } = lookOverCitations(paper, style);
    lines.push(...findings.map(({ fault, place, beside }) => lineAt(fault, text, place, beside)));
    lines.push(...numberedLines(paper), ...tableLines(paper));
    const captions = captionsOf(paper);
    const counts: Counts = {
      figures: captions.filter(({ kind }) => kind === 'figure').length,
      tables: captions.filter(({ kind }) => kind === 'table').length,
      uncited: findings.filter(({ fault }) => fault === 'quotation without citation').length,
    };
    lines.sort((x, y) => x.place.from - y.place.from || x.place.to - y.place.to);
    return { lines, otherLanguage, counts };
  }

  /** What may be meant by a word that no dictionary has. */
  suggests(word: string): readonly string[] {
    const before = this.suggested.get(word);
    if (before !== undefined) return before;
    const found = this.speller?.suggests(word) ?? [];
    this.suggested.set(word, found);
    return found;
  }
}

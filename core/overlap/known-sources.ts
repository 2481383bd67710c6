import type { Paper } from '../paper/paper.ts';
import { hashedWordsOf, type Words } from '../text/words.ts';
import { overlapOf, type Overlap } from './compare-sources.ts';
import { findMatches, findMatchesAgain, type WordMatch } from './find-matches.ts';
import { sidesOf, type Sides } from './side-by-side.ts';
import { indexSources, type SourceIndex } from './source-index.ts';
import type { SourceWork } from './source-work.ts';

/** The fewest words of a match that is looked for: fewer are counted by no setting. */
const LEAST_WORDS = 8;
/** The marked version and the draft are compared in turn, with other earlier attempts each. */
const MOST_INDEXES = 2;

/** A source as a draft is compared with it; its matches name it by its place in the list. */
export interface ComparedSource {
  /** What its text is known by. */
  readonly id: string;
  readonly work: SourceWork;
  /** An earlier attempt at the same assignment: counted as own work, and no match of it calls for anything. */
  readonly isAttempt: boolean;
}

interface Compared {
  readonly sources: string;
  readonly draft: Int32Array;
  readonly matches: readonly WordMatch[];
}

/** Sources with their words, kept ready, and what drafts were compared with them last. */
export class KnownSources {
  private readonly known = new Map<string, Words>();
  private readonly indexes = new Map<string, SourceIndex>();
  private readonly last = new Map<string, Compared>();

  knows(id: string): boolean {
    return this.known.has(id);
  }

  add(id: string, text: string): void {
    this.known.set(id, hashedWordsOf(text));
  }

  private wordsOf(id: string): Words {
    const words = this.known.get(id);
    if (words === undefined) throw new Error(`the source ${id} is not known`);
    return words;
  }

  private indexOf(sources: readonly ComparedSource[]): { sources: string; index: SourceIndex } {
    const key = sources.map(({ id }) => id).join();
    const kept = this.indexes.get(key);
    if (kept !== undefined) return { sources: key, index: kept };
    const index = indexSources(sources.map(({ id }) => this.wordsOf(id).ids));
    const [oldest] = this.indexes.keys();
    if (this.indexes.size >= MOST_INDEXES) this.indexes.delete(oldest);
    this.indexes.set(key, index);
    return { sources: key, index };
  }

  /**
   * What a draft has in common with sources, all of them known. Of a draft that was compared with the same ones before, only
   * what changed is looked up.
   * @param draftKey what the draft is known by while it changes
   */
  compare(draftKey: string, paper: Paper, sources: readonly ComparedSource[]): Overlap {
    const words = hashedWordsOf(paper.text);
    const { sources: key, index } = this.indexOf(sources);
    const before = this.last.get(draftKey);
    const matches =
      before?.sources === key
        ? findMatchesAgain(index, before, words.ids, LEAST_WORDS)
        : findMatches(index, words.ids, LEAST_WORDS);
    this.last.set(draftKey, { sources: key, draft: words.ids, matches });
    return overlapOf(
      paper,
      words,
      matches,
      sources.map(({ work }) => work),
      (source) => this.wordsOf(sources[source].id),
    );
  }

  /** Both sides of a match. @param draft the draft's text in it */
  sides(id: string, draft: string, place: { readonly from: number; readonly to: number }): Sides {
    return sidesOf(draft, this.wordsOf(id).text.slice(place.from, place.to));
  }
}

import nspell from 'nspell';
import type { Speller } from '#core/look/speller.ts';

/** A dictionary as Hunspell keeps it: its affixes and its words. */
export interface HunspellFiles {
  readonly affixes: string;
  readonly words: string;
}

/** What knows the words of several dictionaries; suggestions are of the first that has some. */
export function spellerOf(files: readonly HunspellFiles[]): Speller {
  const dictionaries = files.map(({ affixes, words }) => nspell(affixes, words));
  return {
    knows: (word) => dictionaries.some((one) => one.correct(word)),
    suggests: (word) => dictionaries.map((one) => one.suggest(word)).find((found) => found.length > 0) ?? [],
  };
}

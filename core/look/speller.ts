/** What knows how words are spelt; two spellings of English are each a dictionary of its own. */
export interface Speller {
  /** Whether a word stands in a dictionary, in either spelling, or among the student's own words. */
  knows(word: string): boolean;
  /** What may be meant, the likeliest first. */
  suggests(word: string): string[];
}

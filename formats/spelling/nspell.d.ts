/** What is used of a package that comes without types. */
declare module 'nspell' {
  interface Dictionary {
    correct(word: string): boolean;
    suggest(word: string): string[];
  }
  export default function nspell(affixes: string, words: string): Dictionary;
}

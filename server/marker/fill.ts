/** Words of the rules with the figures put in that they name, as in {met}. */
export function fill(words: string, values: Readonly<Record<string, number>>): string {
  return words.replace(/\{(\w+)\}/g, (_, name: string) => String(values[name]));
}

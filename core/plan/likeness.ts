/** Texts as alike as this, 0 to 1, are about one theme. Taken high: a wrong proposal costs trust. */
export const THEME_LIKENESS = 0.6;
/** Fewer words in common than this tell no theme: "explain" and "well" stand in praise and blame alike. */
const SHARED_WORDS = 3;

/**
 * How alike texts are, by the stems (text/stems.ts) that they share, rare ones weighing more (Ochiai's coefficient of weighted sets). 0 to 1;
 * 0 too where they share too few words to tell a theme.
 */
export function likenessOf(stems: readonly ReadonlySet<string>[]): (x: number, y: number) => number {
  const count = new Map<string, number>();
  for (const set of stems) for (const stem of set) count.set(stem, (count.get(stem) ?? 0) + 1);
  const weight = (stem: string) => Math.log(1 + stems.length / (count.get(stem) ?? 1));
  const sum = (of: Iterable<string>) => [...of].reduce((all, stem) => all + weight(stem), 0);
  const norms = stems.map((set) => Math.sqrt(sum(set)));
  return (x, y) => {
    const shared = [...stems[x]].filter((stem) => stems[y].has(stem));
    return shared.length < SHARED_WORDS ? 0 : sum(shared) / (norms[x] * norms[y]);
  };
}

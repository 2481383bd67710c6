/** Runs each work so many times, in turn, after once to warm up; gives the median of each in milliseconds. */
export function inTurn(runs: number, works: readonly (() => unknown)[]): number[] {
  const times = works.map(() => [] as number[]);
  for (let run = -1; run < runs; run++)
    works.forEach((work, i) => {
      const startedAt = performance.now();
      work();
      if (run >= 0) times[i].push(performance.now() - startedAt);
    });
  return times.map((of) => of.toSorted((x, y) => x - y)[Math.floor(of.length / 2)]);
}

export function theRatio(own: number, peer: number): string {
  return `${(own / peer).toFixed(2)} ×`;
}

/** A line of a table: a name, and figures with their names. */
export function row(name: string, figures: Readonly<Record<string, number | string>>): string {
  const told = Object.entries(figures).map(([what, value]) =>
    typeof value === 'number' ? `${what} ${value.toFixed(1)} ms` : `${what} ${value}`,
  );
  return `    ${name.padEnd(46)}${told.join('   ')}`;
}

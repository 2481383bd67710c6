/** Something that somebody wrote. */
export interface Written {
  readonly by: string;
  readonly text: string;
}

/** Runs of so many words are compared. */
const RUN = 4;
/** Two say nearly the same where more than this share of the shorter one's runs stand in the other. */
const SHARED = 0.5;

/**
 * Pairs of texts by different hands that say nearly the same: the same words, or more than half of their runs of four words.
 * Marks and small and large letters don't matter.
 */
export function nearDuplicates(written: readonly Written[]): (readonly [string, string])[] {
  const pairs: (readonly [string, string])[] = [];
  const whole = new Map<string, Written>();
  const byRun = new Map<string, number[]>();
  const runsOf: Set<string>[] = [];
  written.forEach((one, index) => {
    const words = one.text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
    const same = words.length === 0 ? undefined : whole.get(words.join(' '));
    if (same !== undefined && same.by !== one.by) pairs.push([same.text, one.text]);
    else if (words.length > 0) whole.set(words.join(' '), one);
    const runs = new Set(words.slice(RUN - 1).map((_, at) => words.slice(at, at + RUN).join(' ')));
    runsOf.push(runs);
    const shared = new Map<number, number>();
    for (const run of runs) {
      const holders = byRun.get(run) ?? [];
      for (const other of holders) shared.set(other, (shared.get(other) ?? 0) + 1);
      byRun.set(run, [...holders, index]);
    }
    for (const [other, count] of shared)
      if (
        written[other].by !== one.by &&
        written[other] !== same &&
        count > SHARED * Math.min(runs.size, runsOf[other].size)
      )
        pairs.push([written[other].text, one.text]);
  });
  return pairs;
}

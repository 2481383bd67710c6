/** Stretches of time, in ms since 1970: from inclusive, to exclusive. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** The same times in order, with none twice. */
export function merged(spans: readonly Span[]): Span[] {
  const out: { from: number; to: number }[] = [];
  for (const { from, to } of spans.filter((one) => one.to > one.from).toSorted((x, y) => x.from - y.from)) {
    const last = out.at(-1);
    if (last !== undefined && from <= last.to) last.to = Math.max(last.to, to);
    else out.push({ from, to });
  }
  return out;
}

/** What of some times is in none of others; in order. */
export function without(spans: readonly Span[], taken: readonly Span[]): Span[] {
  const holes = merged(taken);
  const out: Span[] = [];
  let first = 0;
  for (const span of merged(spans)) {
    let { from } = span;
    while (first < holes.length && holes[first].to <= from) first++;
    for (let at = first; at < holes.length && holes[at].from < span.to; at++) {
      if (holes[at].from > from) out.push({ from, to: holes[at].from });
      from = Math.max(from, holes[at].to);
    }
    if (from < span.to) out.push({ from, to: span.to });
  }
  return out;
}

/** How long times are together, in whole minutes. */
export function minutesIn(spans: readonly Span[]): number {
  return Math.floor(merged(spans).reduce((sum, { from, to }) => sum + (to - from), 0) / 60_000);
}

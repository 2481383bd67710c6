import type { Span } from '../text/span.ts';
import { countChanges, type Difference } from './difference.ts';

/** One change from the older text to the newer one, in UTF-16 units of each; a gap where one has nothing there. */
interface Change {
  readonly kind: 'added' | 'removed' | 'replaced' | 'moved';
  readonly old: Span;
  readonly new: Span;
}

/** Two texts in figures, all in words, and change by change in the order of the newer text. */
export interface Changes {
  readonly kept: number;
  readonly added: number;
  readonly removed: number;
  readonly moved: number;
  readonly changes: readonly Change[];
}

/** What changed between two texts, as other programs can take it: kept + moved + removed are the words of the older one. */
export function changesIn(difference: Difference): Changes {
  const { a, b, stretches, moves } = difference;
  const away = new Uint8Array(a.ids.length);
  const here = new Uint8Array(b.ids.length);
  for (const { pairs } of moves)
    for (const [i, j] of pairs) {
      away[i] = 1;
      here[j] = 1;
    }
  const spanA = (from: number, to: number) => charsOf(a, from, to);
  const spanB = (from: number, to: number) => charsOf(b, from, to);
  const changes: Change[] = moves.map(({ fromA, toA, fromB, toB }) => ({
    kind: 'moved',
    old: spanA(fromA, toA),
    new: spanB(fromB, toB),
  }));
  for (const { kind, fromA, toA, fromB, toB } of stretches) {
    if (kind !== 'changed') continue;
    const gone = runs(away, fromA, toA);
    const come = runs(here, fromB, toB);
    if (gone.length === 1 && come.length === 1)
      changes.push({ kind: 'replaced', old: spanA(...gone[0]), new: spanB(...come[0]) });
    else {
      for (const run of gone) changes.push({ kind: 'removed', old: spanA(...run), new: spanB(fromB, fromB) });
      for (const run of come) changes.push({ kind: 'added', old: spanA(fromA, fromA), new: spanB(...run) });
    }
  }
  const { kept, added, removed, moved } = countChanges(difference);
  changes.sort((x, y) => x.new.from - y.new.from || x.old.from - y.old.from);
  return { kept, added, removed, moved, changes };
}

/** Words of a range that are not marked, in runs. */
function runs(marked: Uint8Array, from: number, to: number): [number, number][] {
  const found: [number, number][] = [];
  for (let at = from; at < to; at++) {
    if (marked[at] === 1) continue;
    const last = found.at(-1);
    if (last?.[1] === at) last[1] = at + 1;
    else found.push([at, at + 1]);
  }
  return found;
}

/** Where words stand; between no words the gap before the first. */
function charsOf({ from: starts, to: ends, text }: Difference['a'], from: number, to: number): Span {
  if (to > from) return { from: starts[from], to: ends[to - 1] };
  const gap = from > 0 ? ends[from - 1] : from < starts.length ? starts[from] : text.length;
  return { from: gap, to: gap };
}

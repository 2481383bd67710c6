import { useEffect, useMemo, useState } from 'react';
import type { Remark } from '#core/model/remark.ts';
import type { HowSet } from '#core/overlap/how-set.ts';
import { comparer } from '../../workers/overlap-client.ts';
import { Superseded } from '../../workers/worker-client.ts';
import type { LiveOutcomes } from './outcomes.ts';

const NOTHING: ReadonlyMap<string, HowSet> = new Map();

/** How the words of each match are set in the draft, as one types; nothing of those that are gone. */
export function useHowSet(
  live: LiveOutcomes | null,
  remarks: readonly Remark[],
): ReadonlyMap<string, HowSet> {
  const [known, setKnown] = useState(NOTHING);
  const matches = useMemo(() => remarks.filter(({ channel }) => channel === 'overlap'), [remarks]);
  useEffect(() => {
    if (live === null) return;
    const here = matches.flatMap(({ id }) => {
      const outcome = live.byRemark.get(id);
      return outcome === undefined || outcome.kind === 'gone' ? [] : [{ id, place: outcome.place }];
    });
    if (here.length === 0) return;
    let over = false;
    const places = here.map(({ place }) => place);
    comparer
      .ask((worker) => worker.howSet(live.paper, places), { latestOf: 'how set' })
      .then((found) => {
        if (!over) setKnown(new Map(found.map((how, i) => [here[i].id, how])));
      })
      .catch((error: unknown) => {
        // The newer text is on its way.
        if (!(error instanceof Superseded)) throw error;
      });
    return () => {
      over = true;
    };
  }, [live, matches]);
  return known;
}

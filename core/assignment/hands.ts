import { proposedKeys, signsIn, type ProposedKey } from '../key/learnt.ts';
import type { Remark } from '../model/remark.ts';
import type { MarkKey } from '../model/work.ts';
import type { Understood } from '../saying/saying-of.ts';
import { asKnown, Proposals } from './proposals.ts';
import type { AssignmentRecordMaps, AssignmentRecords } from './records.ts';

/** Somebody who wrote remarks, with what the marks of that hand mean and may mean, over all assignments. */
export interface Hand {
  readonly author: string;
  readonly remarks: readonly Remark[];
  readonly key: readonly MarkKey[];
  readonly proposed: readonly ProposedKey[];
}

/** Everybody whose marks are of more than one sort, or in a key; whose key has most to confirm first. */
export function handsIn(
  records: AssignmentRecords,
  { remarks, judgements, people }: Pick<AssignmentRecordMaps, 'remarks' | 'judgements' | 'people'>,
): Hand[] {
  const personOf = (name: string) => people.get(name) ?? null;
  const known = [...remarks.values()].map((remark) => asKnown(remark, personOf));
  const byAuthor = new Map<string, Remark[]>();
  for (const remark of known) {
    if (remark.author.role === 'machine' || remark.channel === 'overlap' || remark.withdrawn) continue;
    const own = byAuthor.get(remark.author.name);
    if (own === undefined) byAuthor.set(remark.author.name, [remark]);
    else own.push(remark);
  }
  const proposals = new Proposals(records);
  const understood: Understood = {
    judgements,
    sayings: new Map(
      known.flatMap((remark) => {
        const saying = proposals.of(remark);
        return saying === null ? [] : [[remark.id, saying] as const];
      }),
    ),
  };
  return [...byAuthor]
    .map(([author, own]) => {
      const key = records.keyOf(author);
      return { author, remarks: own, key, proposed: proposedKeys(own, understood, key) };
    })
    .filter(({ key, proposed, remarks: own }) => key.length + proposed.length > 0 || signsIn(own).length > 1)
    .sort((x, y) => y.key.length + y.proposed.length - x.key.length - x.proposed.length);
}

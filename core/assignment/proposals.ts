import { asKeyed } from '../key/keyed.ts';
import { tellsKey } from '../key/statements.ts';
import type { Remark } from '../model/remark.ts';
import { stanceOfMatch } from '../saying/match.ts';
import type { Judgement, Person } from '../model/work.ts';
import { sayingKey, type Understood } from '../saying/saying-of.ts';
import { asStance, WEIGHTIEST, type Saying } from '../saying/saying.ts';
import { asTaught, taughtBy, type Correction, type Taught } from '../saying/taught.ts';
import type { AssignmentRecords } from './records.ts';

/** A remark with its author as the student knows them: one person under one name, in the right role. */
export function asKnown(remark: Remark, personOf: (name: string) => Person | null): Remark {
  const known = personOf(remark.author.name);
  if (known === null) return remark;
  const name = known.sameAs ?? remark.author.name;
  const role = personOf(name)?.role ?? known.role ?? remark.author.role;
  return { ...remark, author: { name, role } };
}

/** What remarks say as it is proposed: by their words, by what the student put right for their author, and by that hand's key. */
export class Proposals {
  private readonly taughtByAuthor = new Map<string, Taught>();

  constructor(private readonly records: AssignmentRecords) {}

  /** @param remark with its author as the student knows them; null while nothing is worked out about it */
  of(remark: Remark): Saying | null {
    const saying = this.records.sayingOf(sayingKey(remark));
    if (saying === null) return null;
    if (remark.channel === 'overlap') return asStance(saying, remark.text, stanceOfMatch(remark));
    if (tellsKey(remark.text)) return asStance(saying, remark.text, 'note');
    const { name } = remark.author;
    const taught = asTaught(saying, remark.text, this.taught(name));
    return asKeyed(taught, remark, this.records.keyOf(name));
  }

  private taught(author: string): Taught {
    const known = this.taughtByAuthor.get(author);
    if (known !== undefined) return known;
    const corrected = this.records.correctionsOf(author);
    const taught = taughtBy(corrected.flatMap((judgement) => correctionsIn(this.records, judgement)));
    this.taughtByAuthor.set(author, taught);
    return taught;
  }
}

/** What is known of one remark by itself. */
export function understoodAlone(records: AssignmentRecords, remark: Remark): Understood {
  const judgement = records.find('judgements', remark.id);
  const saying = new Proposals(records).of(remark);
  return {
    judgements: new Map(judgement === null ? [] : [[remark.id, judgement]]),
    sayings: new Map(saying === null ? [] : [[remark.id, saying]]),
  };
}

/** What was put right of a remark: the whole of it, and parts of it. */
function correctionsIn(records: AssignmentRecords, { remarkId, stance, parts }: Judgement): Correction[] {
  const remark = records.find('remarks', remarkId);
  const saying = remark === null ? null : records.sayingOf(sayingKey(remark));
  const ofParts = parts.flatMap(({ quote, said, stance: own }) =>
    own === null || own === said ? [] : [{ text: quote, proposed: said, stance: own }],
  );
  if (remark === null || saying === null || stance === null || stance === saying.stance) return ofParts;
  const weightiest = WEIGHTIEST.flatMap((one) => saying.parts.filter((part) => part.stance === one)).at(0);
  const text = weightiest === undefined ? remark.text : remark.text.slice(weightiest.from, weightiest.to);
  return [...ofParts, { text, proposed: saying.stance, stance }];
}

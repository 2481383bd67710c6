import type { Rubric } from '../model/facts.ts';
import { inReadingOrder, type Remark } from '../model/remark.ts';
import type { MarkKey, Reading } from '../model/work.ts';
import type { Understood } from '../saying/saying-of.ts';
import { doublesOf } from '../tally/doubled.ts';
import type { PaperFile } from './papers.ts';
import { asKnown, Proposals } from './proposals.ts';
import type { AssignmentRecords } from './records.ts';

/** The remarks of an assignment, and what was done about each. */
export interface RemarksOf extends Understood {
  /** Each remark once, in reading order; doubles and what was withdrawn are left out. */
  readonly remarks: readonly Remark[];
  /** The same words said elsewhere, by the remark that counts. */
  readonly doubles: ReadonlyMap<string, readonly Remark[]>;
  readonly withdrawn: readonly Remark[];
  readonly numberByRemark: ReadonlyMap<string, number>;
  readonly readings: ReadonlyMap<string, Reading>;
  /** What marks of these hands mean, as far as it is confirmed. */
  readonly markKeys: readonly MarkKey[];
}

/** The remarks of an assignment, paper by paper, criterion comments in the order of the rubric. */
export function remarksOf(
  records: AssignmentRecords,
  id: string,
  papers: readonly PaperFile[],
  rubric: Rubric | null,
): RemarksOf {
  const personOf = (name: string) => records.find('people', name);
  // In reading order, so that of the same words in two papers those in the main one count.
  const known = byPaper(
    inReadingOrder(records.of('remarks', id).map((remark) => asKnown(remark, personOf))),
    papers,
  );
  const judgements = byRemark(known, (key) => records.find('judgements', key));
  const doubles = doublesOf(known, judgements);
  const doubled = new Set([...doubles.values()].flat().map((remark) => remark.id as string));
  const remarks = byCriterion(
    known.filter((remark) => !remark.withdrawn && !doubled.has(remark.id)),
    rubric,
  );
  const proposals = new Proposals(records);
  return {
    remarks,
    doubles,
    withdrawn: known.filter((one) => one.withdrawn),
    numberByRemark: new Map(remarks.map((remark, index) => [remark.id, index + 1])),
    readings: byRemark(known, (key) => records.find('readings', key)),
    judgements,
    markKeys: [...new Set(known.map(({ author }) => author.name))].flatMap((name) => records.keyOf(name)),
    sayings: new Map(
      known.flatMap((remark) => {
        const saying = proposals.of(remark);
        return saying === null ? [] : [[remark.id, saying] as const];
      }),
    ),
  };
}

/** Criterion comments in the order of the rubric; the others stay where they are. */
function byCriterion(remarks: readonly Remark[], rubric: Rubric | null): Remark[] {
  const place = (remark: Remark) => rubric?.criteria.findIndex((c) => c.id === remark.criterionId) ?? 0;
  return remarks.toSorted((x, y) =>
    x.channel === 'criterion' && y.channel === 'criterion' ? place(x) - place(y) : 0,
  );
}

/** Remarks paper by paper, the main one first; then those on anything else, then those about no file. */
function byPaper(remarks: readonly Remark[], papers: readonly PaperFile[]): Remark[] {
  const rank = ({ paperHash }: Remark) => {
    const at = papers.findIndex(({ hash }) => hash === paperHash);
    return at >= 0 ? at : papers.length + Number(paperHash === null);
  };
  return remarks.toSorted((x, y) => rank(x) - rank(y));
}

/** What is kept for each of some remarks. */
function byRemark<Kept>(
  remarks: readonly Remark[],
  find: (key: string) => Kept | null,
): ReadonlyMap<string, Kept> {
  return new Map(
    remarks.flatMap(({ id }) => {
      const kept = find(id);
      return kept === null ? [] : [[id, kept] as const];
    }),
  );
}

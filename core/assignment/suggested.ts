import { meaningOfShort } from '../key/statements.ts';
import type { Rubric } from '../model/facts.ts';
import type { CriterionId } from '../model/ids.ts';
import type { Remark } from '../model/remark.ts';
import type { Judgement } from '../model/work.ts';
import { criterionOf } from '../rubric/link.ts';
import { criterionSuggester, type LinkedRemark, type SaidAbout, type Suggestion } from '../rubric/suggest.ts';
import { partsOf } from '../saying/remark-parts.ts';
import { stanceOf, type Understood } from '../saying/saying-of.ts';
import type { AssignmentRecords } from './records.ts';
import { rubricOf } from './rubric-of.ts';

/** Which criteria remarks may be about, learnt from what was linked by hand before, in all assignments. */

type Suggester = ReturnType<typeof criterionSuggester>;

/** By rubric, with what each learnt from. */
const suggesters = new WeakMap<
  Rubric,
  { readonly from: readonly Judgement[]; readonly suggest: Suggester }
>();

function suggesterFor(records: AssignmentRecords, rubric: Rubric): Suggester {
  const from = records.linkedByHand();
  const known = suggesters.get(rubric);
  if (known?.from.length === from.length && known.from.every((one, i) => one === from[i]))
    return known.suggest;
  const suggest = criterionSuggester(rubric, linkedByHand(records, from));
  suggesters.set(rubric, { from, suggest });
  return suggest;
}

function linkedByHand(records: AssignmentRecords, judgements: readonly Judgement[]): LinkedRemark[] {
  return judgements.flatMap(({ remarkId, assignmentId, link }) => {
    const remark = records.find('remarks', remarkId);
    const assignment = records.find('assignments', assignmentId);
    if (link?.criterionId == null || remark === null || assignment === null) return [];
    const criterion = rubricOf(records, assignment)?.criteria.find(({ id }) => id === link.criterionId);
    return criterion === undefined ? [] : [{ criterionTitle: criterion.title, remark }];
  });
}

/** Whether a remark hangs on no criterion and is about the work itself. */
function isUnlinked(remark: Remark, judgement: Judgement | undefined): boolean {
  return (
    (judgement?.link ?? null) === null &&
    criterionOf(remark, judgement) === null &&
    remark.channel !== 'overall' &&
    remark.channel !== 'overlap'
  );
}

/**
 * The criterion that each of some remarks may be about; those are left out that have one, or that none fits well enough.
 * @param among remarks in which a hand may say what its abbreviations mean
 */
export function suggestedCriteria(
  records: AssignmentRecords,
  rubric: Rubric | null,
  remarks: readonly Remark[],
  understood: Understood,
  among: readonly Remark[] = remarks,
): ReadonlyMap<string, Suggestion> {
  if (rubric === null || rubric.criteria.length === 0) return new Map();
  const suggest = suggesterFor(records, rubric);
  return new Map(
    remarks.flatMap((remark) => {
      if (!isUnlinked(remark, understood.judgements.get(remark.id))) return [];
      const [first, ...rest] = saidIn(remark, understood);
      const meaning = meaningOfShort(remark, records.keyOf(remark.author.name), among);
      const begun = meaning === null ? first : { ...first, text: `${first.text}\n${meaning}` };
      const suggestion = suggest(remark, [begun, ...rest]);
      return suggestion === null ? [] : [[remark.id, suggestion] as const];
    }),
  );
}

/** What a remark says, part by part where it says several things. */
function saidIn(remark: Remark, understood: Understood): [SaidAbout, ...SaidAbout[]] {
  const [first, ...rest] = partsOf(remark, understood).map(({ from, to, stance }) => ({
    text: remark.text.slice(from, to),
    stance,
  })) as [SaidAbout?, ...SaidAbout[]];
  return [first ?? { text: remark.text, stance: stanceOf(remark.id, understood) }, ...rest];
}

/** The same for the arithmetic of losses. */
export function proposedLinks(suggested: ReadonlyMap<string, Suggestion>): ReadonlyMap<string, CriterionId> {
  return new Map([...suggested].map(([id, { criterionId }]) => [id, criterionId]));
}

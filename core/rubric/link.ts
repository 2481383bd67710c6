import type { CriterionId } from '../model/ids.ts';
import type { Remark } from '../model/remark.ts';
import type { Judgement } from '../model/work.ts';

/** The criterion that a remark counts towards: as the student says, else as its source does; null for none. */
export function criterionOf(remark: Remark, judgement: Judgement | undefined): CriterionId | null {
  const link = judgement?.link ?? null;
  return link === null ? remark.criterionId : link.criterionId;
}

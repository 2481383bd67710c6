import type { Remark } from '../model/remark.ts';
import { stanceOf, type Understood } from '../saying/saying-of.ts';

/** Whether a remark asks the student something that they have not answered, declined or acted on. */
export function asksTheStudent(understood: Understood, remark: Remark): boolean {
  if (remark.withdrawn || stanceOf(remark.id, understood) !== 'question') return false;
  const judgement = understood.judgements.get(remark.id);
  if (judgement === undefined) return true;
  const isAnswered = judgement.reply !== '' || judgement.parts.some(({ reply }) => reply !== '');
  return !isAnswered && judgement.decision !== 'decline' && judgement.decision !== 'keep';
}

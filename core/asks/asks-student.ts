import type { Remark } from '../model/remark.ts';
import { stanceOf, type Understood } from '../saying/saying-of.ts';

/** Whether somebody asks the student something in words that they have not answered, kept or declined. */
export function asksTheStudent(understood: Understood, remark: Remark): boolean {
  const isAsked = remark.text !== '' && remark.author.role !== 'machine' && remark.channel !== 'overlap';
  if (!isAsked || remark.withdrawn || stanceOf(remark.id, understood) !== 'question') return false;
  const judgement = understood.judgements.get(remark.id);
  if (judgement === undefined) return true;
  const isAnswered = judgement.reply !== '' || judgement.parts.some(({ reply }) => reply !== '');
  return !isAnswered && judgement.decision !== 'decline' && judgement.decision !== 'keep';
}

import { useEffect, useLayoutEffect, useRef } from 'react';
import { LIKELY } from '#core/answers/propose.ts';
import { actedOn } from '#core/tally/decided.ts';
import { isAbout } from '#core/saying/remark-parts.ts';
import { asId, RemarkId } from '#core/model/ids.ts';
import { answerKey } from '#core/model/own-ids.ts';
import type { RemarkRef } from '#core/model/work.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { useKeys } from '../../../shared/page/hooks.ts';
import { answerByWords } from '../../../workspace/commands/answer.ts';
import { useHowSet } from '../../../workspace/state/how-set.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { RemarkList } from '../RemarkList.tsx';
import { AnswerSlip } from './AnswerSlip.tsx';
import type { TextSide } from './text-side.ts';

/** Tasks and remarks in reading order or the plan's, each with a live sign of what became of its passage, and its answer. */
export function AnswersList({
  outlet,
  side,
  focusedId,
  onFocus,
  canChange,
}: {
  outlet: AssignmentOutlet;
  side: TextSide;
  focusedId: string | null;
  onFocus: (id: string) => void;
  canChange: boolean;
}) {
  const { work, live, answers } = outlet;
  const howSet = useHowSet(live, work.remarks);
  const workspace = useWorkspace();
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (focusedId === null) return;
    const slip = list.current?.querySelector(`[data-remark="${CSS.escape(focusedId)}"]`);
    slip?.scrollIntoView({ block: 'nearest' });
  }, [focusedId]);
  const step = (by: 1 | -1) => {
    const shown = [...(list.current?.querySelectorAll<HTMLElement>('[data-remark]') ?? [])].map(
      (slip) => slip.dataset.remark ?? '',
    );
    const at = focusedId === null ? -1 : shown.indexOf(focusedId);
    const next = shown.at(at < 0 ? (by === 1 ? 0 : -1) : Math.min(shown.length - 1, Math.max(0, at + by)));
    if (next !== undefined) onFocus(next);
  };
  const take = () => {
    const { draft } = outlet.view;
    if (focusedId === null || live === null || draft === null || !canChange) return;
    const refs = thingsOf(focusedId, outlet);
    const open = refs.find((ref) => !work.given.has(answerKey(ref))) ?? refs[0];
    const first = live.proposals.get(answerKey(open))?.at(0);
    if (first === undefined || first.likely < LIKELY) return;
    void answerByWords(workspace, draft, live.textHash, open, takenOf(first.places, live.paper.text));
  };
  useTakeKey(take);
  useKeys({ n: () => step(1), p: () => step(-1), y: take });
  return (
    <div ref={list}>
      <RemarkList work={work} answers={answers}>
        {(remark) => (
          <AnswerSlip
            howSet={howSet.get(remark.id) ?? null}
            key={remark.id}
            remark={remark}
            outlet={outlet}
            side={side}
            things={thingsOf(remark.id, outlet)}
            task={work.tasks.find((planned) => isAbout(planned.task.about, remark.id))?.task ?? null}
            focused={remark.id === focusedId}
            onFocus={() => onFocus(remark.id)}
            canChange={canChange}
          />
        )}
      </RemarkList>
    </div>
  );
}

/** Ctrl or Cmd Enter takes what may answer the remark in focus, from the editor too. */
function useTakeKey(take: () => void): void {
  const latest = useRef(take);
  useLayoutEffect(() => {
    latest.current = take;
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      event.stopPropagation();
      latest.current();
    };
    // Before the editor breaks the line.
    window.addEventListener('keydown', press, { capture: true });
    return () => window.removeEventListener('keydown', press, { capture: true });
  }, []);
}

/** What of a remark is answered by itself: its parts to act on once they are decided apart, else the whole. */
function thingsOf(id: string, { work }: AssignmentOutlet): RemarkRef[] {
  const remarkId = asId(RemarkId, id);
  const judgement = work.judgements.get(id);
  const acts = judgement === undefined ? [] : actedOn(judgement);
  return acts.length === 0 ? [{ remarkId, partId: null }] : acts.map((partId) => ({ remarkId, partId }));
}

function takenOf(places: readonly { readonly from: number; readonly to: number }[], text: string) {
  return places.map(({ from, to }) => ({ from, to, exact: text.slice(from, to) }));
}

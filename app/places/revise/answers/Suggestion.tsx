import { revise } from '../../../words/revising.ts';
import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import type { Outcome } from '#core/anchors/outcome.ts';
import type { Change, Remark } from '#core/model/remark.ts';
import type { RemarkRef } from '#core/model/work.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { useKeys } from '../../../shared/page/hooks.ts';
import { answerByWords } from '../../../workspace/commands/answer.ts';
import { decideRemark } from '../../../workspace/commands/decide.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import type { TextSide } from './text-side.ts';

/** A change that the marker made in the text itself: taken over or refused where it stands, after it is seen. */
export function Suggestion({
  remark,
  change,
  outcome,
  outlet,
  side,
}: {
  remark: Remark;
  change: Change;
  outcome: Outcome;
  outlet: AssignmentOutlet;
  side: TextSide;
}) {
  const workspace = useWorkspace();
  const { live, view, work } = outlet;
  const taking = useRef(false);
  const { place } = outcome;
  const now = live === null ? '' : live.paper.text.slice(place.from, place.to);
  const suggested = change.kind === 'deletion' ? '' : change.after;
  const before = change.kind === 'insertion' ? '' : change.before;
  const isAsSuggested = now === suggested;
  const isKnown = isAsSuggested || now === before;
  const isTaken = work.given.has(remark.id);
  const { put } = side;
  const ref: RemarkRef = { remarkId: remark.id, partId: null };
  const answer = () => {
    if (view.draft === null || live === null) return;
    void answerByWords(workspace, view.draft, live.textHash, ref, [{ ...place, exact: suggested }]);
  };
  // What was put in is taken as the answer once the text that holds it is followed.
  useEffect(() => {
    if (!taking.current || !isAsSuggested) return;
    taking.current = false;
    answer();
  });
  const take = () => {
    if (isTaken || !isKnown) return;
    if (isAsSuggested) answer();
    else if (put?.(place, suggested) === true) taking.current = true;
    else toast(revise.waitForText);
  };
  const refuse = () => {
    if (isAsSuggested && put?.(place, before) !== true) {
      toast(revise.waitForText);
      return;
    }
    if (work.judgements.get(remark.id)?.decision !== 'decline')
      void decideRemark(workspace, remark, 'decline');
  };
  useKeys({ i: take });
  const copied = suggested === '' ? null : suggested;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2 border-t border-dashed border-rule pt-2 text-sm">
      {before !== '' && <del className="font-serif">{before}</del>}
      {suggested !== '' && <ins className="font-serif">{suggested}</ins>}
      {put === null ? (
        copied !== null && (
          <Button
            look="quiet"
            className="min-h-7 px-0 text-sm"
            onClick={() => void navigator.clipboard.writeText(copied).then(() => toast(revise.copied))}
          >
            {revise.copyWords}
          </Button>
        )
      ) : isKnown ? (
        <>
          {!isTaken && (
            <Button className="min-h-7 px-2 py-0 text-sm" onClick={take}>
              {isAsSuggested ? revise.keepSuggested : revise.putSuggested}
              <span className="font-normal text-quiet">i</span>
            </Button>
          )}
          <Button className="min-h-7 px-2 py-0 text-sm" onClick={refuse}>
            {revise.refuseSuggested}
          </Button>
        </>
      ) : (
        <span className="text-quiet">{revise.otherwiseNow}</span>
      )}
    </div>
  );
}

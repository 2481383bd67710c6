import { revise } from '../../../words/revising.ts';
import { Check, CornerDownRight } from 'lucide-react';
import { toast } from 'sonner';
import { isGiven } from '#core/answers/given.ts';
import { LIKELY, type Proposal } from '#core/answers/propose.ts';
import { replyTo } from '#core/check/answered.ts';
import { answerKey } from '#core/model/own-ids.ts';
import type { RemarkRef } from '#core/model/work.ts';
import { useSingleKeys } from '../../../shared/page/single-keys.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import { useKeptText } from '../../../shared/remark/kept-text.ts';
import * as words from '../../../words/en.ts';
import { answerByWords, answerInWords, type Taken } from '../../../workspace/commands/answer.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { AnswerFile } from './AnswerFile.tsx';
import { GivenAnswers } from './GivenAnswers.tsx';
import type { TextSide } from './text-side.ts';

/** So many of what may answer it are shown where the student looks. */
const SHOWN = 3;

/** What answers a remark or a part of it, what may, and the ways to answer it. */
export function AnswerTo({
  of: ref,
  isPart,
  number,
  outlet,
  side,
  focused,
  canChange,
}: {
  of: RemarkRef;
  /** One of several that are answered by themselves. */
  isPart: boolean;
  /** The remark's number in the list. */
  number: number;
  outlet: AssignmentOutlet;
  side: TextSide;
  focused: boolean;
  canChange: boolean;
}) {
  const workspace = useWorkspace();
  const { view, work, live } = outlet;
  const { draft } = view;
  const key = answerKey(ref);
  const judgement = work.judgements.get(ref.remarkId);
  const given = work.given.get(key);
  const reply = judgement === undefined ? '' : replyTo(judgement, ref.partId);
  const part = judgement?.parts.find(({ id }) => id === ref.partId);
  const taken = new Set(given?.places.map(({ exact }) => exact));
  const isAnswered = given !== undefined && isGiven(given);
  const text = live?.paper.text ?? '';
  const proposals = (live?.proposals.get(key) ?? []).filter(
    ({ places }) => !places.every(({ from, to }) => taken.has(text.slice(from, to))),
  );
  const likely = proposals.at(0) !== undefined && proposals[0].likely >= LIKELY;
  const shown = focused ? proposals.slice(0, SHOWN) : likely && !isAnswered ? proposals.slice(0, 1) : [];
  const take = (words: readonly Taken[]) => {
    if (draft === null || live === null) return;
    void answerByWords(workspace, draft, live.textHash, ref, words);
  };
  const takeChosen = () => {
    const chosen = side.chosen();
    if (chosen === null) toast(revise.chooseFirst);
    else take([chosen]);
  };
  return (
    <div className={isPart ? 'mt-2 border-t border-dashed border-rule pt-1.5' : undefined}>
      {isPart && part !== undefined && <p className="text-sm italic">{part.quote}</p>}
      <GivenAnswers of={ref} given={given} reply={reply} outlet={outlet} side={side} canChange={canChange} />
      {shown.length > 0 && (
        <ul aria-label={revise.mayAnswer(number)} className="mt-1.5 grid gap-1">
          {shown.map((proposal, index) => (
            <Proposed
              key={`${proposal.where} ${proposal.places[0].from}`}
              proposal={proposal}
              text={text}
              isFirst={index === 0 && likely && !isAnswered}
              hasKey={focused && index === 0 && likely}
              canTake={canChange && draft !== null}
              onShow={() => side.show(proposal.places[0])}
              onTake={() =>
                take(proposal.places.map(({ from, to }) => ({ from, to, exact: text.slice(from, to) })))
              }
            />
          ))}
        </ul>
      )}
      {focused && canChange && (
        <div className="mt-2 border-t border-dashed border-rule pt-1">
          <div className="flex flex-wrap gap-x-4">
            {draft !== null && (
              <button
                type="button"
                className="py-1 text-sm font-semibold text-accent hover:underline"
                // The selection has to live through the press.
                onPointerDown={(event) => event.preventDefault()}
                onClick={takeChosen}
              >
                {revise.thisAnswers}
              </button>
            )}
            <AnswerFile of={ref} view={work} draftId={draft?.id ?? null} assignmentId={view.assignment.id} />
          </div>
          <InWords of={ref} number={number} assignmentId={view.assignment.id} saved={given?.words ?? ''} />
        </div>
      )}
    </div>
  );
}

function Proposed({
  proposal: { places, where },
  text,
  isFirst,
  hasKey,
  canTake,
  onShow,
  onTake,
}: {
  proposal: Proposal;
  text: string;
  isFirst: boolean;
  /** The key takes it. */
  hasKey: boolean;
  canTake: boolean;
  onShow: () => void;
  onTake: () => void;
}) {
  const singleKeys = useSingleKeys();
  const shown = places.map(({ from, to }) => text.slice(from, to)).join(' … ');
  return (
    <li className="flex items-start gap-2 text-sm">
      <CornerDownRight size="1em" aria-hidden className="mt-1 shrink-0 text-quiet" />
      <button type="button" onClick={onShow} className="min-w-0 flex-1 text-left hover:underline">
        <span className="text-quiet">{isFirst ? revise.likely : revise.where[where]} </span>
        <span className="line-clamp-3 font-serif">{shown.trim() === '' ? revise.takenOut : shown}</span>
      </button>
      {canTake && (
        <button
          type="button"
          onClick={onTake}
          className="inline-flex shrink-0 items-center gap-1 rounded-md border border-rule-strong/60 px-1.5 py-0.5 font-semibold hover:border-ink"
        >
          <Check size="1em" aria-hidden /> {revise.take}
          {hasKey && singleKeys && <span className="font-normal text-quiet">y</span>}
        </button>
      )}
    </li>
  );
}

function InWords({
  of: ref,
  number,
  assignmentId,
  saved,
}: {
  of: RemarkRef;
  number: number;
  assignmentId: AssignmentOutlet['view']['assignment']['id'];
  saved: string;
}) {
  const workspace = useWorkspace();
  const [text, type, leave] = useKeptText(`answer/${answerKey(ref)}`, saved, (typed, typing) =>
    answerInWords(workspace, assignmentId, ref, typed, typing),
  );
  return (
    <label className="mt-1 block text-sm">
      <span className="text-quiet">{revise.inWords}</span>
      <textarea
        rows={2}
        value={text}
        aria-label={words.newFiles.whatWasDoneAbout(number)}
        placeholder={revise.inWordsExample}
        onChange={(event) => type(event.target.value)}
        onBlur={leave}
        className="mt-0.5 block w-full resize-y rounded-md border border-rule bg-paper px-2 py-1 text-base placeholder:text-quiet"
      />
    </label>
  );
}

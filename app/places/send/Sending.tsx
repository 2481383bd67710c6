import { useStore } from 'zustand';
import { stationOf } from '#core/assignment/line.ts';
import { Progress } from '../../shared/controls/Progress.tsx';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { StationNotice } from '../../shared/line/StationNotice.tsx';
import { useAssignment } from '../../shared/page/assignment-outlet.ts';
import * as words from '../../words/en.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { BeforeAfter } from './BeforeAfter.tsx';
import { Prepare } from './Prepare.tsx';
import { ReceiptView } from './ReceiptView.tsx';
import { TakeQuiz } from './TakeQuiz.tsx';

/** What goes, what the rules say, and the sending; afterwards the receipt, the waiting, and what came of it. */
export function Sending() {
  const outlet = useAssignment();
  const { view } = outlet;
  const receipts = view.attempts.flatMap(({ attempt }) =>
    attempt.receipt === null ? [] : [{ attempt, receipt: attempt.receipt }],
  );
  const { is } = stationOf(view, 'send');
  return (
    <div className="mx-auto grid grid-cols-1 max-w-4xl gap-9 p-6 max-md:p-4">
      {view.attempts.filter(({ marking }) => marking !== null).length > 1 && <BeforeAfter view={view} />}
      {view.state.kind === 'waiting again' && receipts.length > 0 && (
        <section>
          <SectionTitle>{words.send.waiting}</SectionTitle>
          <p className="mt-1 text-quiet">{words.send.waitingLead}</p>
        </section>
      )}
      {view.submission?.state.kind === 'waiting to go' && <OnItsWay id={view.submission.id} />}
      {receipts.map(({ attempt, receipt }) => (
        <ReceiptView key={receipt.id} view={view} attempt={attempt} receipt={receipt} />
      ))}
      {is === 'look' && receipts.length === 0 && <StationNotice view={view} station="send" />}
      {view.kind === 'quiz' && is === 'do' && <TakeQuiz view={view} />}
      {view.kind !== 'quiz' && view.submission === null && view.draft !== null && (
        <Prepare outlet={outlet} draft={view.draft} />
      )}
    </div>
  );
}

/** An attempt on its way: how far, or that it waits for the desk. */
function OnItsWay({ id }: { id: string }) {
  const { deliveries } = useWorkspace();
  const onTheWay = useStore(deliveries.store, ({ bySubmission }) => bySubmission.get(id) ?? null);
  return (
    <div role="status" className="rounded-lg border border-dashed border-rule-strong p-4 font-semibold">
      {onTheWay === null ? (
        words.send.waitingToGo
      ) : (
        <>
          <p id="on-the-way">{words.send.onTheWay(words.sizeOf(onTheWay.sent), words.sizeOf(onTheWay.of))}</p>
          <div className="mt-2">
            <Progress done={onTheWay.sent} of={onTheWay.of} labelledBy="on-the-way" />
          </div>
        </>
      )}
    </div>
  );
}

import { useWorkspace } from '../../workspace/use-workspace.ts';
import { useState } from 'react';
import { Link } from 'react-router';
import { richBlocksOf } from '#core/paper/draft.ts';
import type { Draft, DraftContent } from '#core/model/work.ts';
import { useAssignment, type AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { Button, Empty, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Dialog } from '../../shared/controls/Dialog.tsx';
import { fileNameOf } from '../../shared/files/file-name.ts';
import { offerFile } from '../../shared/page/notify.ts';
import { responseSheetOf } from '../../shared/files/response-sheet.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';
import { reader } from '../../workers/clients.ts';
import { standing } from '#core/assignment/attempts.ts';
import { sendAttempt, WORD_TYPE } from '../../workspace/commands/send.ts';
import { BeforeAfter } from './BeforeAfter.tsx';
import { ReceiptView } from './ReceiptView.tsx';
import { assignmentAddress } from '../../shared/page/addresses.ts';

/** What goes, what the rules say, and the sending; afterwards the receipt, the waiting, and what came of it. */
export function Sending() {
  const outlet = useAssignment();
  const { view, content } = outlet;
  const receipts = view.attempts.flatMap(({ attempt }) =>
    attempt.receipt === null ? [] : [attempt.receipt],
  );
  const waitingToGo = view.submission?.state.kind === 'waiting to go';
  return (
    <div className="mx-auto grid grid-cols-1 max-w-4xl gap-9 p-6 max-md:p-4">
      {view.attempts.filter(({ marking }) => marking !== null).length > 1 && <BeforeAfter view={view} />}
      {view.state.kind === 'waiting again' && (
        <section>
          <SectionTitle>{words.send.waiting}</SectionTitle>
          <p className="mt-1 text-quiet">{words.send.waitingLead}</p>
        </section>
      )}
      {waitingToGo && (
        <p role="status" className="rounded-lg border border-dashed border-rule-strong p-4 font-semibold">
          {words.send.waitingToGo}
        </p>
      )}
      {receipts.map((receipt) => (
        <ReceiptView key={receipt.id} receipt={receipt} zone={view.course?.zone} />
      ))}
      {view.submission === null &&
        receipts.length === 0 &&
        (view.draft === null ? (
          <NoDraft view={view} />
        ) : content === null ? (
          <Empty>{words.revise.opening}</Empty>
        ) : (
          <Prepare outlet={outlet} draft={view.draft} content={content} />
        ))}
    </div>
  );
}

function NoDraft({ view }: { view: AssignmentOutlet['view'] }) {
  const closed = view.state.kind !== 'open for another attempt' && view.course !== null;
  return (
    <Empty>
      {closed ? words.send.ruleClosed : words.send.noDraft}{' '}
      {!closed && (
        <Link
          to={assignmentAddress(view.assignment.id, 'revise')}
          className="font-semibold text-accent hover:underline"
        >
          {words.check.toRevise}
        </Link>
      )}
    </Empty>
  );
}

function Prepare({
  outlet,
  draft,
  content,
}: {
  outlet: AssignmentOutlet;
  draft: Draft;
  content: DraftContent;
}) {
  const workspace = useWorkspace();
  const { view, live, answers } = outlet;
  const [note, setNote] = useState('');
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const { title } = view.assignment;
  const names = {
    paper: fileNameOf(workspace, view, words.send.paperIs, 'docx'),
    response: fileNameOf(workspace, view, words.send.responseIs, 'docx'),
  };
  const open = view.state.kind === 'open for another attempt';
  const unanswered = [...answers.values()].filter((answer) => !answer.answered).length;
  const write = async () => ({
    paper: {
      name: names.paper,
      bytes: await reader.ask((worker) => worker.writeDraftDocx(richBlocksOf(content), title)),
    },
    response: {
      name: names.response,
      bytes: await reader.ask((worker) =>
        worker.writeResponseSheetDocx(responseSheetOf(view, live, answers)),
      ),
    },
  });
  const send = async () => {
    setAsking(false);
    setBusy(true);
    try {
      const { paper, response } = await write();
      await sendAttempt(workspace, draft, content, paper, response, note);
    } finally {
      setBusy(false);
    }
  };
  const offer = async (which: 'paper' | 'response') => {
    const { name, bytes } = (await write())[which];
    offerFile(name, bytes, WORD_TYPE);
  };
  const ready = live !== null;
  return (
    <>
      {view.refusal !== null && view.refusal.state.kind === 'refused' && (
        <p role="alert" className="rounded-lg border border-dashed border-rule-strong p-4 font-semibold">
          {words.send.refused(view.refusal.state.reason)}
        </p>
      )}
      <section>
        <SectionTitle>{words.send.goes}</SectionTitle>
        <ul className="mt-2">
          {(['paper', 'response'] as const).map((which) => (
            <li
              key={which}
              className="flex flex-wrap items-baseline justify-between gap-x-4 border-t border-rule py-2.5"
            >
              <span>
                <b className="break-words">{names[which]}</b>
                <span className="block text-sm text-quiet">{words.send[which]}</span>
              </span>
              <Button look="quiet" className="px-1" disabled={!ready} onClick={() => void offer(which)}>
                {which === 'paper' ? words.send.savePaper : words.send.saveResponse}
              </Button>
            </li>
          ))}
        </ul>
        <label className="mt-3 block">
          <b>{words.send.note}</b>
          <textarea
            rows={3}
            value={note}
            placeholder={words.send.notePlaceholder}
            onChange={(event) => setNote(event.target.value)}
            className="mt-1 block w-full resize-y rounded-md border border-rule bg-surface px-3 py-2 placeholder:text-quiet"
          />
        </label>
      </section>
      <section>
        <SectionTitle>{words.send.rules}</SectionTitle>
        <p className="mt-1">{ruleOf(view)}</p>
        {unanswered > 0 && <p className="mt-1 text-quiet">{words.send.warnings(unanswered)}</p>}
        {view.course !== null && (
          <Button
            look="main"
            className="mt-4"
            disabled={!open || !ready || busy}
            onClick={() => setAsking(true)}
          >
            {busy ? words.send.sending : words.send.send}
          </Button>
        )}
      </section>
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={words.send.sure}
        lead={words.send.sureLead}
      >
        <p className="mb-4">{ruleOf(view)}</p>
        <div className="flex gap-3">
          <Button look="main" onClick={() => void send()}>
            {words.send.send}
          </Button>
          <Button onClick={() => setAsking(false)}>{words.send.cancel}</Button>
        </div>
      </Dialog>
    </>
  );
}

function ruleOf({ assignment, course, attempts, state }: AssignmentOutlet['view']): string {
  if (course === null) return words.send.ruleAlone;
  if (state.kind !== 'open for another attempt' || assignment.closesAt === null) return words.send.ruleClosed;
  return words.send.ruleOpen(
    standing(attempts).length + 1,
    assignment.attemptsAllowed,
    shownMoment(assignment.closesAt, course.zone),
  );
}

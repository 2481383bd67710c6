import { Link } from 'react-router';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { Attempt, Receipt } from '#core/model/facts.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { fileSafe } from '../../shared/files/file-name.ts';
import { receiptSheetOf } from '../../shared/files/receipt-sheet.ts';
import { offerFile } from '../../shared/page/notify.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import { handingInQuery, takeUpQuery } from '../../workspace/commands/queries.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import * as words from '../../words/en.ts';
import { reader } from '../../workers/clients.ts';

/** What was handed in and when, as the course desk confirmed it or the student noted it: files, sizes, fingerprints. */
export function ReceiptView({
  view,
  attempt,
  receipt,
}: {
  view: AssignmentView;
  attempt: Attempt;
  receipt: Receipt;
}) {
  const { outside } = attempt;
  const when = shownMoment(receipt.at, view.course?.zone);
  const name = fileSafe(words.send.receiptName(view.assignment.title, receipt.at.slice(0, 10)));
  const workspace = useWorkspace();
  const message = handingInQuery(view, attempt, receipt, when);
  const isAsked = view.queries.some(({ id }) => id === message.id);
  const write = () => takeUpQuery(workspace, view.assignment.id, message);
  const saveJson = () =>
    offerFile(`${name}.json`, new TextEncoder().encode(JSON.stringify(receipt, null, 2)), 'application/json');
  const savePdf = async () => {
    const bytes = await reader.ask((worker) => worker.writePdf(receiptSheetOf(view, attempt, receipt)));
    offerFile(`${name}.pdf`, bytes, 'application/pdf');
  };
  return (
    <section>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <SectionTitle>{words.send.receipt}</SectionTitle>
        <span className="flex flex-wrap gap-x-4">
          {isAsked ? (
            <Link to="/ask" className="font-semibold text-accent hover:underline">
              {words.send.messageOn}
            </Link>
          ) : (
            <Button look="quiet" className="px-1" onClick={() => void write()}>
              {words.send.message}
            </Button>
          )}
          <Button look="quiet" className="px-1" onClick={() => void savePdf()}>
            {words.send.receiptPdf}
          </Button>
          <Button look="quiet" className="px-1" onClick={saveJson}>
            {words.send.receiptJson}
          </Button>
        </span>
      </div>
      {outside ? (
        <p className="mt-1">{words.send.ownReceiptLine(when, receipt.rule)}</p>
      ) : (
        <>
          <p className="mt-1">{words.send.receiptLine(receipt.id, when)}</p>
          <p className="text-sm text-quiet">{receipt.rule}</p>
        </>
      )}
      <ul className="mt-2">
        {receipt.files.map((file) => (
          <li key={file.hash} className="border-t border-rule py-2.5">
            <b>{file.name}</b>
            <dl className="flex flex-wrap gap-x-6 text-sm">
              <Fact name={words.send.size} value={words.send.bytes(file.size)} />
              {file.words !== null && <Fact name={words.send.wordsHead} value={String(file.words)} />}
              {file.pages !== null && (
                <Fact
                  name={words.send.pages}
                  value={file.pagesEstimated ? words.send.aboutPages(file.pages) : String(file.pages)}
                />
              )}
              <Fact name={words.send.hash} value={file.hash} />
            </dl>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Fact({ name, value }: { name: string; value: string }) {
  return (
    <div className="flex gap-1.5">
      <dt className="text-quiet">{name}</dt>
      <dd className="break-all">{value}</dd>
    </div>
  );
}

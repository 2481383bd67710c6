import type { Receipt } from '#core/model/facts.ts';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { shownMoment } from '../../shared/shown/shown.ts';
import * as words from '../../words/en.ts';

/** What the course desk confirmed: which files, how large, and their fingerprints. */
export function ReceiptView({ receipt, zone }: { receipt: Receipt; zone: string | undefined }) {
  return (
    <section>
      <SectionTitle>{words.send.receipt}</SectionTitle>
      <p className="mt-1">{words.send.receiptLine(receipt.id, shownMoment(receipt.at, zone))}</p>
      <p className="text-sm text-quiet">{receipt.rule}</p>
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

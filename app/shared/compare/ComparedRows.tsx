import clsx from 'clsx';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { inTables, isUnchanged, sideOf, type ComparedRow, type ComparedRows } from '#core/difference/rows.ts';
import type { Remark } from '#core/model/remark.ts';
import type { Paper } from '#core/paper/paper.ts';
import * as words from '../../words/en.ts';
import { texts } from '../../workers/clients.ts';
import { WorkerStopped } from '../../workers/worker-client.ts';
import { Button } from '../controls/Controls.tsx';
import { Fold } from '../controls/Fold.tsx';
import { Toggles } from '../controls/Toggles.tsx';
import { remarkAddress } from '../page/addresses.ts';
import { useKeys, useNarrow } from '../page/hooks.ts';
import { saidBy } from '../remark/said.ts';
import { Pieces } from './Pieces.tsx';

/** Remarks on a text, with their numbers, where they are. */
export interface Margin {
  readonly remarks: readonly { readonly remark: Remark; readonly number: number; readonly at: number }[];
}

/** Two texts compared: counts, the changes in turn, and the text in one column or in two. */
export function ComparedRowsOf({
  older,
  newer,
  margin,
}: {
  older: Paper;
  newer: Paper;
  /** null: no remarks beside it. */
  margin: Margin | null;
}) {
  const [compared, setCompared] = useState<ComparedRows | 'failed' | null>(null);
  const [tries, setTries] = useState(1);
  useEffect(() => {
    let over = false;
    texts
      .ask((worker) => worker.compareByRows(older, newer))
      .then((result) => {
        if (!over) setCompared(result);
      })
      .catch((error: unknown) => {
        if (!(error instanceof WorkerStopped)) throw error;
        if (!over) setCompared('failed');
      });
    return () => {
      over = true;
    };
  }, [older, newer, tries]);
  if (compared === 'failed')
    return (
      <p role="alert">
        {words.check.notCompared}{' '}
        <Button onClick={() => setTries(tries + 1)}>{words.check.compareAgain}</Button>
      </p>
    );
  if (compared === null) return <p className="text-quiet">{words.check.comparing}</p>;
  return <Rows compared={compared} margin={margin} />;
}

type How = 'one' | 'two';

function Rows({ compared: { rows, counts }, margin }: { compared: ComparedRows; margin: Margin | null }) {
  const narrow = useNarrow();
  const [chosenHow, setHow] = useState<How>('one');
  const how = narrow ? 'one' : chosenHow;
  const shown = useRef<HTMLDivElement>(null);
  const changed = useMemo(() => rows.flatMap((row, i) => (isUnchanged(row) ? [] : [i])), [rows]);
  const [at, setAt] = useState(-1);
  const step = (by: number) => {
    if (changed.length === 0) return;
    const next = at < 0 && by < 0 ? changed.length - 1 : (at + by + changed.length) % changed.length;
    setAt(next);
    shown.current?.querySelector(`[data-row="${changed[next]}"]`)?.scrollIntoView({ block: 'center' });
  };
  useKeys({ n: () => step(1), p: () => step(-1) });
  return (
    <>
      <p className="text-sm text-quiet">
        {words.check.counts(counts.kept, counts.added, counts.removed, counts.moved)}{' '}
        {changed.length === 0 ? words.check.same : words.check.legend}
      </p>
      <div className="my-2 flex flex-wrap items-center gap-x-4 gap-y-1 print:hidden">
        {!narrow && (
          <Toggles
            look="words"
            label={words.check.how}
            options={[
              ['one', words.check.oneColumn],
              ['two', words.check.sideBySide],
            ]}
            chosen={how}
            onChoose={setHow}
          />
        )}
        {changed.length > 0 && (
          <span className="flex items-center gap-3 text-sm">
            <Button look="quiet" className="px-0" onClick={() => step(-1)}>
              {words.check.previousChange}
            </Button>
            <span role="status" className="text-quiet tabular-nums">
              {at < 0 ? words.check.changes(changed.length) : words.check.changeAt(at + 1, changed.length)}
            </span>
            <Button look="quiet" className="px-0" onClick={() => step(1)}>
              {words.check.nextChange}
            </Button>
          </span>
        )}
        <Button look="quiet" className="px-0 text-sm" onClick={() => window.print()}>
          {words.check.print}
        </Button>
      </div>
      <div ref={shown} className={clsx('font-serif leading-relaxed', how === 'one' && 'max-w-[52rem]')}>
        <RowList rows={rows} how={how} margin={margin} focused={at < 0 ? null : changed[at]} />
      </div>
    </>
  );
}

interface RowProps {
  readonly how: How;
  readonly margin: Margin | null;
  readonly focused: number | null;
}

/** All rows: longer runs of unchanged ones are folded between the changed ones, tables are shown as such. */
function RowList({ rows, ...rest }: RowProps & { rows: readonly ComparedRow[] }) {
  const groups = useMemo(() => inTables(rows), [rows]);
  return groups.map(({ first, rows: own, table }) => {
    const isSame = own.every(isUnchanged);
    const content = table ? (
      <Table key={first} rows={own} first={first} {...rest} />
    ) : (
      own.map((row, i) => <Row key={first + i} row={row} index={first + i} {...rest} />)
    );
    if (!isSame || (own.length === 1 && !table)) return content;
    return (
      <Fold
        key={`fold ${first}`}
        className="mb-3"
        labelClass="font-sans text-sm text-quiet"
        label={words.check.skipped(own.length)}
      >
        <div className="mt-2">{content}</div>
      </Fold>
    );
  });
}

function Row({ row, index, how, margin, focused }: RowProps & { row: ComparedRow; index: number }) {
  const text = clsx(
    'whitespace-pre-wrap',
    row.kind === 'heading' && 'font-semibold',
    row.kind === 'item' && 'pl-5',
  );
  const beside = besideRow(row, margin);
  return (
    <div
      data-row={index}
      className={clsx(
        'mb-3 grid gap-x-6',
        how === 'two' ? 'grid-cols-2' : margin !== null && 'md:grid-cols-[minmax(0,1fr)_12rem]',
        index === focused && 'outline-2 outline-offset-4 outline-accent',
      )}
    >
      {how === 'two' ? (
        <>
          <p className={text}>
            <Pieces pieces={sideOf(row, 'older')} />
          </p>
          <p className={text}>
            <Pieces pieces={sideOf(row, 'newer')} />
          </p>
        </>
      ) : (
        <p className={text}>
          <Pieces pieces={row.pieces} />
        </p>
      )}
      {beside.length > 0 && (
        <ul className={clsx('font-sans text-sm', how === 'two' && 'col-span-2 flex flex-wrap gap-x-4')}>
          {beside.map(({ remark, number }) => (
            <li key={remark.id}>
              <Link
                to={remarkAddress(remark)}
                aria-label={words.check.remarkAt(number, saidBy(remark))}
                className="line-clamp-2 text-quiet hover:text-ink hover:underline"
              >
                <b className="text-ink">{number}</b> {saidBy(remark)}
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function besideRow({ older }: ComparedRow, margin: Margin | null): Margin['remarks'] {
  if (older === null || margin === null) return [];
  return margin.remarks.filter(({ at }) => at >= older.from && at <= older.to);
}

/** A table of which something changed, cell by cell. */
function Table({ rows, first, focused }: RowProps & { rows: readonly ComparedRow[]; first: number }) {
  const lines = [...new Set(rows.map(({ cell }) => cell?.row ?? 0))];
  return (
    <div className="mb-3 overflow-x-auto">
      <table className="border-collapse font-sans text-sm">
        <tbody>
          {lines.map((line) => (
            <tr key={line}>
              {rows.map((row, i) =>
                row.cell?.row === line ? (
                  <td
                    key={first + i}
                    data-row={first + i}
                    className={clsx(
                      'border border-rule px-2 py-1',
                      first + i === focused && 'outline-2 outline-accent',
                    )}
                  >
                    <Pieces pieces={row.pieces} />
                  </td>
                ) : null,
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

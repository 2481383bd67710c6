import { pageOf, quotedWords } from '#core/model/remark.ts';
import { writeCsv } from '../table/csv.ts';
import { saidBy, type RemarkOut } from './remark-out.ts';

/** The heads of a table of remarks, in the order of its columns; those of what the student made of them come behind. */
export interface RemarkColumns {
  readonly number: string;
  readonly page: string;
  readonly words: string;
  readonly remark: string;
  readonly author: string;
  readonly at: string;
  readonly kind: string;
  readonly color: string;
  readonly criterion: string;
  readonly state: string;
  readonly replies: string;
}

/** Remarks as CSV, one a row. */
export function writeRemarksCsv(remarks: readonly RemarkOut[], columns: RemarkColumns): string {
  const own = [...new Set(remarks.flatMap((remark) => remark.own.map(([name]) => name)))];
  const heads = Object.values(columns) as string[];
  return writeCsv([
    [...heads, ...own],
    ...remarks.map((remark) => [
      String(remark.number),
      String(pageOf(remark) ?? ''),
      quotedWords(remark) ?? '',
      saidBy(remark),
      remark.author,
      remark.at ?? '',
      remark.kind,
      remark.color ?? '',
      remark.criterion ?? '',
      remark.state ?? '',
      remark.replies.map(({ author, text }) => `${author}: ${text}`).join('\n'),
      ...own.map((name) =>
        remark.own.flatMap(([known, value]) => (known === name ? [value] : [])).join('\n'),
      ),
    ]),
  ]);
}

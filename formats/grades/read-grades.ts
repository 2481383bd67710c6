import { readGradebook, type Gradebook, type GradebookFile } from '../oneroster/read-gradebook.ts';
import { readCsv } from '../table/csv.ts';
import { readHtmlTables } from '../table/html.ts';
import { decodeText } from '../text/decode.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '../unreadable.ts';
import { readZip } from '../zip/read-zip.ts';
import { gradeTableOf, type GradeTable } from './grade-table.ts';

/** Scores in files: a OneRoster gradebook, or a plain table whose columns are still to be matched. */
export type ReadGrades =
  | { readonly kind: 'gradebook'; readonly gradebook: Gradebook }
  | { readonly kind: 'table'; readonly table: GradeTable };

/** A table this long is a list of something else. */
const MOST_ROWS = 20_000;

/**
 * Reads scores from one or several files; those of a ZIP count as files of their own.
 * @throws UnreadableFile 'no scores' where there are none
 */
export function readGrades(
  files: readonly { readonly name: string; readonly bytes: Uint8Array }[],
): ReadGrades {
  const texts = files.flatMap(({ name, bytes }): GradebookFile[] => {
    if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
    if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return [{ name, text: decodeText(bytes) }];
    const entries = readZip(bytes, (entry) => /\.(csv|json)$/i.test(entry));
    return Object.entries(entries).map(([entry, content]) => ({ name: entry, text: decodeText(content) }));
  });
  const gradebook = readGradebook(texts);
  if (gradebook !== null && gradebook.lineItems.length > 0) return { kind: 'gradebook', gradebook };
  for (const { text } of texts) {
    const table = tableIn('', text);
    if (table !== null) return { kind: 'table', table };
  }
  throw new UnreadableFile('no scores');
}

/** The table of what was pasted; null where there is none with at least two columns and a row below its names. */
export function tableIn(html: string, text: string): GradeTable | null {
  const grid = readHtmlTables(html === '' && /<table[\s>]/i.test(text) ? text : html).at(0) ?? readCsv(text);
  if (grid === null || grid.rows.length < 2 || grid.rows[0].length < 2) return null;
  if (grid.rows.length > MOST_ROWS) throw new UnreadableFile('too large');
  return gradeTableOf(grid);
}

import { draftOfRubric } from '#core/rubric/draft.ts';
import { readCaseRubrics } from '../case/rubric.ts';
import { recognise } from '../recognise.ts';
import { readCsv } from '../table/csv.ts';
import { readDocxTables, readOdtTables } from '../table/document-tables.ts';
import type { Grid } from '../table/grid.ts';
import { readHtmlTables } from '../table/html.ts';
import { decodeText } from '../text/decode.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '../unreadable.ts';
import { rubricFromTable, type ReadRubricTable } from './rubric-table.ts';

/**
 * The rubrics of a file: CASE JSON, CSV, HTML, or the tables of a Word or OpenDocument text.
 * @param title what a rubric is called that has no name of its own
 * @throws UnreadableFile 'no rubric' where there is none, or what is wrong with the file
 */
export function readRubrics(bytes: Uint8Array, title: string): ReadRubricTable[] {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  const found = isArchive(bytes) ? fromDocument(bytes, title) : fromBytes(bytes, title);
  if (found.length === 0) throw new UnreadableFile('no rubric');
  return found;
}

function isArchive(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b;
}

function fromDocument(bytes: Uint8Array, title: string): ReadRubricTable[] {
  const { kind } = recognise(bytes);
  if (kind === 'docx') return fromGrids(readDocxTables(bytes), title);
  return kind === 'odt' ? fromGrids(readOdtTables(bytes), title) : [];
}

function fromBytes(bytes: Uint8Array, title: string): ReadRubricTable[] {
  const text = decodeText(bytes);
  // No text has such a character; a picture or a PDF has.
  return text.includes('\u0000') || text.startsWith('%PDF-') ? [] : fromText(text, title);
}

function fromText(text: string, title: string): ReadRubricTable[] {
  const rubrics = readCaseRubrics(text);
  if (rubrics !== null) return rubrics.map((rubric) => ({ draft: draftOfRubric(rubric), problems: [] }));
  if (/<table[\s>]/i.test(text)) return fromGrids(readHtmlTables(text), title);
  const grid = readCsv(text);
  return grid === null ? [] : fromGrids([grid], title);
}

function fromGrids(grids: readonly Grid[], title: string): ReadRubricTable[] {
  return grids.flatMap((grid) => rubricFromTable(grid, title) ?? []);
}

/** The rubrics of what was pasted: as a table of a page where the clipboard has one, else as separated text. */
export function rubricsFromPaste(html: string, text: string, title: string): ReadRubricTable[] {
  const fromPage = fromGrids(readHtmlTables(html), title);
  return fromPage.length > 0 ? fromPage : fromText(text, title);
}

import { HeadingLevel, Paragraph, Table, TableCell, TableRow, TextRun, WidthType } from 'docx';
import { textRun, written } from './look.ts';
import type { ResponseSheet } from '#core/check/response-sheet.ts';

function cell(paragraphs: readonly string[], share: number, bold = false): TableCell {
  return new TableCell({
    width: { size: share, type: WidthType.PERCENTAGE },
    margins: { top: 60, bottom: 60, left: 90, right: 90 },
    children: paragraphs.map((text) => new Paragraph({ children: [textRun({ text, bold, size: 20 })] })),
  });
}

/** Writes the response sheet as a Word file: a table, one row a remark. */
export function writeResponseSheetDocx(sheet: ResponseSheet): Promise<Uint8Array<ArrayBuffer>> {
  const head = new TableRow({ tableHeader: true, children: sheet.columns.map((c) => cell([c], 25, true)) });
  const rows = sheet.rows.map((row) => new TableRow({ children: row.map((lines) => cell(lines, 25)) }));
  const table = new Table({ rows: [head, ...rows], width: { size: 100, type: WidthType.PERCENTAGE } });
  const children = [
    new Paragraph({ heading: HeadingLevel.HEADING_1, children: [new TextRun(sheet.title)] }),
    ...sheet.lead.map((text) => new Paragraph({ children: [new TextRun(text)] })),
    table,
  ];
  return written({ title: sheet.title, sections: [{ children }] });
}

import { Parser } from 'htmlparser2';
import { GridBuilder, type Grid } from './grid.ts';

/** Tags that end a line within a cell. */
const LINE_TAGS = new Set(['br', 'p', 'div', 'li', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6']);

interface OpenTable {
  readonly builder: GridBuilder;
  cell: { text: string; columns: number; rows: number } | null;
}

function span(value: string | undefined): number {
  const number = Number(value ?? 1);
  return Number.isInteger(number) && number > 0 && number <= 100 ? number : 1;
}

/** The tables of an HTML text, such as a page or a spreadsheet gives to the clipboard; of nested ones each by itself. */
export function readHtmlTables(html: string): Grid[] {
  const open: OpenTable[] = [];
  const found: Grid[] = [];
  let silent = 0;
  const endCell = (table: OpenTable) => {
    if (table.cell === null) return;
    const { text, columns, rows } = table.cell;
    table.builder.cell(tidy(text), columns, rows);
    table.cell = null;
  };
  const parser = new Parser({
    onopentag(name, attributes: Readonly<Record<string, string | undefined>>) {
      const table = open.at(-1);
      if (name === 'script' || name === 'style') silent++;
      if (name === 'table') open.push({ builder: new GridBuilder(), cell: null });
      else if (table === undefined) return;
      else if (name === 'tr') {
        endCell(table);
        table.builder.startRow();
      } else if (name === 'td' || name === 'th') {
        endCell(table);
        table.cell = { text: '', columns: span(attributes.colspan), rows: span(attributes.rowspan) };
      } else if (LINE_TAGS.has(name) && table.cell !== null && table.cell.text !== '')
        table.cell.text += '\n';
    },
    ontext(text) {
      const cell = open.at(-1)?.cell;
      if (cell != null && silent === 0) cell.text += text.replaceAll(/\s+/g, ' ');
    },
    onclosetag(name) {
      const table = open.at(-1);
      if (name === 'script' || name === 'style') silent--;
      if (table === undefined) return;
      if (name === 'td' || name === 'th') endCell(table);
      else if (name === 'table') {
        endCell(table);
        open.pop();
        const grid = table.builder.build();
        if (grid !== null) found.push(grid);
      } else if (LINE_TAGS.has(name) && name !== 'br' && table.cell !== null) table.cell.text += '\n';
    },
  });
  parser.write(html);
  parser.end();
  return found;
}

function tidy(text: string): string {
  return text
    .replaceAll('\u00a0', ' ')
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .join('\n');
}

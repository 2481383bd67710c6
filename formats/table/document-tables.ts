import { refusedAs } from '../malformed.ts';
import { openDocx } from '../docx/docx-parts.ts';
import { UnreadableFile } from '../unreadable.ts';
import { parseXml, textOfPart } from '../xml/parse-xml.ts';
import { readZip } from '../zip/read-zip.ts';
import { GridBuilder, type Grid } from './grid.ts';

interface OpenTable {
  readonly builder: GridBuilder;
  readonly rows: WordCell[][];
  cell: WordCell | null;
}
interface WordCell {
  text: string;
  columns: number;
  /** A cell that goes on from the row above. */
  goesOn: boolean;
}

/**
 * The tables of a Word file (ECMA-376: w:tbl), as the document reads: deleted words are left out; cells may be joined
 * over columns (gridSpan) and rows (vMerge).
 * @throws UnreadableFile
 */
export function readDocxTables(bytes: Uint8Array): Grid[] {
  const { document } = openDocx(bytes);
  const open: OpenTable[] = [];
  const found: Grid[] = [];
  let deleted = 0;
  let inText = false;
  refusedAs('damaged Word file', () => {
    parseXml(document, {
      open(name, attributes) {
        const table = open.at(-1);
        if (name === 'w:tbl') open.push({ builder: new GridBuilder(), rows: [], cell: null });
        else if (table === undefined) return;
        else if (name === 'w:tr') table.rows.push([]);
        else if (name === 'w:tc') {
          table.cell = { text: '', columns: 1, goesOn: false };
          table.rows.at(-1)?.push(table.cell);
        } else if (name === 'w:gridSpan' && table.cell !== null)
          table.cell.columns = Math.max(1, Math.min(100, Number(attributes['w:val'] ?? 1)));
        else if (name === 'w:vMerge' && table.cell !== null)
          table.cell.goesOn = attributes['w:val'] !== 'restart';
        else if (name === 'w:del' || name === 'w:moveFrom') deleted++;
        else if (name === 'w:t') inText = true;
        else if ((name === 'w:br' || name === 'w:tab') && table.cell !== null)
          table.cell.text += name === 'w:br' ? '\n' : ' ';
      },
      text(text) {
        const cell = open.at(-1)?.cell;
        if (cell != null && inText && deleted === 0) cell.text += text;
      },
      close(name) {
        const table = open.at(-1);
        if (name === 'w:t') inText = false;
        else if (name === 'w:del' || name === 'w:moveFrom') deleted = Math.max(0, deleted - 1);
        else if (table === undefined) return;
        else if (name === 'w:p' && table.cell !== null) table.cell.text += '\n';
        else if (name === 'w:tc') table.cell = null;
        else if (name === 'w:tbl') {
          open.pop();
          const grid = gridOfWord(table);
          if (grid !== null) found.push(grid);
        }
      },
    });
  });
  return found;
}

/** Word repeats a cell that spans rows as empty ones; how many of them stand below tells how far it spans. */
function gridOfWord({ builder, rows }: OpenTable): Grid | null {
  const columns = rows.map(columnsOf);
  // From below: how many cells in a row, counted from this row on, go on in each column.
  const goingOn: ReadonlyMap<number, number>[] = [];
  for (let r = rows.length - 1; r > 0; r--) {
    const below = goingOn.at(r + 1);
    goingOn[r] = new Map(
      rows[r].flatMap(({ goesOn }, i) =>
        goesOn ? [[columns[r][i], 1 + (below?.get(columns[r][i]) ?? 0)] as const] : [],
      ),
    );
  }
  rows.forEach((row, r) => {
    builder.startRow();
    row.forEach((cell, i) => {
      if (cell.goesOn && r > 0) return;
      builder.cell(cell.text, cell.columns, 1 + (goingOn.at(r + 1)?.get(columns[r][i]) ?? 0));
    });
  });
  return builder.build();
}

/** In which column of its table each cell of a row begins. */
function columnsOf(row: readonly WordCell[]): number[] {
  let next = 0;
  return row.map(({ columns }) => {
    const column = next;
    next += columns;
    return column;
  });
}

/**
 * The tables of an OpenDocument text (ODF 1.3: table:table), as the document reads.
 * @throws UnreadableFile
 */
export function readOdtTables(bytes: Uint8Array): Grid[] {
  const open: { builder: GridBuilder; cell: { text: string; columns: number; rows: number } | null }[] = [];
  const found: Grid[] = [];
  let silent = 0;
  refusedAs('damaged OpenDocument text', () => {
    const content = readZip(bytes, (name) => name === 'content.xml')['content.xml'] as Uint8Array | undefined;
    if (content === undefined) throw new UnreadableFile('not an OpenDocument text');
    parseXml(textOfPart(content), {
      open(name, attributes) {
        const table = open.at(-1);
        // What was deleted, and what is said beside the text, is no part of it.
        if (name === 'text:tracked-changes' || name === 'office:annotation') silent++;
        if (name === 'table:table') open.push({ builder: new GridBuilder(), cell: null });
        else if (table === undefined) return;
        else if (name === 'table:table-row') table.builder.startRow();
        else if (name === 'table:table-cell')
          table.cell = {
            text: '',
            columns: Number(attributes['table:number-columns-spanned'] ?? 1),
            rows: Number(attributes['table:number-rows-spanned'] ?? 1),
          };
        else if (table.cell !== null && silent === 0) {
          if (name === 'text:line-break') table.cell.text += '\n';
          if (name === 'text:tab') table.cell.text += ' ';
          if (name === 'text:s') table.cell.text += ' '.repeat(Number(attributes['text:c'] ?? 1));
        }
      },
      text(text) {
        const cell = open.at(-1)?.cell;
        if (cell != null && silent === 0) cell.text += text.replaceAll(/\s+/g, ' ');
      },
      close(name) {
        const table = open.at(-1);
        if (name === 'text:tracked-changes' || name === 'office:annotation') silent--;
        if (table === undefined) return;
        if ((name === 'text:p' || name === 'text:h') && table.cell !== null) table.cell.text += '\n';
        if (name === 'table:table-cell' && table.cell !== null) {
          const { text, columns, rows } = table.cell;
          table.builder.cell(tidyLines(text), columns, rows);
          table.cell = null;
        }
        if (name === 'table:table') {
          open.pop();
          const grid = table.builder.build();
          if (grid !== null) found.push(grid);
        }
      },
    });
  });
  return found;
}

function tidyLines(text: string): string {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .join('\n');
}

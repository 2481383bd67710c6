/** A table as rows of cells, wherever it stood: every row as long as the longest. */
export interface Grid {
  readonly rows: readonly (readonly string[])[];
  /** Cells that span several in the source: their text stands in the first, the others are empty. */
  readonly merged: readonly { readonly row: number; readonly column: number }[];
}

/** Builds a grid from cells that may span rows and columns. */
export class GridBuilder {
  private readonly rows: string[][] = [];
  private readonly taken = new Set<string>();
  private readonly merged: { row: number; column: number }[] = [];

  startRow(): void {
    this.rows.push([]);
  }

  /** Adds a cell to the last row, in its first free place. */
  cell(text: string, columns = 1, rows = 1): void {
    const row = this.rows.length - 1;
    if (row < 0) return;
    const cells = this.rows[row];
    let column = cells.length;
    while (this.taken.has(`${row},${column}`)) {
      cells[column] = '';
      column++;
    }
    cells[column] = text;
    for (let c = 1; c < columns; c++) cells[column + c] = '';
    if (columns > 1 || rows > 1) this.merged.push({ row, column });
    for (let r = 1; r < rows; r++)
      for (let c = 0; c < columns; c++) this.taken.add(`${row + r},${column + c}`);
  }

  /** What was built; null where there is not one row with something in it. */
  build(): Grid | null {
    const width = Math.max(0, ...this.rows.map((row) => row.length));
    const rows = this.rows.map((row) => Array.from({ length: width }, (_, i) => (row.at(i) ?? '').trim()));
    const filled = rows.some((row) => row.some((cell) => cell !== ''));
    return filled ? { rows, merged: this.merged } : null;
  }
}

/** A grid without its empty rows at the end and between. */
export function withoutEmptyRows({ rows, merged }: Grid): Grid {
  const kept = rows.flatMap((row, i) => (row.some((cell) => cell !== '') ? [i] : []));
  const now = new Map(kept.map((row, i) => [row, i]));
  return {
    rows: kept.map((i) => rows[i]),
    merged: merged.flatMap(({ row, column }) => {
      const at = now.get(row);
      return at === undefined ? [] : [{ row: at, column }];
    }),
  };
}

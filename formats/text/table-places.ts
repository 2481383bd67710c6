import type { CellPlace } from '#core/paper/paper.ts';

/** Where in the tables of a text its reader is; a table may stand in a cell of another. */
export class TablePlaces {
  readonly #open: { table: number; row: number; column: number }[] = [];
  #count = 0;

  begin(): void {
    this.#open.push({ table: this.#count++, row: -1, column: -1 });
  }

  nextRow(): void {
    const table = this.#open.at(-1);
    if (table !== undefined) Object.assign(table, { row: table.row + 1, column: -1 });
  }

  nextColumn(): void {
    const table = this.#open.at(-1);
    if (table !== undefined) table.column++;
  }

  end(): void {
    this.#open.pop();
  }

  /** The cell that the reader is in; null outside any table. */
  get cell(): CellPlace | null {
    const table = this.#open.at(-1);
    return table === undefined ? null : { ...table };
  }
}

/** A rectangle of cells: where it began and where the cursor is. Rows and columns count from 0. */
export interface Selection {
  readonly row: number
  readonly column: number
  readonly fromRow: number
  readonly fromColumn: number
}

export const at = (row: number, column: number): Selection => ({ row, column, fromRow: row, fromColumn: column })

/** Moves the cursor; with `extend` the rectangle grows instead. Stays inside the table. */
export function move(selection: Selection, rows: number, columns: number, byRow: number, byColumn: number, extend: boolean): Selection {
  const row = Math.max(0, Math.min(rows - 1, selection.row + byRow))
  const column = Math.max(0, Math.min(columns - 1, selection.column + byColumn))
  return extend ? { ...selection, row, column } : at(row, column)
}

/** Keeps a selection inside a table that has shrunk. */
export function clamp(selection: Selection, rows: number, columns: number): Selection {
  const within = (value: number, count: number): number => Math.max(0, Math.min(count - 1, value))
  return {
    row: within(selection.row, rows),
    column: within(selection.column, columns),
    fromRow: within(selection.fromRow, rows),
    fromColumn: within(selection.fromColumn, columns),
  }
}

export function contains({ row, column, fromRow, fromColumn }: Selection, r: number, c: number): boolean {
  return (
    r >= Math.min(row, fromRow) && r <= Math.max(row, fromRow) && c >= Math.min(column, fromColumn) && c <= Math.max(column, fromColumn)
  )
}

export function extent({ row, column, fromRow, fromColumn }: Selection): { top: number; bottom: number; left: number; right: number } {
  return {
    top: Math.min(row, fromRow),
    bottom: Math.max(row, fromRow),
    left: Math.min(column, fromColumn),
    right: Math.max(column, fromColumn),
  }
}

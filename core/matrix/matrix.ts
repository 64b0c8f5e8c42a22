import { z } from 'zod'
import { figureOf } from '../figures/figures'
import type { FigureId } from '../figures/table/figure'
import { type FigureLimit, figuresSchema, meets } from '../search/figures'

/** What is known of one profile in one place of the matrix: its figures, how many risks want care, and by their ids what the checks say; or that it cannot be printed. */
export const cellSchema = z.union([
  z.object({ figures: figuresSchema, cautions: z.number().int(), checks: z.array(z.string()) }),
  z.object({ refused: z.string() }),
])
export type MatrixCell = z.infer<typeof cellSchema>

export interface Best {
  /** Of those of its row, its column, and all, that keep all limits and are stopped by nothing. */
  readonly row: boolean
  readonly column: boolean
  readonly all: boolean
}

const none: Best = { row: false, column: false, all: false }

/** A figure of a cell; not a number where there is none. */
export const valueIn = (cell: MatrixCell | undefined, figure: FigureId): number =>
  cell && 'figures' in cell ? (cell.figures[figure] ?? Number.NaN) : Number.NaN

export const isWithin = (cell: MatrixCell | undefined, limits: readonly FigureLimit[]): boolean =>
  cell !== undefined && 'figures' in cell && meets(cell.figures, limits)

/** Which cells are best in their row, their column, and of all; those that miss a limit are best at nothing, and of equals each is. */
export function bestsOf(
  cells: readonly (readonly (MatrixCell | undefined)[])[],
  figure: FigureId,
  limits: readonly FigureLimit[],
): readonly (readonly Best[])[] {
  const { better } = figureOf[figure]
  const costs = cells.map((row) =>
    row.map((cell) => {
      const value = valueIn(cell, figure)
      return !isWithin(cell, limits) || Number.isNaN(value) ? Number.POSITIVE_INFINITY : better === 'less' ? value : -value
    }),
  )
  const least = (all: readonly number[]): number => Math.min(...all, Number.POSITIVE_INFINITY)
  const ofColumn = (cells[0] ?? []).map((_, c) => least(costs.map((row) => row[c]!)))
  const ofAll = least(costs.flat())
  return costs.map((row) => {
    const ofRow = least(row)
    return row.map((cost, c) =>
      cost === Number.POSITIVE_INFINITY ? none : { row: cost === ofRow, column: cost === ofColumn[c], all: cost === ofAll },
    )
  })
}

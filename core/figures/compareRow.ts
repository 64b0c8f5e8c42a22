import { signedPercent } from '../units/format'
import type { FigureRow } from './table/figure'

/** How a figure stands against the first column's. */
export interface Standing {
  /** Length of the bar, 0–1, on a scale shared by the row. */
  readonly bar: number
  /** "−32 %"; empty for the first column and where there is nothing to compare. */
  readonly change: string
  readonly sense: 'better' | 'worse' | 'same'
}

/** Compares the figures of one row. `undefined` where a column has none yet, not a number where its model has none. */
export function compareRow(told: readonly (number | undefined)[], { better, taste }: Pick<FigureRow, 'better' | 'taste'>): Standing[] {
  const values = told.map((value) => (Number.isNaN(value) ? undefined : value))
  const largest = Math.max(0, ...values.map((value) => value ?? 0))
  const first = values[0]
  return values.map((value, i) => {
    if (value === undefined) return { bar: 0, change: '', sense: 'same' }
    const bar = largest > 0 ? value / largest : 0
    if (i === 0 || first === undefined || first === 0) return { bar, change: '', sense: 'same' }
    const share = value / first - 1
    const percent = Math.round(share * 100)
    if (percent === 0) return { bar, change: '', sense: 'same' }
    const sense = taste ? 'same' : share < 0 === (better === 'less') ? 'better' : 'worse'
    return { bar, change: signedPercent(share), sense }
  })
}

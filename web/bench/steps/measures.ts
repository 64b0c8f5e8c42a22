import { figureRows, figures } from '@sable/core/figures/figures'
import type { FigureRow } from '@sable/core/figures/table/figure'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import { inMoney } from '../../ui/currency'

/** What the steps of a trail are measured by. */
export interface Measure extends Pick<FigureRow, 'id' | 'label' | 'better' | 'taste'> {
  readonly of: (prediction: Prediction, purpose: Purpose) => number
  readonly shown: (value: number) => string
  /** A difference without its sign. */
  readonly changed: (value: number) => string
}

const risks: Measure = { id: 'risks', label: 'Risks', better: 'less', of: (p) => p.checks.length, shown: String, changed: String }

export const measures: readonly Measure[] = [
  ...figures.map(({ id, label, better, taste, value, shown, changed }) => ({
    id,
    label,
    better,
    ...(taste ? { taste } : {}),
    of: value,
    shown: (value: number) => inMoney(shown(value)),
    changed: (value: number) => inMoney((changed ?? shown)(value)),
  })),
  risks,
]

/** So many columns leave room for the bars. */
const COLUMNS = 6

/** What the table tells of each step: the first figures, what the bars are of, and risks. */
export function columnsFor(measure: Measure): Measure[] {
  const rows = measures.filter(({ id }) => figureRows.some((row) => row.id === id)).slice(0, COLUMNS)
  return [...(rows.includes(measure) || measure === risks ? rows : [...rows, measure]), risks]
}

/** "−12 min", "+3.1 µm"; nothing where it does not show. */
export function signed({ changed: tell }: Measure, change: number): string {
  const text = tell(Math.abs(change))
  if (Number(text.replace(/[^\d.]/g, '')) === 0) return ''
  return `${change < 0 ? '−' : '+'}${text}`
}

export type Sense = 'better' | 'worse' | 'same'

export const senseOf = ({ better, taste }: Measure, change: number): Sense =>
  change === 0 || taste ? 'same' : change < 0 === (better === 'less') ? 'better' : 'worse'

import type { LineupContent } from '@sable/contract/lineup'
import type { Shelf } from '@sable/contract/shelf'
import { figureRows } from '@sable/core/figures/figures'
import type { Prediction } from '@sable/core/pipeline/predict'
import { toCsv } from '../../ui/csv'
import { cellsOf, ledgerRows } from '../ledger/rows'

/** The whole ledger as CSV: a row a figure or setting, a column a candidate; numbers in base units, unrounded. */
export function lineupCsv(content: LineupContent, shelf: Shelf, predictions: readonly (Prediction | undefined)[]): string {
  const figure = (label: string, unit: string, value: (p: Prediction) => number | string) => [
    label,
    unit,
    ...predictions.map((p) => (p ? value(p) : '')),
  ]
  const figures = figureRows.flatMap((row) => [
    row,
    ...(row.parts ?? []).map((part) => ({ ...part, label: `${row.label}: ${part.label}` })),
  ])
  const cells = content.candidates.map((candidate) => cellsOf(candidate, undefined, shelf))
  const settings = ledgerRows(shelf).flatMap(({ rows }) =>
    rows.map((row) => [
      row.label,
      row.kind === 'setting' && row.setting.kind === 'number' ? row.setting.unit : '',
      ...cells.map((column) => (row.kind === 'setup' ? column?.[row.id]?.text : column?.[row.id]?.value) ?? ''),
    ]),
  )
  return toCsv([
    ['', 'unit', ...content.candidates.map(({ name }) => name)],
    ...figures.map((row) =>
      figure(row.label, row.base, (p) => {
        // Where a column tells another thing than its row, that thing has a row of its own.
        const { value, base } = row.of(p, content.purpose)
        return base === undefined ? value : ''
      }),
    ),
    ...settings,
  ])
}

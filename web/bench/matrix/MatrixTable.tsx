import { figureOf } from '@sable/core/figures/figures'
import type { FigureId } from '@sable/core/figures/table/figure'
import { type Best, isWithin, type MatrixCell, valueIn } from '@sable/core/matrix/matrix'
import type { FigureLimit } from '@sable/core/search/figures'
import clsx from 'clsx'
import { extent, max } from 'd3-array'
import { type KeyboardEvent, useRef } from 'react'
import { shown } from '../tradeoffs/figureWords'
import { type MatrixColumn, type MatrixRow, OWN } from './axes'

/** Profiles down, what they are printed with across. Arrows go from cell to cell; Enter makes one a column of the ledger. */
export function MatrixTable({
  rows,
  columns,
  cells,
  bests,
  figure,
  limits,
  onTake,
}: {
  rows: readonly MatrixRow[]
  columns: readonly MatrixColumn[]
  cells: readonly (readonly (MatrixCell | undefined)[])[]
  bests: readonly (readonly Best[])[]
  figure: FigureId
  limits: readonly FigureLimit[]
  onTake: (row: number, column: number) => void
}) {
  const table = useRef<HTMLTableElement>(null)
  const most = max(cells.flat(), (cell) => valueIn(cell, figure)) ?? 0
  const within = cells.flat().flatMap((cell) => (isWithin(cell, limits) ? [valueIn(cell, figure)] : []))
  const [low = 0, high = 0] = extent(within)
  const goodnessOf = (value: number): number => {
    const share = high > low ? (value - low) / (high - low) : 0
    return figureOf[figure].better === 'less' ? 1 - share : share
  }
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowDown: [1, 0], ArrowUp: [-1, 0] }[event.key]
    const at = (event.target as HTMLElement).dataset.at?.split(' ').map(Number)
    if (!by || !at) return
    event.preventDefault()
    table.current?.querySelector<HTMLElement>(`[data-at="${at[0]! + by[0]!} ${at[1]! + by[1]!}"]`)?.focus()
  }
  return (
    <table
      ref={table}
      onKeyDown={onKeyDown}
      aria-label="Profiles and what they are printed with"
      className="border-separate border-spacing-0 text-[12.5px]"
    >
      <thead>
        <tr>
          <th className="sticky left-0 z-10 min-w-44 bg-ground" />
          {columns.map(({ key, name }) => (
            <th
              key={key}
              scope="col"
              data-hint={name}
              className="h-8 max-w-36 min-w-28 truncate border-b border-line px-2 text-right font-medium"
            >
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => {
          const isFirstOfFamily = row.family !== rows[r - 1]?.family
          return (
            <tr key={row.id}>
              <th
                scope="row"
                className={clsx(
                  'sticky left-0 z-10 max-w-56 min-w-44 bg-ground pr-3 text-left font-normal',
                  isFirstOfFamily && r > 0 && 'border-t border-line',
                )}
              >
                <span className="flex items-baseline gap-2">
                  <span className="truncate">{row.name}</span>
                  {isFirstOfFamily && <span className="ml-auto text-[12px] text-muted">{row.family === OWN ? 'here' : row.family}</span>}
                </span>
              </th>
              {columns.map((column, c) => (
                <td key={column.key} className={clsx('p-0', isFirstOfFamily && r > 0 && 'border-t border-line')}>
                  <Cell
                    cell={cells[r]![c]}
                    best={bests[r]![c]!}
                    figure={figure}
                    isWithin={isWithin(cells[r]![c], limits)}
                    most={most}
                    goodness={goodnessOf(valueIn(cells[r]![c], figure))}
                    at={`${r} ${c}`}
                    label={`${row.name} with ${column.name}`}
                    onTake={() => onTake(r, c)}
                  />
                </td>
              ))}
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

/** The better, the warmer; at most so much of the lantern's colour that text stays well readable on it. */
const tint = (goodness: number): string => `color-mix(in srgb, var(--lantern) ${Math.round(14 * goodness)}%, transparent)`

function Cell({
  cell,
  best,
  figure,
  isWithin: keeps,
  most,
  goodness,
  at,
  label,
  onTake,
}: {
  cell: MatrixCell | undefined
  best: Best
  figure: FigureId
  isWithin: boolean
  most: number
  /** 0 to 1, among those that keep the limits. */
  goodness: number
  at: string
  label: string
  onTake: () => void
}) {
  if (!cell) return <span className="mx-2 my-2 block h-2 w-16 animate-pulse justify-self-end rounded bg-line" />
  if ('refused' in cell)
    return (
      <span data-at={at} tabIndex={-1} data-hint={cell.refused} className="block px-2 py-1.5 text-right text-[12px] text-muted">
        cannot be printed
      </span>
    )
  const value = valueIn(cell, figure)
  const text = shown(figure, value)
  const { stops } = cell.figures
  const mark = best.all ? '★' : `${best.row ? '→' : ''}${best.column ? '↓' : ''}`
  const told = [
    text,
    ...(best.all ? ['best of all'] : [...(best.row ? ['best of its row'] : []), ...(best.column ? ['best of its column'] : [])]),
    ...(keeps ? [] : [stops > 0 ? 'something would stop it' : 'misses a limit']),
    ...(cell.cautions > 0 ? [`${cell.cautions} cautions`] : []),
  ]
  return (
    <button
      type="button"
      data-at={at}
      onClick={onTake}
      aria-label={`${label}: ${told.join(', ')}. Make it a column.`}
      className={clsx(
        'relative flex h-8 w-full items-center justify-end gap-1.5 px-2 hover:bg-raised focus-visible:z-20',
        !keeps && 'missed text-muted',
        best.all && 'bg-glow',
      )}
      style={keeps && !best.all ? { backgroundColor: tint(goodness) } : undefined}
    >
      {mark !== '' && (
        <span aria-hidden className={best.all ? 'text-lantern-ink' : 'text-muted'}>
          {mark}
        </span>
      )}
      {stops > 0 && (
        <span aria-hidden className="text-[12px] text-stop">
          ✕
        </span>
      )}
      {cell.cautions > 0 && (
        <span aria-hidden className="text-[12px] text-worse">
          {cell.cautions} !
        </span>
      )}
      <span className={clsx('figure', best.all && 'text-lantern-ink')}>{text}</span>
      {most > 0 && value > 0 && (
        <span aria-hidden className="absolute right-2 bottom-0.5 left-2 h-[3px]">
          <span className="ml-auto block h-full rounded-sm bg-strong" style={{ width: `${(100 * value) / most}%` }} />
        </span>
      )}
    </button>
  )
}

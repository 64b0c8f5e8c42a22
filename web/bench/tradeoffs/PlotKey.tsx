import { figureOf } from '@sable/core/figures/figures'
import { KeyStrip } from '../../charts/KeyStrip'
import { plainOf } from './figureWords'
import type { Found } from './useFound'

/** What colours and sizes of the points mean. */
export function PlotKey({ axes: { x, y, colour, size }, shades, model }: Pick<Found, 'axes' | 'shades' | 'model'>) {
  const { label } = figureOf[colour.figure]
  const { unit, per } = plainOf(colour.figure)
  const [low, high] = [shades.colour.low / per, shades.colour.high / per]
  return (
    <div className="shrink-0">
      <p className="mb-1 text-[12px] text-muted">
        {label}
        {size && `; size: ${figureOf[size.figure].label.toLowerCase()}`}
      </p>
      <KeyStrip of={{ kind: 'scale', scale: 'viridis', low, high, unit, digits: high < 10 ? 1 : 0 }} />
      <p className="mt-1 text-[12px] text-muted">
        ◇ columns of the ledger; hollow: misses a limit
        {[x, y, colour, size].some((axis) => axis?.figure === 'strength') &&
          (model === 'solved' ? '; strength solved by finite elements' : '; strength by sections, solved once it is a column')}
      </p>
    </div>
  )
}

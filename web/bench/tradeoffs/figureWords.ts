import { figureOf } from '@sable/core/figures/figures'
import type { Figure, FigureId } from '@sable/core/figures/table/figure'
import { signed } from '@sable/core/units/format'
import { inMoney } from '../../ui/currency'

/** "1 h 12 min", "14.2 µm"; a dash for what was not known when it was found. */
export const shown = (figure: FigureId, value: number): string => (Number.isNaN(value) ? '–' : inMoney(figureOf[figure].shown(value)))

/** How a figure stands on axes and in tables, with the currency that was chosen. */
export const plainOf = (figure: FigureId): Figure['plain'] => {
  const { plain } = figureOf[figure]
  return { ...plain, unit: inMoney(plain.unit) }
}

/** "−12 min"; "same" where the difference does not show. */
export function difference(figure: FigureId, by: number): string {
  if (Number.isNaN(by)) return ''
  const { unit, per, digits } = plainOf(figure)
  const text = signed(by / per, unit === 'min' ? 1 : digits)
  return Number(text) === 0 ? 'same' : `${text}${unit === '' ? '' : ` ${unit}`}`
}

import { figureOf } from '@sable/core/figures/figures'
import type { FigureId } from '@sable/core/figures/table/figure'
import { signed } from '@sable/core/units/format'

/** "1 h 12 min", "14.2 µm"; a dash for what was not known when it was found. */
export const shown = (figure: FigureId, value: number): string => (Number.isNaN(value) ? '–' : figureOf[figure].shown(value))

/** "−12 min"; "same" where the difference does not show. */
export function difference(figure: FigureId, by: number): string {
  if (Number.isNaN(by)) return ''
  const { unit, per, digits } = figureOf[figure].plain
  const text = signed(by / per, unit === 'min' ? 1 : digits)
  return Number(text) === 0 ? 'same' : `${text}${unit === '' ? '' : ` ${unit}`}`
}

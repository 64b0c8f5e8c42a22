import type { FigureName } from '@sable/core/search/figures'
import { formatDuration, formatForce, signed } from '@sable/core/units/format'

interface Words {
  readonly label: string
  readonly unit: string
  /** Base units in one of these. */
  readonly per: number
  readonly digits: number
}

export const figureWords: Readonly<Record<FigureName, Words>> = {
  time: { label: 'Time', unit: 'min', per: 60, digits: 0 },
  filament: { label: 'Filament', unit: 'g', per: 1, digits: 1 },
  cost: { label: 'Cost', unit: '', per: 1, digits: 2 },
  surface: { label: 'Surface Ra', unit: 'µm', per: 1, digits: 1 },
  gloss: { label: 'Gloss', unit: '%', per: 0.01, digits: 0 },
  strength: { label: 'Strength', unit: 'N', per: 1, digits: 0 },
  sway: { label: 'Sway', unit: 'mm', per: 1, digits: 3 },
  strings: { label: 'Strings', unit: '', per: 1, digits: 2 },
}

/** "1 h 12 min", "14.2 µm" */
export function shown(figure: FigureName, value: number): string {
  if (figure === 'time') return formatDuration(value)
  if (figure === 'strength') return formatForce(value)
  const { unit, per, digits } = figureWords[figure]
  return `${(value / per).toFixed(digits)}${unit === '' ? '' : ` ${unit}`}`
}

/** "−12 min"; "same" where the difference does not show. */
export function difference(figure: FigureName, by: number): string {
  const { unit, per, digits } = figureWords[figure]
  const text = signed(by / per, figure === 'time' ? 1 : digits)
  return Number(text) === 0 ? 'same' : `${text}${unit === '' ? '' : ` ${unit}`}`
}

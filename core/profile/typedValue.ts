import { definitionOf, type SettingName } from './settings'

/** A number and the unit behind it. */
const NUMBER_WITH_UNIT = /^\s*([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(mm\/min|mm\/s²?|mm³\/s|mm|m|%|°|°C|s|min)\s*$/

/**
 * Reads a number with a unit into the unit of its setting: mm/min for a speed, minutes for a time, and for a count of
 * walls or layers how thick they shall be together (CP-N8, common practice). Text that says nothing of the kind is given
 * back as it is.
 *
 * @param numberOf value in force of the settings that a thickness is divided by, mm
 */
export function inOwnUnit(name: SettingName, text: string, numberOf: (name: SettingName) => number): string {
  const match = NUMBER_WITH_UNIT.exec(text)
  const setting = definitionOf(name)
  if (!match || setting.kind !== 'number') return text
  const [, digits, unit] = match as unknown as [string, string, string]
  const value = Number(digits.replace(',', '.'))
  if (unit === setting.unit) return digits
  if (unit === 'mm/min' && setting.unit === 'mm/s') return String(value / 60)
  if (unit === 'min' && setting.unit === 's') return String(value * 60)
  if (unit === 'm' && setting.unit === 'mm') return String(value * 1000)
  if (unit === 'mm' && name === 'wallCount') return String(Math.round(value / numberOf('lineWidth')))
  // A skin may be thicker than asked, never thinner.
  if (unit === 'mm' && (name === 'topLayers' || name === 'bottomLayers')) return String(Math.ceil(value / numberOf('layerHeight') - 1e-6))
  return text
}

/** How thick that many walls or layers are together, mm; undefined for other settings. */
export function thicknessOf(name: SettingName, count: number, numberOf: (name: SettingName) => number): number | undefined {
  if (name === 'wallCount') return count * numberOf('lineWidth')
  if (name === 'topLayers' || name === 'bottomLayers') return count * numberOf('layerHeight')
  return undefined
}

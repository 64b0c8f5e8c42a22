import Formula from 'fparser'
import { InputError } from '../units/errors'
import { definitionOf, type SettingName } from './settings'

/** A change of what is there: by a share, or as so many times of it. */
const BY_SHARE = /^\s*([+-]\s*\d+(?:[.,]\d+)?)\s*%\s*$/
const TIMES = /^\s*[*×]\s*(\d+(?:[.,]\d+)?)\s*$/

/**
 * Works out what was typed into a cell of numbers: a sum behind "=" ("=0.4/2"), a change of what stands there ("+10 %", "*1.5"). Of a
 * setting in per cent "+10 %" is ten points more. Other text is given back as it is.
 *
 * @param now what stands in the cell
 * @throws InputError for a sum that comes to no number
 */
export function workedOut(name: SettingName, text: string, now: number): string {
  const setting = definitionOf(name)
  if (setting.kind !== 'number') return text
  const share = BY_SHARE.exec(text)
  const by = share && Number(share[1]!.replace(/\s/g, '').replace(',', '.'))
  const times = TIMES.exec(text)
  const plain = (value: number): string => String(setting.whole ? Math.round(value) : Number(value.toPrecision(6)))
  if (by !== null && Number.isFinite(now)) return plain(setting.unit === '%' ? now + by : now * (1 + by / 100))
  if (times && Number.isFinite(now)) return plain(now * Number(times[1]!.replace(',', '.')))
  if (!text.trimStart().startsWith('=')) return text
  // A point that begins a number is read with its nought.
  const sum = text
    .trim()
    .slice(1)
    .replaceAll(',', '.')
    .replace(/(^|[^\d])\.(?=\d)/g, '$10.')
  let value = Number.NaN
  try {
    value = Number(new Formula(sum).evaluate({}))
  } catch {
    // Told below, like a sum that comes to nothing.
  }
  if (Number.isFinite(value)) return plain(value)
  throw new InputError('sum-unreadable', `"${text.trim()}" comes to no number.`, name, 'Write a sum such as =0.4/2.')
}

/** A number and the unit behind it. */
const NUMBER_WITH_UNIT = /^\s*([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(mm\/min|[µu]m|mm\/s²?|mm³\/s|mm|m|%|°|°C|s|min)\s*$/

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
  if (/^[µu]m$/.test(unit) && setting.unit === 'mm') return String(Number((value / 1000).toPrecision(12)))
  if (unit === 'm' && setting.unit === 'mm') return String(value * 1000)
  if (unit === 'mm' && name === 'wallCount') return String(Math.round(value / numberOf('lineWidth')))
  // A top or bottom may be thicker than asked, never thinner.
  if (unit === 'mm' && (name === 'topLayers' || name === 'bottomLayers')) return String(Math.ceil(value / numberOf('layerHeight') - 1e-6))
  return text
}

/** How thick that many walls or layers are together, mm; undefined for other settings. */
export function thicknessOf(name: SettingName, count: number, numberOf: (name: SettingName) => number): number | undefined {
  if (name === 'wallCount') return count * numberOf('lineWidth')
  if (name === 'topLayers' || name === 'bottomLayers') return count * numberOf('layerHeight')
  return undefined
}

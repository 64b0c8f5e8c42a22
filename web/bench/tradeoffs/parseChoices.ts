import { definitionOf, type SettingName } from '@sable/core/profile/settings'
import { MOST_CHOICES } from '@sable/core/search/space'
import { typedNumber } from '@sable/core/units/typedNumber'

const number = String.raw`(-?\d+(?:[.,]\d+)?)`
const stretch = new RegExp(`^${number}\\s*(?:to|–|-|\\.\\.)\\s*${number}(?:\\s*(?:by|step)\\s*${number})?$`, 'i')

/**
 * Values that a setting may take in a search: "0.12, 0.16, 0.2", "2 to 5" or "0.1 to 0.3 by 0.05"; choices by their names.
 *
 * @returns what is wrong, as a sentence, where the text cannot be read
 */
export function parseChoices(
  name: SettingName,
  text: string,
): { readonly values: readonly (number | string)[] } | { readonly wrong: string } {
  const setting = definitionOf(name)
  const parts = text
    .split(setting.kind === 'number' ? /[;]|,(?!\d)|,\s/ : /[;,]/)
    .map((part) => part.trim())
    .filter(Boolean)
  if (parts.length === 0) return { wrong: 'Give at least one value.' }
  if (setting.kind === 'choice') {
    const unknown = parts.find((part) => !setting.choices.includes(part))
    return unknown === undefined ? { values: [...new Set(parts)] } : { wrong: `"${unknown}" is none of ${setting.choices.join(', ')}.` }
  }
  const values: number[] = []
  for (const part of parts) {
    const range = stretch.exec(part)

    if (!range) {
      const value = typedNumber(part)
      if (!Number.isFinite(value)) return { wrong: `"${part}" is no number.` }
      values.push(value)
      continue
    }
    const [from, to] = [typedNumber(range[1]!), typedNumber(range[2]!)]
    const by = range[3] === undefined ? (setting.whole ? 1 : (to - from) / 4) : typedNumber(range[3])
    if (!(by > 0) || to < from) return { wrong: `"${part}" must go upward.` }
    if ((to - from) / by > MOST_CHOICES) return { wrong: `"${part}" makes more than ${MOST_CHOICES} values.` }
    for (let i = 0; from + i * by <= to + by * 1e-6; i++) values.push(Number((from + i * by).toPrecision(9)))
  }
  const outside = values.find((value) => value < setting.min || value > setting.max)
  if (outside !== undefined) return { wrong: `${outside} is outside ${[setting.min, 'to', setting.max, setting.unit].join(' ').trim()}.` }
  if (setting.whole && values.some((value) => !Number.isInteger(value))) return { wrong: 'Only whole numbers make sense here.' }
  const distinct = [...new Set(values)].sort((a, b) => a - b)
  return distinct.length > MOST_CHOICES ? { wrong: `More than ${MOST_CHOICES} values are too many.` } : { values: distinct }
}

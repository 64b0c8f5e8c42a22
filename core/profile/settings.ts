import { z } from 'zod'
import { InputError } from '../units/errors'
import { isAmbiguous } from '../units/typedNumber'
import { nearestNames, plain } from './nearestNames'
import { coolingSettings } from './table/cooling'
import { firstLayerSettings } from './table/firstLayer'
import { infillSettings } from './table/infill'
import { linesSettings } from './table/lines'
import { retractionSettings } from './table/retraction'
import type { Setting } from './table/setting'
import { speedsSettings } from './table/speeds'
import { supportsSettings } from './table/supports'
import { wallsSettings } from './table/walls'

/**
 * Every setting of a profile. One entry of a group's table gives its stage, label, unit, [least, greatest, step], fallback,
 * help and synonyms; files, API, command line, ledger and docs all read this.
 */
export const settings = {
  ...linesSettings,
  ...wallsSettings,
  ...infillSettings,
  ...speedsSettings,
  ...coolingSettings,
  ...retractionSettings,
  ...supportsSettings,
  ...firstLayerSettings,
} as const satisfies Record<string, Setting>

export type SettingName = keyof typeof settings
export const settingNames = Object.keys(settings) as SettingName[]

/** The value of one setting: a number in the setting's unit, or one of its choices. */
export type SettingValue<K extends SettingName = SettingName> = (typeof settings)[K] extends { readonly choices: readonly (infer C)[] }
  ? C
  : number

/** A full set of settings, each in its own unit. */
export type Settings = { readonly [K in SettingName]: SettingValue<K> }
/** What a profile itself says; everything else comes from printer, nozzle and material. */
export type SettingValues = { readonly [K in SettingName]?: SettingValue<K> }

export const isSettingName = (name: string): name is SettingName => Object.hasOwn(settings, name)

export const definitionOf = (name: SettingName): Setting => settings[name]

function schemaOf(setting: Setting): z.ZodType<number | string> {
  if (setting.kind === 'choice') return z.enum(setting.choices as [string, ...string[]])
  const bounded = z.number().min(setting.min).max(setting.max)
  return setting.whole ? bounded.int() : bounded
}

/** What settings were called in files, backups and desks of before. A name that was given up is never given to another setting. */
const formerNames: Readonly<Record<string, SettingName>> = {
  skinSpeed: 'topBottomSpeed',
  skinAcceleration: 'topBottomAcceleration',
  skinPattern: 'topBottomPattern',
  supportRoofLayers: 'supportTopLayers',
}
/** The name that a setting has today. */
export const nameToday = (name: string): string => formerNames[name] ?? name

/** Values by the names that their settings have today; what is no object is passed on, for whoever checks it to refuse. */
export const byNamesOfToday = (given: unknown): unknown =>
  typeof given === 'object' && given !== null && !Array.isArray(given)
    ? Object.fromEntries(Object.entries(given).map(([name, value]) => [nameToday(name), value]))
    : given

/** Zod schema of what a profile may hold: any subset of the settings, each within its range, nothing else. */
export const settingValuesSchema = z.preprocess(
  byNamesOfToday,
  z.strictObject(Object.fromEntries(settingNames.map((name) => [name, schemaOf(settings[name]).optional()]))),
) as unknown as z.ZodType<SettingValues>

/**
 * Checks one value against its setting.
 *
 * @param where file or place that is named in the refusal
 * @throws InputError naming the setting, its range and its unit
 */
export function checkValue(name: string, value: unknown, where = ''): number | string {
  const place = where === '' ? name : `${where}, ${name}`
  if (!isSettingName(name)) {
    throw new InputError('setting-unknown', 'There is no such setting.', place, suggestName(name))
  }
  const setting = definitionOf(name)
  const parsed = schemaOf(setting).safeParse(value)
  if (parsed.success) return parsed.data
  const given = typeof value === 'string' ? `"${value}"` : String(value)
  throw new InputError(
    'setting-out-of-range',
    `${given} is not a possible ${setting.label.toLowerCase()}.`,
    place,
    `Give ${describeRange(setting)}.`,
  )
}

/** Reads what a person typed or wrote on a command line. A comma counts as a decimal point. @throws InputError */
export function parseValue(name: string, text: string, where = ''): number | string {
  const numeric = isSettingName(name) && definitionOf(name).kind === 'number'
  const trimmed = text.trim()
  if (!numeric) return checkValue(name, isSettingName(name) ? choiceNamed(name, trimmed) : trimmed, where)
  if (isAmbiguous(trimmed)) {
    const [small, large] = [trimmed.replace(',', '.'), trimmed.replaceAll(',', '')]
    throw new InputError(
      'number-ambiguous',
      `"${trimmed}" can be ${Number(small)} or ${Number(large)}.`,
      where === '' ? name : `${where}, ${name}`,
      `Write ${Number(small)} or ${Number(large)}.`,
    )
  }
  const isNumber = /^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(trimmed)
  return checkValue(name, isNumber ? Number(trimmed.replace(',', '.')) : trimmed, where)
}

/** The choice that is meant, whether it is written "insideFirst" or "Inside first"; the text itself where none is. */
function choiceNamed(name: SettingName, text: string): string {
  const setting = definitionOf(name)
  const plain = (words: string): string => words.toLowerCase().replace(/[\s_-]/g, '')
  return (setting.kind === 'choice' && setting.choices.find((choice) => plain(choice) === plain(text))) || text
}

/** "a number from 0.02 to 1.2 mm" */
export function describeRange(setting: Setting): string {
  if (setting.kind === 'choice') return `one of ${setting.choices.join(', ')}`
  const unit = setting.unit === '' ? '' : ` ${setting.unit}`
  return `a ${setting.whole ? 'whole number' : 'number'} from ${setting.min} to ${setting.max}${unit}`
}

function suggestName(name: string): string {
  const wanted = plain(name)
  const match = settingNames.find((known) =>
    [known, settings[known].label, ...settings[known].synonyms].some(
      (word) => plain(word) === wanted || (wanted.length > 3 && plain(word).includes(wanted)),
    ),
  )
  return match ? `Did you mean ${match}?` : nearestNames(name, settingNames, 'settings')
}

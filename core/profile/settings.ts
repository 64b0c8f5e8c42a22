import { z } from 'zod'
import { InputError } from '../errors'

/** The stage of the pipeline that first reads a setting; every stage after it sees the change through its input. */
export const stages = ['layers', 'regions', 'toolpath', 'motion', 'figures'] as const
export type Stage = (typeof stages)[number]

/** Groups of the ledger, named for what they shape. */
export const groups = ['Line', 'Skin', 'Core', 'Pace', 'Air', 'Pull', 'Foot'] as const
export type Group = (typeof groups)[number]

interface Common {
  readonly label: string
  readonly group: Group
  readonly stage: Stage
  readonly help: string
  /** Other words that practitioners use, for search. */
  readonly synonyms: readonly string[]
}

export interface NumberSetting extends Common {
  readonly kind: 'number'
  readonly unit: '' | 'mm' | 'mm/s' | 'mm/s²' | 'mm³/s' | '%' | '°C' | 's'
  readonly min: number
  readonly max: number
  /** One press of an arrow key. */
  readonly step: number
  readonly whole: boolean
  /** Common practice for a 0.4 mm bore, used where neither printer, nozzle, material nor profile says otherwise. */
  readonly fallback: number
}

export interface ChoiceSetting<C extends string = string> extends Common {
  readonly kind: 'choice'
  readonly choices: readonly C[]
  readonly fallback: C
}

export type Setting = NumberSetting | ChoiceSetting

type Range = readonly [min: number, max: number, step: number]

function number(
  group: Group,
  stage: Stage,
  label: string,
  unit: NumberSetting['unit'],
  [min, max, step]: Range,
  fallback: number,
  help: string,
  ...synonyms: string[]
): NumberSetting {
  return { kind: 'number', group, stage, label, unit, min, max, step, whole: unit === '' && step === 1, fallback, help, synonyms }
}

function choice<const C extends string>(
  group: Group,
  stage: Stage,
  label: string,
  choices: readonly C[],
  fallback: C,
  help: string,
  ...synonyms: string[]
): ChoiceSetting<C> {
  return { kind: 'choice', group, stage, label, choices, fallback, help, synonyms }
}

/**
 * Every setting of a profile, one line each: group, first stage that reads it, label, unit, [least, greatest, step],
 * fallback, help, synonyms. Files, API, command line, ledger and docs all read this table.
 */
export const settings = {
  layerHeight: number(
    'Line',
    'layers',
    'Layer height',
    'mm',
    [0.02, 1.2, 0.02],
    0.2,
    'Thickness of each layer above the first. Thinner is smoother and slower.',
    'layer thickness',
    'resolution',
  ),
  lineWidth: number(
    'Line',
    'regions',
    'Line width',
    'mm',
    [0.1, 2.4, 0.02],
    0.4,
    'Width that a line takes up beside its neighbours. Usually the bore of the nozzle.',
    'extrusion width',
    'bead width',
  ),
  wallCount: number(
    'Skin',
    'regions',
    'Walls',
    '',
    [0, 40, 1],
    3,
    'Closed lines around every contour. Walls carry most of a bending load.',
    'perimeters',
    'shells',
    'wall loops',
  ),
  topLayers: number(
    'Skin',
    'regions',
    'Top layers',
    '',
    [0, 200, 1],
    4,
    'Solid layers under every surface that faces up.',
    'roof',
    'top skin',
    'top thickness',
  ),
  bottomLayers: number(
    'Skin',
    'regions',
    'Bottom layers',
    '',
    [0, 200, 1],
    4,
    'Solid layers over every surface that faces down.',
    'floor',
    'bottom skin',
    'bottom thickness',
  ),
  infillDensity: number(
    'Core',
    'toolpath',
    'Infill density',
    '%',
    [0, 100, 5],
    15,
    'Share of the inside that is solid plastic.',
    'fill',
    'infill percentage',
  ),
  infillPattern: choice(
    'Core',
    'toolpath',
    'Infill pattern',
    ['lines', 'grid'],
    'grid',
    'Lines cross from layer to layer; a grid crosses within each layer.',
    'fill pattern',
  ),
  outerWallSpeed: number(
    'Pace',
    'motion',
    'Outer wall speed',
    'mm/s',
    [1, 1000, 5],
    40,
    'Asked speed of the wall that shows. Slow is glossy, fast is matte.',
    'exterior wall',
    'outer perimeter',
    'outer shell',
  ),
  innerWallSpeed: number(
    'Pace',
    'motion',
    'Inner wall speed',
    'mm/s',
    [1, 1000, 5],
    60,
    'Asked speed of the walls behind the outer one.',
    'perimeter speed',
    'inner shell',
  ),
  infillSpeed: number('Pace', 'motion', 'Infill speed', 'mm/s', [1, 1000, 5], 80, 'Asked speed of sparse infill.', 'fill speed'),
  skinSpeed: number(
    'Pace',
    'motion',
    'Skin speed',
    'mm/s',
    [1, 1000, 5],
    60,
    'Asked speed of solid top and bottom layers.',
    'solid infill speed',
    'top speed',
    'bottom speed',
  ),
  travelSpeed: number(
    'Pace',
    'motion',
    'Travel speed',
    'mm/s',
    [1, 1500, 10],
    150,
    'Asked speed of moves that lay nothing.',
    'jump',
    'rapid',
  ),
  acceleration: number(
    'Pace',
    'motion',
    'Acceleration',
    'mm/s²',
    [20, 100000, 100],
    1500,
    'Asked acceleration while laying plastic; the printer may allow less.',
    'print acceleration',
  ),
  travelAcceleration: number(
    'Pace',
    'motion',
    'Travel acceleration',
    'mm/s²',
    [20, 100000, 100],
    1500,
    'Asked acceleration of moves that lay nothing.',
  ),
  cornerSpeed: number(
    'Pace',
    'motion',
    'Corner speed',
    'mm/s',
    [0, 100, 1],
    8,
    'Speed kept round a square corner.',
    'square corner velocity',
    'instant speed change',
  ),
  flowLimit: number(
    'Pace',
    'motion',
    'Flow limit',
    'mm³/s',
    [0.1, 200, 0.5],
    11,
    'Most plastic that the hot end can melt and push; every speed is held to it.',
    'volumetric speed',
    'melt rate',
  ),
  nozzleTemperature: number(
    'Air',
    'figures',
    'Nozzle temperature',
    '°C',
    [150, 500, 5],
    210,
    'Set temperature of the nozzle.',
    'hot-end temperature',
    'extruder temperature',
  ),
  fanSpeed: number('Air', 'figures', 'Fan', '%', [0, 100, 5], 100, 'Part cooling after the first layer.', 'cooling', 'part fan'),
  minLayerTime: number(
    'Air',
    'motion',
    'Least layer time',
    's',
    [0, 600, 1],
    5,
    'A layer that would be done sooner is slowed, so that it can set.',
    'minimum layer time',
    'cooling slow-down',
  ),
  floorSpeed: number(
    'Air',
    'motion',
    'Floor speed',
    'mm/s',
    [1, 500, 1],
    10,
    'Slowing for layer time never goes below this.',
    'minimum speed',
  ),
  retractLength: number(
    'Pull',
    'motion',
    'Retraction',
    'mm',
    [0, 20, 0.1],
    0.8,
    'Filament pulled back before a travel that leaves the part.',
    'retract distance',
  ),
  retractSpeed: number('Pull', 'motion', 'Retraction speed', 'mm/s', [1, 200, 1], 35, 'Speed at which filament is pulled back.'),
  pushBackSpeed: number(
    'Pull',
    'motion',
    'Push-back speed',
    'mm/s',
    [1, 200, 1],
    25,
    'Speed at which filament is pushed forward again; above about 30 mm/s motors tend to skip.',
    'prime speed',
    'unretract',
    'deretraction',
  ),
  retractMinTravel: number(
    'Pull',
    'toolpath',
    'Retract from',
    'mm',
    [0, 100, 0.5],
    1.5,
    'Travels shorter than this never retract.',
    'minimum travel',
  ),
  firstLayerHeight: number(
    'Foot',
    'layers',
    'First layer height',
    'mm',
    [0.02, 1.2, 0.02],
    0.2,
    'Thickness of the layer on the bed.',
    'initial layer',
  ),
  firstLayerSpeed: number(
    'Foot',
    'motion',
    'First layer speed',
    'mm/s',
    [1, 500, 5],
    25,
    'Nothing on the first layer is laid faster; about half the general speed is usual.',
    'initial layer speed',
  ),
  bedTemperature: number('Foot', 'figures', 'Bed temperature', '°C', [0, 200, 5], 60, 'Set temperature of the bed.', 'plate temperature'),
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

/** Zod schema of what a profile may hold: any subset of the settings, each within its range, nothing else. */
export const settingValuesSchema = z.strictObject(
  Object.fromEntries(settingNames.map((name) => [name, schemaOf(settings[name]).optional()])),
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
  if (!numeric) return checkValue(name, trimmed, where)
  const isNumber = /^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(trimmed)
  return checkValue(name, isNumber ? Number(trimmed.replace(',', '.')) : trimmed, where)
}

/** "a number from 0.02 to 1.2 mm" */
export function describeRange(setting: Setting): string {
  if (setting.kind === 'choice') return `one of ${setting.choices.join(', ')}`
  const unit = setting.unit === '' ? '' : ` ${setting.unit}`
  return `a ${setting.whole ? 'whole number' : 'number'} from ${setting.min} to ${setting.max}${unit}`
}

function suggestName(name: string): string {
  const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]/g, '')
  const wanted = plain(name)
  const match = settingNames.find((known) =>
    [known, settings[known].label, ...settings[known].synonyms].some(
      (word) => plain(word) === wanted || (wanted.length > 3 && plain(word).includes(wanted)),
    ),
  )
  return match ? `Did you mean ${match}?` : `Known settings: ${settingNames.join(', ')}.`
}

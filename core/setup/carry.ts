import { applies } from '../profile/applies'
import { definitionOf, type SettingName, type SettingValues, settingNames } from '../profile/settings'
import { isFilled } from '../shelf/material'
import { layersOf, resolveSettings, type Setup } from './resolve'

/** What another material, reel, nozzle or printer does to one value that a profile says. */
export interface CarriedValue {
  readonly name: SettingName
  readonly from: number | string
  /** What it becomes; nothing where the profile says it no more, and the shelf does. */
  readonly to: number | string | undefined
  /** What it then is, where the shelf says it. */
  readonly comesTo: number | string
  readonly why: string
}

/** Speeds that a material or a reel may say for itself, and that its flow holds. */
const lineSpeeds = ['outerWallSpeed', 'innerWallSpeed', 'infillSpeed', 'topBottomSpeed', 'firstLayerSpeed'] as const
/** What is found for a material, by trials: its number is nobody else's. */
const ofMaterial = [
  'nozzleTemperature',
  'bedTemperature',
  'flow',
  'flowLimit',
  'fanSpeed',
  'bridgeFan',
  'overhangFan25',
  'overhangFan50',
  'overhangFan75',
  'retractLength',
  'retractSpeed',
] as const satisfies readonly SettingName[]
/** Layers are no thicker than this share of the bore (CP-N3, common practice: 0.35 on a 0.4 bore, less for bond). */
const THICKEST = 0.75

/**
 * What a profile would say when it is printed with something else: every value that rests on what it was made with, worked out
 * anew, each with its reason. Values that are not named stay as they are.
 */
export function carry(values: SettingValues, before: Setup, after: Setup): CarriedValue[] {
  const found = new Map<SettingName, CarriedValue>()
  const put = (name: SettingName, to: number | string | undefined, why: string): void => {
    const from = values[name]
    if (from === undefined) return
    // What a later reason leaves as it was, an earlier one must not change.
    found.delete(name)
    if (to === from) return
    const { [name]: _, ...others } = values
    const comesTo = to ?? resolveSettings(after, others).settings[name]
    if (to === undefined && comesTo === from) return
    found.set(name, { name, from, to, comesTo, why })
  }
  const bores = [before.nozzle.bore, after.nozzle.bore] as const
  if (bores[0] !== bores[1]) linesOfBore(values, bores, put)
  if (before.material.key !== after.material.key || before.spool?.key !== after.spool?.key) {
    for (const name of ofMaterial)
      put(name, undefined, `found by trials for ${nameOf(before)}; ${nameOf(after)} has ${isSaid(name, after) ? 'its own' : 'none yet'}`)
    paces(values, before, after, put)
  }
  clogs(after, put)
  heldByFlow(values, found, after, put)
  const settings = resolveSettings(after, carriedValues(values, [...found.values()])).settings
  return settingNames.flatMap((name) => {
    const one = found.get(name)
    return one && applies(name, settings) ? [one] : []
  })
}

/** The values of a profile with some of what was carried over taken. */
export function carriedValues(values: SettingValues, taken: readonly CarriedValue[]): SettingValues {
  const next: Record<string, number | string | undefined> = { ...values }
  for (const { name, to } of taken) {
    if (to === undefined) delete next[name]
    else next[name] = to
  }
  return next as SettingValues
}

type Put = (name: SettingName, to: number | string | undefined, why: string) => void

const nameOf = ({ spool, material }: Setup): string => spool?.name ?? material.name
const isSaid = (name: SettingName, { spool, material }: Setup): boolean =>
  spool?.defaults[name] !== undefined || material.defaults[name] !== undefined

/** Another bore: lines follow it, layers with them, and as many walls as make the same thickness (CP-N8, common practice). */
function linesOfBore(values: SettingValues, [was, is]: readonly [number, number], put: Put): void {
  const share = is / was
  put('lineWidth', undefined, 'a line as wide as the bore')
  if (values.layerHeight !== undefined) {
    const kept = stepped('layerHeight', values.layerHeight * share)
    put(
      'layerHeight',
      Math.min(kept, stepped('layerHeight', THICKEST * is)),
      `the same share of the bore, at most ${100 * THICKEST} % of it`,
    )
  }
  put('firstLayerHeight', undefined, 'half the bore, and thick enough to forgive the bed')
  if (values.wallCount !== undefined && values.wallCount > 0) {
    const width = values.lineWidth ?? was
    const count = Math.max(1, Math.round((values.wallCount * width) / is))
    put('wallCount', count, `${(values.wallCount * width).toFixed(1)} mm of wall is ${count} lines of ${is} mm`)
  }
  for (const name of ['topLayers', 'bottomLayers'] as const) {
    const count = values[name]
    if (count !== undefined && count > 0) put(name, Math.max(2, Math.round(count / share)), 'the same thickness of solid layers')
  }
}

/** A material's own pace: the profile's speeds keep their share of it. */
function paces(values: SettingValues, before: Setup, after: Setup, put: Put): void {
  const [was, is] = [layersOf(before, {}), layersOf(after, {})]
  for (const name of lineSpeeds) {
    const asked = values[name]
    const own = is.spool[name] ?? is.material[name]
    if (asked === undefined || own === undefined) continue
    const usual = was.spool[name] ?? was.material[name] ?? was.printer[name] ?? was.fallback[name]!
    const to = stepped(name, own * Math.max(0.5, Math.min(2, asked / usual)))
    put(name, to, `${nameOf(after)} is laid at ${own} mm/s; the profile asked ${Math.round((100 * asked) / usual)} % of what was usual`)
  }
}

/** Filled filament clogs when it is laid slowly: a floor speed wins over layer time (S2). */
function clogs({ material }: Setup, put: Put): void {
  if (isFilled(material))
    put('minLayerTime', 0, `${material.name} clogs when it is slowed: no least layer time, and not under its floor speed`)
}

/** No speed asks for more than the hot end melts of it at this line. */
function heldByFlow(values: SettingValues, found: ReadonlyMap<SettingName, CarriedValue>, after: Setup, put: Put): void {
  const { settings } = resolveSettings(after, carriedValues(values, [...found.values()]))
  const most = settings.flowLimit / (settings.layerHeight * settings.lineWidth)
  for (const name of lineSpeeds) {
    const asked = found.get(name)?.to ?? values[name]
    if (typeof asked !== 'number' || asked <= most) continue
    put(
      name,
      Math.max(1, Math.floor(most)),
      `${settings.flowLimit.toFixed(1)} mm³/s hold a ${settings.layerHeight} × ${settings.lineWidth} mm line to ${Math.floor(most)} mm/s`,
    )
  }
}

/** A value at the setting's own step, within its range. */
function stepped(name: SettingName, value: number): number {
  const setting = definitionOf(name)
  if (setting.kind !== 'number') return value
  const step = setting.unit === 'mm' ? 0.01 : setting.step
  return Number(Math.min(setting.max, Math.max(setting.min, Math.round(value / step) * step)).toFixed(4))
}

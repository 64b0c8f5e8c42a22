import { type ConstantId, type Constants, medians } from '../constants/constants'
import { flowModel } from '../physics/melt/flowLimit'
import type { Override } from '../profile/overrides'
import { type SettingName, type Settings, type SettingValues, settingNames, settings } from '../profile/settings'
import { schoolDefaults } from '../schools/schools'
import { isFilled, type Material } from '../shelf/material'
import type { Nozzle } from '../shelf/nozzle'
import type { Printer } from '../shelf/printer'
import type { Spool, SpoolStock } from '../shelf/spool'
import type { Learned, Linked, ScoredFigure } from './learned'

/** What a value comes from; a later layer overrides an earlier one. */
export const origins = ['fallback', 'printer', 'nozzle', 'material', 'school', 'spool', 'profile'] as const
export type Origin = (typeof origins)[number]

/** What a candidate prints with and on. */
export interface Setup {
  readonly printer: Printer
  readonly nozzle: Nozzle
  /** With what is known of the spool in it: see `materialOf`. */
  readonly material: Material
  /** The very reel, where one is chosen. */
  readonly spool?: Spool | undefined
  /** What is left of it, how dry it is, and what else of its material is at hand; absent where no shelf is there to tell. */
  readonly stock?: SpoolStock | undefined
  /** What models rest on here; the medians of their table where nothing was read. */
  readonly constants?: Constants
  /** Those of them that were read, and how well they are known by that. */
  readonly known?: Readonly<Partial<Record<ConstantId, Learned>>> | undefined
  /** Those that were read together. */
  readonly linked?: readonly Linked[] | undefined
  /** Standard deviations that a figure's 80 % range reaches to either side, where prints of the log have told. */
  readonly coverage?: Readonly<Partial<Record<ScoredFigure, number>>> | undefined
}

export interface ResolvedSettings {
  readonly settings: Settings
  readonly origins: Readonly<Record<SettingName, Origin>>
}

/** What each layer says by itself, the lowest first. */
export function layersOf(setup: Setup, values: SettingValues): Readonly<Record<Origin, SettingValues>> {
  return {
    fallback: Object.fromEntries(settingNames.map((name) => [name, settings[name].fallback])),
    printer: setup.printer.defaults,
    nozzle: { ...nozzleDefaults(setup.nozzle), ...setup.nozzle.defaults },
    material: { flowLimit: safeFlow(setup, askedHeat(setup, values)), ...setup.material.defaults },
    school: schoolDefaults(setup.printer.schools, { ...setup.material, isFilled: isFilled(setup.material) }),
    spool: setup.spool?.defaults ?? {},
    profile: values,
  }
}

/**
 * Full settings for a profile on a machine: printer, then nozzle, then material, then the schools that were chosen, then spool, then the profile's own values. The
 * highest layer that says something wins.
 */
export function resolveSettings(setup: Setup, values: SettingValues): ResolvedSettings {
  const layers = layersOf(setup, values)
  const resolved: Record<string, number | string> = {}
  const from = {} as Record<SettingName, Origin>
  for (const origin of origins) {
    for (const [name, value] of Object.entries(layers[origin]) as [SettingName, number | string | undefined][]) {
      if (value === undefined) continue
      resolved[name] = value
      from[name] = origin
    }
  }
  return { settings: resolved as Settings, origins: from }
}

/** The nozzle temperature that these layers come to, °C. */
function askedHeat({ printer, nozzle, material, spool }: Setup, values: SettingValues): number {
  const school = schoolDefaults(printer.schools, { ...material, isFilled: isFilled(material) })
  const told = [values, spool?.defaults, school, material.defaults, nozzle.defaults, printer.defaults]
  return told.find((layer) => layer?.nozzleTemperature !== undefined)?.nozzleTemperature ?? settings.nozzleTemperature.fallback
}

/** What to ask at most at a temperature: the safe share of what the user's ladder says there, else of what is assumed, mm³/s. */
function safeFlow(setup: Setup, temperature: number): number {
  const { constants = medians } = setup
  return Math.round(constants.melt.safeShare * flowModel(setup, temperature, constants).failsAt * 10) / 10
}

/** Overrides that change the heat change the flow that may be asked with it, unless the profile itself says what may be. */
export function flowBound(overrides: readonly Override[], { origins }: ResolvedSettings, setup: Setup): readonly Override[] {
  if (origins.flowLimit !== 'material' || setup.material.defaults.flowLimit !== undefined) return overrides
  return overrides.map((override) => {
    const { nozzleTemperature, flowLimit } = override.values
    if (nozzleTemperature === undefined || flowLimit !== undefined) return override
    return { ...override, values: { ...override.values, flowLimit: safeFlow(setup, nozzleTemperature) } }
  })
}

/** A line as wide as the bore, half as high, and between a fifth and seven tenths where heights follow the shape: common practice. */
function nozzleDefaults({ bore }: Nozzle): SettingValues {
  const share = (of: number): number => Math.round(bore * of * 100) / 100
  const height = share(0.5)
  return {
    lineWidth: bore,
    layerHeight: height,
    firstLayerHeight: Math.max(height, 0.2 * Math.min(1, bore / 0.4)),
    leastLayerHeight: Math.max(share(0.2), settings.leastLayerHeight.min),
    greatestLayerHeight: share(0.7),
  }
}

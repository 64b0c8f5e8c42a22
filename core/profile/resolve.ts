import { assumedFlowLimit } from '../melt/flowLimit'
import type { Material } from '../shelf/material'
import type { Nozzle, Printer } from '../shelf/printer'
import { type SettingName, type Settings, type SettingValues, settingNames, settings } from './settings'

/** What a value comes from; a later layer overrides an earlier one. */
export const origins = ['fallback', 'printer', 'nozzle', 'material', 'profile'] as const
export type Origin = (typeof origins)[number]

/** What a candidate prints with and on. */
export interface Setup {
  readonly printer: Printer
  readonly nozzle: Nozzle
  readonly material: Material
}

export interface ResolvedSettings {
  readonly settings: Settings
  readonly origins: Readonly<Record<SettingName, Origin>>
}

/**
 * Full settings for a profile on a machine: printer, then nozzle, then material, then the profile's own values. The
 * highest layer that says something wins.
 */
export function resolveSettings(setup: Setup, values: SettingValues): ResolvedSettings {
  const layers: Record<Origin, SettingValues> = {
    fallback: Object.fromEntries(settingNames.map((name) => [name, settings[name].fallback])),
    printer: setup.printer.defaults,
    nozzle: nozzleDefaults(setup.nozzle),
    material: { ...setup.material.defaults, flowLimit: assumedFlowLimit(setup.printer, setup.material) },
    profile: values,
  }
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

/** A line as wide as the bore, half as high: common practice. */
function nozzleDefaults({ bore }: Nozzle): SettingValues {
  const height = Math.round(bore * 50) / 100
  return { lineWidth: bore, layerHeight: height, firstLayerHeight: Math.max(height, 0.2 * Math.min(1, bore / 0.4)) }
}

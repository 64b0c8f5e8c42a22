import type { Settings, SettingValues } from '../profile/settings'
import { resolveSettings, type Setup } from '../setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '../shelf/starter'

const byKey = <T extends { readonly key: string }>(records: readonly T[], key: string): T => {
  const found = records.find((record) => record.key === key)
  if (!found) throw new Error(`no starter record ${key}`)
  return found
}

export const setupOf = (printer = 'lugger', nozzle = 'bore-0.4', material = 'pla'): Setup => ({
  printer: byKey(starterPrinters, printer),
  nozzle: byKey(starterNozzles, nozzle),
  material: byKey(starterMaterials, material),
})

export const settingsOf = (values: SettingValues = {}, setup = setupOf()): Settings => resolveSettings(setup, values).settings

/** The same settings everywhere, as stages that mind overrides want them. */
export const everywhere = (values: SettingValues = {}, setup = setupOf()): (() => Settings) => {
  const settings = settingsOf(values, setup)
  return () => settings
}

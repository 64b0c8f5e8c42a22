import type { Override } from '../profile/overrides'
import type { Settings } from '../profile/settings'

/** A nozzle temperature, °C, and who asks for it: a setting of the profile, or an override by its name. */
export interface AskedHeat {
  readonly celsius: number
  readonly setting?: 'nozzleTemperature' | 'firstLayerNozzle'
  readonly override?: string
}

/** Every nozzle temperature that a candidate asks for. */
export const askedHeats = (
  { nozzleTemperature, firstLayerNozzle }: Pick<Settings, 'nozzleTemperature' | 'firstLayerNozzle'>,
  overrides: readonly Override[],
): AskedHeat[] => [
  { celsius: nozzleTemperature, setting: 'nozzleTemperature' },
  ...(firstLayerNozzle > 0 ? [{ celsius: firstLayerNozzle, setting: 'firstLayerNozzle' as const }] : []),
  ...overrides.flatMap(({ name, values: { nozzleTemperature: celsius } }) => (celsius === undefined ? [] : [{ celsius, override: name }])),
]

export const hottestOf = (heats: readonly AskedHeat[]): AskedHeat =>
  heats.reduce((most, next) => (next.celsius > most.celsius ? next : most))

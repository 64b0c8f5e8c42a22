import { applies } from '../profile/applies'
import { definitionOf, type SettingName, type Settings, type SettingValues } from '../profile/settings'

/** A single change of a profile that a person would think of. */
export interface Lever {
  readonly name: SettingName
  /** "one wall more" */
  readonly label: string
  readonly values: SettingValues
}

type Change = readonly [name: SettingName, label: string, to: (now: number) => number]

/** Common practice's first things to try, each by a step that shows. */
const changes: readonly Change[] = [
  ['wallCount', 'one wall more', (n) => n + 1],
  ['wallCount', 'one wall less', (n) => n - 1],
  ['infillDensity', 'ten points more infill', (n) => n + 10],
  ['infillDensity', 'ten points less infill', (n) => n - 10],
  ['topLayers', 'one top layer more', (n) => n + 1],
  ['layerHeight', 'layers a fifth thinner', (n) => n * 0.8],
  ['layerHeight', 'layers a fifth thicker', (n) => n * 1.2],
  ['outerWallSpeed', 'outer wall a third slower', (n) => n / 1.5],
  ['outerWallSpeed', 'outer wall half as fast again', (n) => n * 1.5],
  ['infillSpeed', 'infill half as fast again', (n) => n * 1.5],
  ['acceleration', 'half as much acceleration again', (n) => n * 1.5],
  ['minLayerTime', 'five seconds more layer time', (n) => n + 5],
  ['nozzleTemperature', 'five degrees hotter', (n) => n + 5],
  ['nozzleTemperature', 'five degrees cooler', (n) => n - 5],
  ['fanSpeed', 'twenty points less fan', (n) => n - 20],
  ['fanSpeed', 'twenty points more fan', (n) => n + 20],
  ['retractLength', 'half as much retraction again', (n) => n * 1.5],
]

/** The changes that a profile has room for. */
export function leversFor(settings: Settings): Lever[] {
  const patterns = (['triangles', 'gyroid', 'lines'] as const).filter(
    (pattern) => settings.infillDensity > 0 && pattern !== settings.infillPattern,
  )
  return [
    ...numberLevers(settings),
    ...patterns.map((infillPattern): Lever => ({ name: 'infillPattern', label: `infill as ${infillPattern}`, values: { infillPattern } })),
  ]
}

function numberLevers(settings: Settings): Lever[] {
  return changes.flatMap(([name, label, to]) => {
    const setting = definitionOf(name)
    const now = Number(settings[name])
    if (setting.kind !== 'number' || !applies(name, settings)) return []
    const digits = setting.whole ? 0 : 3
    const value = Number(to(now).toFixed(digits))
    // A change that would be cut short is not the one that its label names.
    return value === now || value < setting.min || value > setting.max ? [] : [{ name, label, values: { [name]: value } }]
  })
}

import type { Settings } from './settings'

export interface Heat {
  readonly nozzle: number
  readonly bed: number
}

/** Set temperatures of a layer, °C: the first has its own where it is told. */
export const heatOn = (
  layer: number,
  own: Pick<Settings, 'nozzleTemperature' | 'bedTemperature' | 'firstLayerNozzle' | 'firstLayerBed'>,
): Heat => ({
  nozzle: (layer === 0 && own.firstLayerNozzle) || own.nozzleTemperature,
  bed: (layer === 0 && own.firstLayerBed) || own.bedTemperature,
})

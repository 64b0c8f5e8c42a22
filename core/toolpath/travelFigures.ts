import { Scopes } from '../profile/exceptions'
import type { Regions } from '../regions/findRegions'
import type { PolygonKernel } from '../regions/polygon'
import { type Layers, layerCount } from '../slicing/layers'
import { layPaths } from './layPaths'
import { code, type Toolpath } from './toolpath'

export interface TravelFigures {
  /** Way of one part that is run without laying anything, mm. */
  readonly lengthMm: number
  /** How much longer it would be if holes and islands were not finished one by one; estimated from some layers, mm. */
  readonly savedMm?: number
}

/** What another order of walls would save is worked out on this many layers at most. */
const SAMPLED_LAYERS = 8

export function travelFigures(layers: Layers, regions: Regions, path: Toolpath, scopes: Scopes, kernel: PolygonKernel): TravelFigures {
  const lengthMm = travelLength(path)
  if (scopes.settings.finishEachLoop === 'off') return { lengthMm }
  const every = Math.ceil(layerCount(layers) / SAMPLED_LAYERS)
  const isSampled = (layer: number): boolean => layer % every === 0
  const other = new Scopes({ ...scopes.settings, finishEachLoop: 'off' }, scopes.exceptions)
  const on = travelLength(path, isSampled)
  const off = travelLength(layPaths(layers, regions, other, kernel, { only: isSampled }))
  return { lengthMm, savedMm: on > 0 ? (off / on - 1) * lengthMm : 0 }
}

function travelLength({ x, y, feature, layerStart }: Toolpath, counts: (layer: number) => boolean = () => true): number {
  let length = 0
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    if (!counts(layer)) continue
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++)
      if (feature[m] === code.travel) length += Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
  }
  return length
}

import type { Settings } from '../profile/settings'
import type { Layers } from '../slicing/layers'
import type { Regions } from './findRegions'
import { isSpiral } from './spiral'

/** Every closed outer wall has one seam as high as its layer, mm; a wall that rises as one line has none. */
export function seamLength(
  { walls: [outer] }: Regions,
  { height }: Layers,
  settings: Pick<Settings, 'spiralWall' | 'bottomLayers'>,
): number {
  if (!outer) return 0
  return height.reduce(
    (sum, h, layer) => (isSpiral(layer, settings) ? sum : sum + h * (outer.groupStart[layer + 1]! - outer.groupStart[layer]!)),
    0,
  )
}

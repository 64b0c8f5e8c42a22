import type { Layers } from '../slicing/layers'
import type { Regions } from './findRegions'

/** Every closed outer wall has one seam as high as its layer, mm. */
export function seamLength({ walls: [outer] }: Regions, { height }: Layers): number {
  if (!outer) return 0
  return height.reduce((sum, h, layer) => sum + h * (outer.groupStart[layer + 1]! - outer.groupStart[layer]!), 0)
}

import { Insets } from '../../geometry/insets'
import type { PolygonKernel } from '../../geometry/polygon'
import type { Regions } from '../../regions/findRegions'
import { type Layers, layerCount } from '../../slicing/layers'

/** The widest way that a top spans from wall to wall if nothing stands under it, mm, to a millimetre: twice its depth in what the walls leave. */
export function widestCavity(layers: Layers, { topBottom, bridges, infill }: Regions, kernel: PolygonKernel): number {
  let widest = 0
  for (let layer = 1; layer < layerCount(layers); layer++) {
    kernel.run((ops) => {
      const inside = ops.read(infill, layer - 1)
      if (ops.isEmpty(inside)) return
      const top = ops.gather([ops.read(topBottom, layer), ops.read(bridges, layer)])
      if (ops.isEmpty(top)) return
      const over = ops.intersect(inside, top)
      if (!ops.isEmpty(over)) widest = Math.max(widest, 2 * new Insets(ops, inside).depthOf(over))
    })
  }
  return widest
}

import { type Contours, ContoursBuilder, emptyContours } from '../geometry/contours'
import type { PolygonKernel } from '../geometry/polygon'

/** Lines higher than this share of the bore hardly press onto what lies below; common practice. */
export const HIGHEST_LINE = 0.875

export interface CombinedInfill {
  /** Laid in every layer by itself. */
  readonly infill: Contours
  /** Laid once for several layers, in the topmost of them. */
  readonly thick: Contours
  /** How high `thick` is laid in each layer, mm; 0 where it is not. */
  readonly thickHeight: Float64Array
}

/**
 * Joins the infill of every `every` layers where it lies in all of them, and lays it at once in the topmost, as high as the
 * bore allows (CP-T7, common practice).
 *
 * @param height of each layer, mm
 * @param bore of the nozzle, mm
 */
export function combineInfill(infill: Contours, height: Float64Array, every: number, bore: number, kernel: PolygonKernel): CombinedInfill {
  const count = height.length
  const thickHeight = new Float64Array(count)
  if (every <= 1) return { infill, thick: emptyContours(count), thickHeight }
  const single = new ContoursBuilder()
  const thick = new ContoursBuilder()
  // The first layer lies on the bed and is laid by itself.
  let from = 0
  while (from < count) {
    let to = from + 1
    let high = height[from]!
    while (from > 0 && to < count && to - from < every && high + height[to]! <= HIGHEST_LINE * bore + 1e-9) high += height[to++]!
    kernel.run((ops) => {
      const layers = Array.from({ length: to - from }, (_, i) => ops.read(infill, from + i))
      const common = layers.length > 1 ? layers.reduce((a, b) => ops.intersect(a, b)) : ops.empty()
      for (const [i, own] of layers.entries()) {
        ops.write(ops.isEmpty(common) ? own : ops.subtract(own, common), single)
        if (i === layers.length - 1) ops.write(common, thick)
        single.endGroup()
        thick.endGroup()
      }
      if (!ops.isEmpty(common)) thickHeight[to - 1] = high
    })
    from = to
  }
  return { infill: single.finish(), thick: thick.finish(), thickHeight }
}

import { type Contours, ContoursBuilder } from '../geometry/contours'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel, PolygonOps, Region } from '../geometry/polygon'
import { stackGroups } from '../geometry/stackGroups'

/** Props lean inwards from the walls by as much as they rise: 45° come out clean (CP-S7, common practice). */
const LEAN = 1
/** Depth of a place is found to this, mm. */
const DEPTH_STEP = 0.5

/**
 * Where the inside needs infill only to hold up tops. Under every top it covers the whole place; below, it is a ledge that
 * grows out of the walls, one layer height a layer, so that it closes just under the top. Lightest of all, and no strength.
 *
 * @param infill what the walls and skins leave, one group a layer
 * @param solid skins and bridges above which something must hold, one group a layer
 */
export function topPropping(
  infill: Contours,
  solid: readonly Contours[],
  height: Float64Array,
  width: number,
  kernel: PolygonKernel,
): Contours {
  const count = height.length
  const needed: Contours[] = new Array(count)
  /** What has already grown free of props below a top: it widens downwards. */
  let hollow: Contours | undefined
  let above: Contours | undefined
  for (let layer = count - 1; layer >= 0; layer--) {
    const free = new ContoursBuilder()
    needed[layer] = oneGroup(kernel, (ops) => {
      const own = ops.read(infill, layer)
      if (ops.isEmpty(own)) return own
      const roofs = layer + 1 < count ? solid.map((contours) => ops.read(contours, layer + 1)).filter((region) => !ops.isEmpty(region)) : []
      const roof = roofs.length > 0 ? ops.intersect(own, ops.unite(ops.gather(roofs))) : ops.empty()
      const step = height[layer]! * LEAN
      const old = above && !ops.isEmpty(ops.read(above, 0)) ? ops.intersect(ops.read(above, 0), own) : ops.empty()
      const widened = hollow && hollow.xy.length > 0 ? ops.swell(ops.read(hollow, 0), step) : ops.empty()
      // Pieces that are not yet hollow begin to be in their deepest place.
      const grown = ops.isEmpty(old) ? old : ops.unite(ops.gather([widened, ...deepest(ops, old, widened, step)]))
      const held = ops.isEmpty(old) ? old : ops.isEmpty(grown) ? old : ops.subtract(old, grown)
      const all = ops.isEmpty(roof) ? held : ops.unite(ops.gather([held, roof]))
      ops.write(ops.isEmpty(roof) || ops.isEmpty(grown) ? grown : ops.subtract(grown, roof), free)
      return ops.simplify(all, width / 8)
    })
    free.endGroup()
    hollow = free.finish()
    above = needed[layer]
  }
  return stackGroups(needed)
}

/** The deepest place of every piece that the hollow has not reached. */
function deepest(ops: PolygonOps, region: Region, hollow: Region, step: number): Region[] {
  const fresh = ops.isEmpty(hollow) ? region : ops.subtract(region, ops.swell(hollow, step))
  if (ops.isEmpty(fresh)) return []
  let core = fresh
  for (;;) {
    const next = ops.offset(core, -DEPTH_STEP)
    if (ops.isEmpty(next)) return [ops.swell(core, step)]
    core = next
  }
}

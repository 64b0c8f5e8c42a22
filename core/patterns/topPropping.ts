import { type Contours, ContoursBuilder } from '../geometry/contours'
import { DEPTH_STEP, Insets } from '../geometry/insets'
import { oneGroup } from '../geometry/oneGroup'
import type { PolygonKernel, PolygonOps, Region } from '../geometry/polygon'
import { polygonsOf, regionOf } from '../geometry/polygonsOf'
import { stackGroups } from '../geometry/stackGroups'

/** Ledges lean inwards from the walls by so much for what they rise: 60°, the usual limit where nothing shows (CP-S7, common practice). */
const LEAN = Math.tan(Math.PI / 3)

/** What carries some tops: a ledge along the rim of the inside, as wide as its tops lie deep, and narrower with every layer below them. */
interface Ledge {
  /** From the rim, mm. */
  readonly width: number
  readonly covers: Contours
}

/**
 * Where the inside needs infill only to hold up tops. Under whatever is solid it covers the whole
 * place; below, it is a ledge that grows out of the walls as far as a line may hang over, so that it closes just under the top. Lightest of all, and no strength.
 *
 * @param outlines of the part, one group a layer
 * @param infill what walls, tops and bottoms leave of them, one group a layer
 */
export function topPropping(outlines: Contours, infill: Contours, height: Float64Array, width: number, kernel: PolygonKernel): Contours {
  const count = height.length
  const needed: Contours[] = new Array(count)
  let ledges: Ledge[] = []
  for (let layer = count - 1; layer >= 0; layer--) {
    needed[layer] = oneGroup(kernel, (ops) => {
      const own = ops.simplify(ops.read(infill, layer), width / 8)
      const inside = new Insets(ops, own)
      const hang = height[layer]! * LEAN
      const below = ledges.map((ledge) => lowered(ops, ledge, inside, hang))
      const tops = layer + 1 < count ? ops.subtract(ops.intersect(own, ops.read(outlines, layer + 1)), ops.read(infill, layer + 1)) : own
      const begun = bodies(ops, tops).map((top) => ({ width: inside.depthOf(top), covers: top }))
      const all = merged(ops, [...below, ...begun.filter((top) => top.width > hang)])
      ledges = all.map((ledge) => ({ width: ledge.width, covers: asContours(ops, ops.simplify(ledge.covers, width / 8)) }))
      return all.length === 0 ? ops.empty() : ops.unite(ops.gather(all.map(({ covers }) => covers)))
    })
  }
  return stackGroups(needed)
}

/** A ledge while the kernel holds it. */
interface HeldLedge {
  readonly width: number
  readonly covers: Region
}

/** What must lie one layer below a ledge: as much less wide as a line may hang over, and around it where it has not come to a wall. */
function lowered(ops: PolygonOps, ledge: Ledge, inside: Insets, hang: number): HeldLedge {
  const above = ops.intersect(ops.read(ledge.covers, 0), inside.own)
  // Where walls or tops and bottoms end, the rim may suddenly be farther away than a layer higher.
  const beyond = ops.isEmpty(above) ? above : ops.intersect(above, inside.by(ledge.width + DEPTH_STEP))
  const width = (ops.isEmpty(beyond) ? ledge.width : inside.depthOf(beyond)) - hang
  if (ops.isEmpty(above) || width <= 0) return { width: 0, covers: ops.empty() }
  return { width, covers: ops.subtract(ops.intersect(ops.offset(above, hang), inside.own), inside.by(width)) }
}

/** The separate bodies of a region. */
const bodies = (ops: PolygonOps, region: Region): Region[] => polygonsOf(ops, region).map((rims) => regionOf(ops, rims))

/** Ledges about as wide as each other, as one. */
function merged(ops: PolygonOps, ledges: readonly HeldLedge[]): HeldLedge[] {
  const groups: HeldLedge[][] = []
  const widestFirst = ledges.filter(({ covers }) => !ops.isEmpty(covers)).sort((a, b) => b.width - a.width)
  for (const ledge of widestFirst) {
    const group = groups[groups.length - 1]
    if (group && group[0]!.width - ledge.width < DEPTH_STEP) group.push(ledge)
    else groups.push([ledge])
  }
  return groups.map((group) =>
    group.length === 1 ? group[0]! : { width: group[0]!.width, covers: ops.unite(ops.gather(group.map(({ covers }) => covers))) },
  )
}

function asContours(ops: PolygonOps, region: Region): Contours {
  const out = new ContoursBuilder()
  ops.write(region, out)
  out.endGroup()
  return out.finish()
}

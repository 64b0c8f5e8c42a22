import { type Contours, ContoursBuilder, polygonArea } from './contours'
import type { PolygonOps, Region } from './polygon'

/** The separate bodies of a region: each an outer rim and the holes in it, every rim as x, y … in mm. */
export function polygonsOf(ops: PolygonOps, region: Region): Float64Array[][] {
  const builder = new ContoursBuilder()
  ops.write(region, builder)
  builder.endGroup()
  return bodiesOf(builder.finish(), 0)
}

/** A body as a region of its own. */
export const regionOf = (ops: PolygonOps, rims: readonly ArrayLike<number>[]): Region => ops.gather(rims.map((rim) => ops.polygon(rim)))

/** The separate bodies of one group of contours. */
export function bodiesOf(contours: Contours, group: number): Float64Array[][] {
  const rims: { xy: Float64Array; area: number }[] = []
  for (let p = contours.groupStart[group]!; p < contours.groupStart[group + 1]!; p++)
    rims.push({
      xy: contours.xy.slice(2 * contours.polygonStart[p]!, 2 * contours.polygonStart[p + 1]!),
      area: polygonArea(contours, p),
    })
  // Smallest first: of nested outer rims that hold a hole, the innermost is the one that it belongs to.
  const outers = rims.filter(({ area }) => area > 0).sort((a, b) => a.area - b.area)
  const bodies = outers.map(({ xy }) => [xy])
  for (const hole of rims.filter(({ area }) => area < 0)) {
    const home = outers.findIndex(({ xy, area }) => area > -hole.area && holds(xy, hole.xy[0]!, hole.xy[1]!))
    bodies[home]?.push(hole.xy)
  }
  return bodies
}

/** Whether a rim holds a point: even-odd rule. */
export function holds(xy: ArrayLike<number>, x: number, y: number): boolean {
  let inside = false
  const count = xy.length / 2
  for (let i = 0, j = count - 1; i < count; j = i++) {
    const yi = xy[2 * i + 1]!
    const yj = xy[2 * j + 1]!
    if (yi > y !== yj > y && x < ((xy[2 * j]! - xy[2 * i]!) * (y - yi)) / (yj - yi) + xy[2 * i]!) inside = !inside
  }
  return inside
}

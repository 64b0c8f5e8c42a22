import { cornersOf, type Side } from '../profile/patch'
import { isLaid, type Toolpath } from '../toolpath/toolpath'

/** What a part covers of the bed, seen from above: corners of a convex polygon, x, y …, counter-clockwise, mm. */
export type Footprint = readonly number[]

/** Directions in which it is looked how far a part reaches: of a round one this says 0.1 % too much. */
const DIRECTIONS = 72

/** The footprint of everything that is laid, supports and skirt with it; never less than it is. */
export function footprintOf(path: Toolpath): Footprint {
  const most = new Float64Array(DIRECTIONS).fill(-Infinity)
  const across = Array.from({ length: DIRECTIONS }, (_, k) => {
    const angle = (2 * Math.PI * k) / DIRECTIONS
    return [Math.cos(angle), Math.sin(angle)] as const
  })
  for (let m = 0; m < path.feature.length; m++) {
    if (!isLaid(path.feature[m]!)) continue
    const half = path.width[m]! / 2
    for (const end of [m, m + 1])
      for (let k = 0; k < DIRECTIONS; k++) {
        const reach = path.x[end]! * across[k]![0] + path.y[end]! * across[k]![1] + half
        if (reach > most[k]!) most[k] = reach
      }
  }
  return cornersOf({ sides: across.map((own, k): Side => ({ across: own, most: most[k]! })) })
}

/** The same turned about the origin by ° counter-clockwise, and moved. */
export function placedFootprint(
  footprint: Footprint,
  { x, y, turn }: { readonly x: number; readonly y: number; readonly turn: number },
): Footprint {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  return footprint.map((_, i) =>
    i % 2 === 0 ? x + footprint[i]! * cos - footprint[i + 1]! * sin : y + footprint[i - 1]! * sin + footprint[i]! * cos,
  )
}

export interface Extent {
  readonly minX: number
  readonly maxX: number
  readonly minY: number
  readonly maxY: number
}

export function extentOf(footprint: Footprint): Extent {
  const along = (axis: 0 | 1): number[] => footprint.filter((_, i) => i % 2 === axis)
  const [x, y] = [along(0), along(1)]
  return { minX: Math.min(...x), maxX: Math.max(...x), minY: Math.min(...y), maxY: Math.max(...y) }
}

/** How far two convex footprints lie apart, mm; 0 where they touch or overlap. */
export function gapBetween(a: Footprint, b: Footprint): number {
  if (!isApart(a, b) && !isApart(b, a)) return 0
  let least = Infinity
  for (const [one, other] of [
    [a, b],
    [b, a],
  ] as const)
    for (let i = 0; i < one.length; i += 2)
      for (let k = 0; k < other.length; k += 2) {
        const next = (k + 2) % other.length
        least = Math.min(least, distance(one[i]!, one[i + 1]!, other[k]!, other[k + 1]!, other[next]!, other[next + 1]!))
      }
  return least
}

/** Whether some side of one has all of the other beyond it: then, and only then, do convex shapes lie apart. */
function isApart(one: Footprint, other: Footprint): boolean {
  for (let i = 0; i < one.length; i += 2) {
    const next = (i + 2) % one.length
    const [dx, dy] = [one[next]! - one[i]!, one[next + 1]! - one[i + 1]!]
    let isBeyond = true
    for (let k = 0; k < other.length && isBeyond; k += 2) isBeyond = dx * (other[k + 1]! - one[i + 1]!) - dy * (other[k]! - one[i]!) < -1e-9
    if (isBeyond) return true
  }
  return false
}

/** Of a point from a straight side. */
function distance(x: number, y: number, x0: number, y0: number, x1: number, y1: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0]
  const share = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy || 1)))
  return Math.hypot(x - x0 - share * dx, y - y0 - share * dy)
}

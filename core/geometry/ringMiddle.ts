import { type Contours, polygonArea } from './contours'
import { type MiddleLine, withoutNeedless } from './middleLine'
import { NearIndex } from './nearIndex'
import { holds } from './polygonsOf'
import type { Rims } from './rims'

/** Points on the rim stand no farther apart than this, mm. */
const STEP = 0.7
/** From one point of the rim to the next the middle may go this many times as far; farther it has jumped. */
const LONGEST_LEAP = 3

/**
 * Middles of places that are rings: an outer rim with a single hole, as thin walls leave between them. Half-way from every
 * point of the outer rim to the nearest of the hole, without a diagram of all points.
 *
 * @param least narrower places are not judged, mm
 * @param most wider ones neither, mm
 * @returns undefined where some place is no such ring, or not within these widths all along
 */
export function ringMiddles(rims: Rims, least: number, most: number): MiddleLine[] | undefined {
  const pairs = pairUp(rims)
  const lines: MiddleLine[] = []
  for (const [outer, hole] of pairs ?? []) {
    const line = middleBetween(rims, outer, hole, least, most)
    if (!line) return undefined
    lines.push(line)
  }
  return pairs && lines
}

/** Every outer rim with its only hole. */
function pairUp(rims: Rims): [outer: number, hole: number][] | undefined {
  if (rims.count === 0 || rims.count % 2 === 1) return undefined
  const contours = asContours(rims, 0, rims.count)
  const all = Array.from({ length: rims.count }, (_, r) => ({ rim: r, area: polygonArea(contours, r) }))
  const outers = all.filter(({ area }) => area > 0).sort((a, b) => a.area - b.area)
  const pairs: [number, number][] = []
  for (const { rim, area } of all.filter((one) => one.area < 0)) {
    const at = 2 * rims.start[rim]!
    // Smallest first: the innermost outer rim that holds the hole is its own.
    const own = outers.find(
      (outer) =>
        outer.area > -area &&
        holds(rims.xy.subarray(2 * rims.start[outer.rim]!, 2 * rims.start[outer.rim + 1]!), rims.xy[at]!, rims.xy[at + 1]!),
    )
    if (!own || pairs.some(([taken]) => taken === own.rim)) return undefined
    pairs.push([own.rim, rim])
  }
  return pairs.length === outers.length ? pairs : undefined
}

const asContours = (rims: Rims, from: number, to: number): Contours => ({
  xy: rims.xy,
  polygonStart: rims.start,
  groupStart: Uint32Array.of(from, to),
})

function middleBetween(rims: Rims, outer: number, hole: number, least: number, most: number): MiddleLine | undefined {
  const { xy, start } = rims
  const inward = new NearIndex(asContours(rims, hole, hole + 1), 0, most)
  const outward = new NearIndex(asContours(rims, outer, outer + 1), 0, most)
  // No pocket of the hole may lie farther from the outer rim than the ring is wide.
  for (let i = start[hole]!; i < start[hole + 1]!; i++) {
    const width = -outward.signedDistance(xy[2 * i]!, xy[2 * i + 1]!)
    if (!(width >= least && width <= most)) return undefined
  }
  const points: number[] = []
  const widths: number[] = []
  const to = start[outer + 1]!
  for (let i = start[outer]!; i < to; i++) {
    const j = i + 1 === to ? start[outer]! : i + 1
    const dx = xy[2 * j]! - xy[2 * i]!
    const dy = xy[2 * j + 1]! - xy[2 * i + 1]!
    const pieces = Math.max(1, Math.ceil(Math.hypot(dx, dy) / STEP))
    for (let k = 0; k < pieces; k++) {
      const x = xy[2 * i]! + (dx * k) / pieces
      const y = xy[2 * i + 1]! + (dy * k) / pieces
      const near = inward.nearest(x, y)
      if (!near || -near.distance < least || -near.distance > most) return undefined
      points.push(x + near.awayX / 2, y + near.awayY / 2)
      widths.push(-near.distance)
    }
  }
  return leaps(points) ? undefined : { ...withoutNeedless(points, widths, true), closed: true }
}

/** Whether a closed line of points jumps somewhere. */
function leaps(points: readonly number[]): boolean {
  const count = points.length / 2
  for (let i = 0, j = count - 1; i < count; j = i++)
    if (Math.hypot(points[2 * i]! - points[2 * j]!, points[2 * i + 1]! - points[2 * j + 1]!) > LONGEST_LEAP * STEP) return true
  return count < 3
}

import type { Contours } from '../geometry/contours'
import { leavesPart } from './leavesPart'

/** A way round may be this many times as long as the straight one, and this much more, mm; else a retraction is cheaper. */
const LONGEST_DETOUR_SHARE = 3
const LONGEST_DETOUR = 20

/**
 * A way from one point to another that stays inside the part: straight until it would cross a rim of the lane, along that
 * rim on the shorter side, and on; then drawn tight.
 *
 * @param lane contours inside the outline, such as the middle of the outermost wall
 * @param outline what must not be crossed
 * @returns the points after the first, x, y … ending with the target; undefined where there is no such way
 */
export function insideRoute(
  lane: Contours,
  outline: Contours,
  group: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): number[] | undefined {
  const crossings = findCrossings(lane, group, x0, y0, x1, y1)
  if (crossings.length === 0) return undefined
  const route: number[] = [x0, y0]
  for (let i = 0; i < crossings.length; i++) {
    const entry = crossings[i]!
    // Leaving the lane over a rim, the way comes back over the last crossing of that same rim.
    let last = i
    for (let k = i + 1; k < crossings.length; k++) if (crossings[k]!.polygon === entry.polygon) last = k
    if (last === i) return undefined
    followRim(lane, entry, crossings[last]!, route)
    i = last
  }
  route.push(x1, y1)
  const tight = drawTight(route, outline, group)
  const length = lengthOf(tight)
  const straight = Math.hypot(x1 - x0, y1 - y0)
  if (length > LONGEST_DETOUR_SHARE * straight + LONGEST_DETOUR) return undefined
  for (let i = 0; i + 3 < tight.length; i += 2)
    if (leavesPart(outline, group, tight[i]!, tight[i + 1]!, tight[i + 2]!, tight[i + 3]!)) return undefined
  return tight.slice(2)
}

/** A way that ends on a rim crosses it there, within this share of its length. */
const ON_RIM = 1e-6

interface Crossing {
  readonly polygon: number
  /** First point of the edge that is crossed. */
  readonly edge: number
  readonly along: number
  readonly x: number
  readonly y: number
}

function findCrossings(
  { xy, polygonStart, groupStart }: Contours,
  group: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): Crossing[] {
  const dx = x1 - x0
  const dy = y1 - y0
  const found: Crossing[] = []
  for (let polygon = groupStart[group]!; polygon < groupStart[group + 1]!; polygon++) {
    const from = polygonStart[polygon]!
    const to = polygonStart[polygon + 1]!
    for (let i = from; i < to; i++) {
      const j = i + 1 === to ? from : i + 1
      const sideA = dx * (xy[2 * i + 1]! - y0) - dy * (xy[2 * i]! - x0)
      const sideB = dx * (xy[2 * j + 1]! - y0) - dy * (xy[2 * j]! - x0)
      if (sideA > 0 === sideB > 0) continue
      const share = sideA / (sideA - sideB)
      const x = xy[2 * i]! + share * (xy[2 * j]! - xy[2 * i]!)
      const y = xy[2 * i + 1]! + share * (xy[2 * j + 1]! - xy[2 * i + 1]!)
      const along = Math.abs(dx) > Math.abs(dy) ? (x - x0) / dx : (y - y0) / dy
      // Travels begin and end on walls, which may be the lane itself.
      if (along > -ON_RIM && along < 1 + ON_RIM) found.push({ polygon, edge: i, along, x, y })
    }
  }
  return found.sort((a, b) => a.along - b.along)
}

/** Appends the shorter way along a rim between two of its crossings. */
function followRim({ xy, polygonStart }: Contours, entry: Crossing, exit: Crossing, route: number[]): void {
  const from = polygonStart[entry.polygon]!
  const count = polygonStart[entry.polygon + 1]! - from
  const wrapped = (i: number): number => (((i - from) % count) + count) % count
  /** First and last point on the way, ahead or back along the rim. */
  const ends = (step: 1 | -1): [first: number, end: number] =>
    step === 1 ? [wrapped(entry.edge + 1), wrapped(exit.edge + 1)] : [wrapped(entry.edge), wrapped(exit.edge)]
  const length = (step: 1 | -1): number => {
    let [at, end] = ends(step)
    let [x, y, sum] = [entry.x, entry.y, 0]
    for (; at !== end; at = wrapped(from + at + step)) {
      const i = 2 * (from + at)
      sum += Math.sqrt((xy[i]! - x) ** 2 + (xy[i + 1]! - y) ** 2)
      x = xy[i]!
      y = xy[i + 1]!
    }
    return sum + Math.sqrt((exit.x - x) ** 2 + (exit.y - y) ** 2)
  }
  const step = length(1) <= length(-1) ? 1 : -1
  const [first, end] = ends(step)
  route.push(entry.x, entry.y)
  for (let at = first; at !== end; at = wrapped(from + at + step)) route.push(xy[2 * (from + at)]!, xy[2 * (from + at) + 1]!)
  route.push(exit.x, exit.y)
}

/** Leaves out every point that can be passed by without crossing the outline. */
function drawTight(route: readonly number[], outline: Contours, group: number): number[] {
  const count = route.length / 2
  const tight = [route[0]!, route[1]!]
  let at = 0
  while (at < count - 1) {
    let next = at + 1
    // Halving the span finds a far point that can be seen without trying every one.
    for (let span = count - 1 - at; span > 1; span = Math.floor(span / 2)) {
      if (leavesPart(outline, group, route[2 * at]!, route[2 * at + 1]!, route[2 * (at + span)]!, route[2 * (at + span) + 1]!)) continue
      next = at + span
      break
    }
    tight.push(route[2 * next]!, route[2 * next + 1]!)
    at = next
  }
  return tight
}

function lengthOf(route: readonly number[]): number {
  let length = 0
  for (let i = 2; i < route.length; i += 2) length += Math.hypot(route[i]! - route[i - 2]!, route[i + 1]! - route[i - 1]!)
  return length
}

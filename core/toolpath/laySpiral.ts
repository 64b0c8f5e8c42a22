import type { Contours } from '../geometry/contours'
import { polygonArea } from '../geometry/contours'
import { isSpiral } from '../regions/spiral'
import { layerCount } from '../slicing/layers'
import type { Plan } from './layLayer'
import type { Pen } from './pen'
import { code } from './toolpath'

/** A turn whose thickness grows or falls is laid in so many pieces at least. */
const PIECES = 48
/** So many sides of the turn below are looked at to either side of where the wall was last. */
const LOOKED_AT = 48

/**
 * One turn of a wall that rises as one line: from where the turn below ended, always on from that one's line to this one's, so that nothing shows where
 * layers change. The first turn grows out of the bottom, and on the last a level one ends the wall.
 */
export function laySpiral({ layers, regions, seams, scopes }: Plan, layer: number, width: number, pen: Pen): void {
  const [outer] = regions.walls as [Contours, ...Contours[]]
  const own = outer.groupStart[layer]!
  const turn = turnOf(outer, own, seams[own]!)
  const below = isSpiral(layer - 1, scopes.settings) ? outer.groupStart[layer - 1]! : largestOf(outer, layer - 1)
  const lower = turnOf(outer, below, isSpiral(layer - 1, scopes.settings) ? seams[below]! : nearestStart(outer, below, turn))
  const [from, height] = [layers.top[layer - 1]!, layers.height[layer]!]
  const grows = !isSpiral(layer - 1, scopes.settings)
  const before = grows ? 0 : layers.height[layer - 1]!
  const track = trackOn(lower)
  pen.goTo(lower[0]!, lower[1]!)
  for (const { x, y, t, middle } of along(turn, grows || before !== height ? PIECES : 1)) {
    const [qx, qy] = track(x, y)
    pen.setLine(code.outerWall, width * (before * (1 - middle) + height * middle), width)
    // The very end is a point of the turn, where the next begins.
    if (t === 1) pen.layRising(x, y, layers.top[layer]!)
    else pen.layRising(qx + t * (x - qx), qy + t * (y - qy), from + t * height)
  }
  if (layer < layerCount(layers) - 1) return
  for (const { x, y, middle } of along(turn, PIECES)) {
    pen.setLine(code.outerWall, width * height * (1 - middle), width)
    pen.lay(x, y)
  }
}

/** A closed line from a point of it round to that point again: x, y … */
function turnOf({ xy, polygonStart }: Contours, polygon: number, start: number): Float64Array {
  const [from, to] = [polygonStart[polygon]!, polygonStart[polygon + 1]!]
  const count = to - from
  const turn = new Float64Array(2 * (count + 1))
  for (let i = 0; i <= count; i++) {
    const at = from + ((start + i) % count)
    turn[2 * i] = xy[2 * at]!
    turn[2 * i + 1] = xy[2 * at + 1]!
  }
  return turn
}

function largestOf(contours: Contours, layer: number): number {
  let [best, most] = [contours.groupStart[layer]!, -Infinity]
  for (let p = contours.groupStart[layer]!; p < contours.groupStart[layer + 1]!; p++) {
    const area = polygonArea(contours, p)
    if (area > most) [best, most] = [p, area]
  }
  return best
}

/** Which point of a polygon is nearest to the beginning of a turn. */
function nearestStart({ xy, polygonStart }: Contours, polygon: number, turn: Float64Array): number {
  const from = polygonStart[polygon]!
  let [best, least] = [0, Infinity]
  for (let i = from; i < polygonStart[polygon + 1]!; i++) {
    const off = (xy[2 * i]! - turn[0]!) ** 2 + (xy[2 * i + 1]! - turn[1]!) ** 2
    if (off < least) [best, least] = [i - from, off]
  }
  return best
}

/** Ends of pieces of a turn, with the share of it that is walked there, and at the piece's middle. */
function* along(turn: Float64Array, pieces: number): Generator<{ x: number; y: number; t: number; middle: number }> {
  const last = turn.length / 2 - 1
  let whole = 0
  for (let i = 0; i < last; i++) whole += Math.hypot(turn[2 * i + 2]! - turn[2 * i]!, turn[2 * i + 3]! - turn[2 * i + 1]!)
  let walked = 0
  for (let i = 0; i < last; i++) {
    const [x, y] = [turn[2 * i]!, turn[2 * i + 1]!]
    const [dx, dy] = [turn[2 * i + 2]! - x, turn[2 * i + 3]! - y]
    const length = Math.hypot(dx, dy)
    if (length === 0) continue
    const count = Math.max(1, Math.ceil((pieces * length) / whole - 1e-9))
    for (let k = 1; k <= count; k++) {
      const isEnd = i === last - 1 && k === count
      const t = isEnd ? 1 : (walked + (length * k) / count) / whole
      yield {
        x: k === count ? turn[2 * i + 2]! : x + (dx * k) / count,
        y: k === count ? turn[2 * i + 3]! : y + (dy * k) / count,
        t,
        middle: (walked + (length * (k - 0.5)) / count) / whole,
      }
    }
    walked += length
  }
}

/** Finds the place of a turn nearest to points that go once round beside it. */
function trackOn(turn: Float64Array): (x: number, y: number) => readonly [x: number, y: number] {
  const sides = turn.length / 2 - 1
  let at = 0
  return (x, y) => {
    let [best, bestX, bestY, least] = [at, x, y, Infinity]
    const reach = Math.min(LOOKED_AT, Math.floor(sides / 2))
    for (let k = -Math.min(reach, 8); k <= reach; k++) {
      const i = (at + k + sides) % sides
      const [ax, ay] = [turn[2 * i]!, turn[2 * i + 1]!]
      const [dx, dy] = [turn[2 * i + 2]! - ax, turn[2 * i + 3]! - ay]
      const squared = dx * dx + dy * dy
      const share = squared > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / squared)) : 0
      const [px, py] = [ax + share * dx, ay + share * dy]
      const off = (px - x) ** 2 + (py - y) ** 2
      if (off < least) [best, bestX, bestY, least] = [i, px, py, off]
    }
    at = best
    return [bestX, bestY]
  }
}

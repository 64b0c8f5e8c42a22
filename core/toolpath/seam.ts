import type { Contours } from '../regions/contours'

export type SeamChoice = 'hidden' | 'rear' | 'aligned' | 'scattered'

/** Corners duller than this, as the sine of their turn, hide nothing. */
const LEAST_TURN = 0.35
/** A hollow corner counts this many times as much as one that stands out: a seam in it is in the shade. */
const HOLLOW = 2.5
/** Corners nearly as good as the best are equals; then the nearest to the last seam wins. */
const NEARLY = 0.85
/** A corner is judged over this much of the rim to either side, mm, so that the facets of a curve are none. */
const ARM = 0.5

/**
 * Point of a wall at which it begins and ends.
 *
 * @param near where the last wall's seam lies, so that seams stand above each other
 * @param layer spreads scattered seams by a fixed rule
 * @returns index of a point in `contours`
 */
export function seamOf(contours: Contours, polygon: number, choice: SeamChoice, near: readonly [number, number], layer: number): number {
  const { xy, polygonStart } = contours
  const from = polygonStart[polygon]!
  const count = polygonStart[polygon + 1]! - from
  if (choice === 'scattered') return from + ((Math.imul(layer + 1, 2654435761) >>> 0) % count)
  if (choice === 'rear') return extreme(from, count, (i) => xy[2 * i + 1]!)
  const nearness = (i: number): number => -((xy[2 * i]! - near[0]) ** 2 + (xy[2 * i + 1]! - near[1]) ** 2)
  if (choice === 'aligned') return extreme(from, count, nearness)
  const worth = Float64Array.from({ length: count }, (_, k) => cornerWorth(xy, from, count, k))
  const best = worth.reduce((most, w) => Math.max(most, w), 0)
  if (best < LEAST_TURN) return extreme(from, count, nearness)
  return extreme(from, count, (i) => (worth[i - from]! >= NEARLY * best ? nearness(i) : -Infinity))
}

/** Sine of the turn between the arms of a corner, weighted when it is hollow; 0 for a straight or a hairpin of facets. */
function cornerWorth(xy: Float64Array, from: number, count: number, k: number): number {
  const [bx, by] = armTo(xy, from, count, k, -1)
  const [ax, ay] = armTo(xy, from, count, k, 1)
  const cross = -bx * ay + by * ax
  const dot = -bx * ax - by * ay
  const turn = Math.atan2(cross, dot)
  // Rims run with the solid on their left: a right turn is a hollow.
  return turn < 0 ? HOLLOW * Math.min(1, -turn / (Math.PI / 2)) : Math.min(1, turn / (Math.PI / 2))
}

/** Unit direction to where the rim is after one arm's length, forward (1) or back (−1). */
function armTo(xy: Float64Array, from: number, count: number, k: number, step: 1 | -1): [number, number] {
  const x0 = xy[2 * (from + k)]!
  const y0 = xy[2 * (from + k) + 1]!
  let at = k
  for (let n = 0; n < count; n++) {
    at = (at + step + count) % count
    const dx = xy[2 * (from + at)]! - x0
    const dy = xy[2 * (from + at) + 1]! - y0
    const length = Math.sqrt(dx * dx + dy * dy)
    if (length >= ARM || n === count - 1) return length > 0 ? [dx / length, dy / length] : [1, 0]
  }
  return [1, 0]
}

function extreme(from: number, count: number, value: (i: number) => number): number {
  let best = from
  let most = -Infinity
  for (let i = from; i < from + count; i++) {
    const v = value(i)
    if (v > most) {
      most = v
      best = i
    }
  }
  return best
}

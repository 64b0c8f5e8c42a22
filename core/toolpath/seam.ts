import type { Contours } from '../geometry/contours'

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
  const worth = cornerWorths(xy, from, count)
  const best = worth.reduce((most, w) => Math.max(most, w), 0)
  if (best < LEAST_TURN) return extreme(from, count, nearness)
  return extreme(from, count, (i) => (worth[i - from]! >= NEARLY * best ? nearness(i) : -Infinity))
}

/**
 * What each corner of a rim is worth as a place for a seam, from the turn between its two arms: 1 for a right angle that
 * stands out, more for a hollow, 0 for straight on.
 */
function cornerWorths(xy: Float64Array, from: number, count: number): Float64Array {
  const worth = new Float64Array(count)
  const ahead = new Float64Array(2)
  const back = new Float64Array(2)
  for (let k = 0; k < count; k++) {
    armTo(xy, from, count, k, -1, back)
    armTo(xy, from, count, k, 1, ahead)
    const cross = back[1]! * ahead[0]! - back[0]! * ahead[1]!
    const dot = -back[0]! * ahead[0]! - back[1]! * ahead[1]!
    // Rims run with the solid on their left: a right turn is a hollow.
    const turn = Math.min(1, Math.atan2(Math.abs(cross), dot) / (Math.PI / 2))
    worth[k] = cross < 0 ? HOLLOW * turn : turn
  }
  return worth
}

/** Unit direction to where the rim is after one arm's length, forward (1) or back (−1). */
function armTo(xy: Float64Array, from: number, count: number, k: number, step: 1 | -1, into: Float64Array): void {
  const x0 = xy[2 * (from + k)]!
  const y0 = xy[2 * (from + k) + 1]!
  let at = k
  into[0] = 1
  into[1] = 0
  for (let n = 0; n < count; n++) {
    at += step
    if (at === count) at = 0
    else if (at < 0) at = count - 1
    const dx = xy[2 * (from + at)]! - x0
    const dy = xy[2 * (from + at) + 1]! - y0
    const squared = dx * dx + dy * dy
    if (squared < ARM * ARM && n < count - 1) continue
    const length = Math.sqrt(squared)
    if (length > 0) {
      into[0] = dx / length
      into[1] = dy / length
    }
    return
  }
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

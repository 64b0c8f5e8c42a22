import { type Contours, polygonArea } from '../../geometry/contours'

export interface Hole {
  readonly diameterMm: number
  /** What its straight chords take off its diameter, mm. */
  readonly chordMm: number
}

/** A rim is a round hole when its area is more than this share of a circle of the same length. */
const ROUND = 0.94
/** Smaller ones than this are no holes that something goes through, and larger ones the inside of a vessel, mm. */
const [LEAST, LARGEST] = [0.8, 40] as const

/** The smallest round hole that any layer has. */
export function smallestHole(outlines: Contours): Hole | undefined {
  let smallest: Hole | undefined
  for (let p = 0; p < outlines.polygonStart.length - 1; p++) {
    const area = -polygonArea(outlines, p)
    if (area <= 0) continue
    const diameterMm = 2 * Math.sqrt(area / Math.PI)
    if (diameterMm < LEAST || diameterMm > LARGEST || (smallest && diameterMm >= smallest.diameterMm)) continue
    const round = circumference(outlines, p)
    if (4 * Math.PI * area < ROUND * round * round) continue
    smallest = { diameterMm, chordMm: chordLoss(outlines, p) }
  }
  return smallest
}

/** A polygon of n corners on a circle lets through a shaft that is thinner by d·(1 − cos(π/n)). */
function chordLoss({ xy, polygonStart }: Contours, polygon: number): number {
  const [from, to] = [polygonStart[polygon]!, polygonStart[polygon + 1]!]
  let [x, y] = [0, 0]
  for (let i = from; i < to; i++) {
    x += xy[2 * i]! / (to - from)
    y += xy[2 * i + 1]! / (to - from)
  }
  let [corner, middle] = [0, Infinity]
  for (let i = from, j = to - 1; i < to; j = i++) {
    corner = Math.max(corner, Math.hypot(xy[2 * i]! - x, xy[2 * i + 1]! - y))
    middle = Math.min(middle, Math.hypot((xy[2 * i]! + xy[2 * j]!) / 2 - x, (xy[2 * i + 1]! + xy[2 * j + 1]!) / 2 - y))
  }
  return Math.max(0, 2 * (corner - middle))
}

function circumference({ xy, polygonStart }: Contours, polygon: number): number {
  const [from, to] = [polygonStart[polygon]!, polygonStart[polygon + 1]!]
  let length = 0
  for (let i = from, j = to - 1; i < to; j = i++) length += Math.hypot(xy[2 * i]! - xy[2 * j]!, xy[2 * i + 1]! - xy[2 * j + 1]!)
  return length
}

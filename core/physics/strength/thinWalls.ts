import type { Contours } from '../../geometry/contours'
import type { Settings } from '../../profile/settings'
import { spanBetweenLines } from '../finish/topClosure'
import type { Cuts } from './beam'

/** Of a solid's sections less than this share is empty. */
const HOLLOW = 0.15
/** Poisson's ratio of printed plastics, from memory. */
export const POISSON = 0.35
/** Buckling coefficient of a long plate whose edges are held (Timoshenko & Gere, Theory of Elastic Stability; from memory). */
const PLATE = (4 * Math.PI ** 2) / (12 * (1 - POISSON ** 2))

/** What walls are made of. */
export type Walls = Pick<
  Settings,
  'wallCount' | 'lineWidth' | 'topLayers' | 'bottomLayers' | 'layerHeight' | 'infillDensity' | 'infillPattern'
>

/**
 * Share of each section that stands when it is pressed, upright or along any level direction. A thin flat wall buckles long before it crushes and
 * then only its edges bear: `√(σcr/σ)` of its width, `σcr = k·E·(t/b)²` (effective width, von Kármán 1932; from memory). b is the
 * width of the wall between its corners, or between the lines of the infill that hold it where that is less.
 *
 * @param flats widest flat wall of each layer, mm; sections along a level direction take their own width
 * @param modulus, strength MPa
 */
export function standingShares(
  cuts: Cuts,
  along: 'level' | 'upright',
  walls: Walls,
  { modulus, inLayer }: { readonly modulus: number; readonly inLayer: number },
  flats?: Float64Array,
): Float64Array {
  const propped = walls.infillPattern === 'topPropping' ? Infinity : spanBetweenLines(walls)
  const wide = (t: number, b: number): number =>
    Math.min(1, Math.sqrt((PLATE * modulus) / inLayer) * (t / Math.max(t, Math.min(b, propped))))
  const wall = walls.wallCount * walls.lineWidth
  const topBottom = ((walls.topLayers + walls.bottomLayers) * walls.layerHeight) / 2
  return cuts.at.map((_, i) => {
    const solid = cuts.bearing?.solid[i] ?? 0
    if (cuts.area[i]! > (1 - HOLLOW) * solid) return 1
    const [width, height] = [2 * cuts.reach[0][i]!, 2 * cuts.reach[2][i]!]
    if (along === 'upright') return wide(wall, flats?.[i] ?? Math.max(width, height))
    const [upright, level] = [height * wall, width * topBottom]
    return upright + level > 0 ? (upright * wide(wall, height) + level * wide(topBottom, width)) / (upright + level) : 1
  })
}

/**
 * Widest flat wall of each layer, mm: the longest stretch of a rim that stays within `thickness` of a straight line. A round
 * wall counts as flat for as long, which is a thin shell's own formula within a quarter (σ = 0.6·E·t/R, less a knock-down).
 */
export function flatWalls({ xy, polygonStart, groupStart }: Contours, thickness: number): Float64Array {
  const layers = groupStart.length - 1
  const each = Math.max(1, Math.floor(layers / LAYERS))
  const flats = new Float64Array(layers)
  for (let layer = 0; layer < layers; layer++) {
    // Walls hardly change from one layer to the next.
    if (layer % each > 0) {
      flats[layer] = flats[layer - 1]!
      continue
    }
    let widest = 0
    for (let p = groupStart[layer]!; p < groupStart[layer + 1]!; p++)
      widest = Math.max(widest, widestFlat(xy, polygonStart[p]!, polygonStart[p + 1]!, thickness))
    flats[layer] = widest
  }
  return flats
}

/** About so many layers are looked at. */
const LAYERS = 40

function widestFlat(xy: Float64Array, from: number, to: number, thickness: number): number {
  const count = to - from
  const x = (k: number): number => xy[2 * (from + (k % count))]!
  const y = (k: number): number => xy[2 * (from + (k % count)) + 1]!
  let widest = 0
  let end = 1
  for (let begin = 0; begin < count; begin++) {
    end = Math.max(end, begin + 1)
    while (end + 1 < begin + count && staysNear(x, y, begin, end + 1, thickness)) end++
    widest = Math.max(widest, Math.hypot(x(end) - x(begin), y(end) - y(begin)))
  }
  return widest
}

function staysNear(x: (k: number) => number, y: (k: number) => number, begin: number, end: number, thickness: number): boolean {
  const [dx, dy] = [x(end) - x(begin), y(end) - y(begin)]
  const length = Math.hypot(dx, dy)
  if (length === 0) return false
  for (let k = begin + 1; k < end; k++) {
    if (Math.abs((x(k) - x(begin)) * dy - (y(k) - y(begin)) * dx) > thickness * length) return false
    // A rim that turns back is another wall.
    if ((x(k) - x(begin)) * dx + (y(k) - y(begin)) * dy > length * length) return false
  }
  return true
}

import { type Grip, grips } from './grip'
import type { SlabFigures } from './slabSums'

/** How what bears lies in the sections across a load, where somebody looked. */
export interface Bearing {
  /** Whether anything leads all the way from hold to load. */
  readonly reaches: boolean
  /** Limbs that share the load in each section. */
  readonly limbs: Uint8Array
  /** What each section would have were it solid, mm². */
  readonly solid: Float64Array
}

/** Sections along any direction, one after another: `at` the middle of each, mm. */
export interface Cuts extends SlabFigures {
  readonly at: Float64Array
  readonly bearing?: Bearing
}

/** What of each section lies between the grips: nothing where `to` is not above `from`, mm. */
export interface Spans {
  readonly low: number
  readonly high: number
  readonly from: Float64Array
  readonly to: Float64Array
}

/** A section stands for half the way to its neighbours, as far as that lies between the grips. */
export function spansOf({ at }: Pick<Cuts, 'at'>, grip: Grip): Spans {
  const { low, high } = grips({ at }, grip)
  const last = at.length - 1
  return {
    low,
    high,
    from: at.map((_, i) => Math.max(low, i === 0 ? low : (at[i - 1]! + at[i]!) / 2)),
    to: at.map((_, i) => Math.min(high, i === last ? high : (at[i]! + at[i + 1]!) / 2)),
  }
}

/** Inverse of the second moments of a section: curvature is it times the moment over E. */
export function compliance({ second: [uu, vv, uv] }: Cuts, i: number): readonly [uu: number, vv: number, uv: number] {
  const det = uu[i]! * vv[i]! - uv[i]! ** 2
  return det > 0 ? [vv[i]! / det, uu[i]! / det, -uv[i]! / det] : [Infinity, Infinity, 0]
}

/** The larger eigenvalue of a symmetric matrix, and the unit vector that belongs to it. */
export function largestOf([uu, vv, uv]: readonly [number, number, number]): { value: number; along: readonly [number, number] } {
  const angle = Math.atan2(2 * uv, uu - vv) / 2
  return { value: (uu + vv) / 2 + Math.hypot((uu - vv) / 2, uv), along: [Math.cos(angle), Math.sin(angle)] }
}

/** The smaller principal second moment of a section, mm⁴: I₂ = (Iu + Iv)/2 − √(((Iu − Iv)/2)² + Iuv²) (any handbook). */
export const leastSecond = ({ second: [uu, vv, uv] }: Cuts, i: number): number =>
  Math.max(0, (uu[i]! + vv[i]!) / 2 - Math.hypot((uu[i]! - vv[i]!) / 2, uv[i]!))

/**
 * How far a section reaches along a direction that need not be of unit length, mm: exact along the four directions that are
 * known, and in between by the corner that two of them leave room for, which is a rectangle's own.
 */
function reachAlong({ reach }: Cuts, i: number, nu: number, nv: number): number {
  const [a, b] = [Math.abs(nu), Math.abs(nv)]
  const diagonal = reach[nu * nv >= 0 ? 1 : 3][i]! * Math.SQRT2
  return a >= b ? (a - b) * reach[0][i]! + b * diagonal : (b - a) * reach[2][i]! + a * diagonal
}

/** Stress at the farthest fibre of a section for a moment of 1 N·mm that bends it along a direction, 1/mm³ (unsymmetric bending). */
export function stressPerMoment(cuts: Cuts, i: number, eu: number, ev: number): number {
  const [uu, vv, uv] = compliance(cuts, i)
  return uu === Infinity ? Infinity : reachAlong(cuts, i, uu * eu + uv * ev, uv * eu + vv * ev)
}

/** A direction of less stiffness than this share of both of a section's own is one that it would give way in. */
const SLANTED = 0.9

/**
 * I/c of a section, mm³: the least along u, along v and, where a section gives way more in a direction of its own, along that.
 * Not along the diagonal of a square, which is as stiff there and has only its corners farther out.
 */
export function sectionModulus(cuts: Cuts, i: number): number {
  const own = compliance(cuts, i)
  if (own[0] === Infinity) return 0
  let most = Math.max(stressPerMoment(cuts, i, 1, 0), stressPerMoment(cuts, i, 0, 1))
  const { value, along } = largestOf(own)
  if (1 / value < SLANTED * Math.min(1 / own[0], 1 / own[1])) most = Math.max(most, stressPerMoment(cuts, i, ...along))
  return most > 0 ? 1 / most : 0
}

/** How far the centroid of each section lies off the line from hold to load, mm. */
export function offLoadLine(cuts: Cuts, { low, high }: Spans): readonly [u: Float64Array, v: Float64Array] {
  const { at, middle } = cuts
  const held = centroid(cuts, (mm) => mm <= low, 0)
  const loaded = centroid(cuts, (mm) => mm >= high, at.length - 1)
  const length = loaded.at - held.at
  const off = (k: 0 | 1): Float64Array =>
    middle[k].map((own, i) => {
      const along = length > 0 ? (at[i]! - held.at) / length : 0
      return cuts.area[i]! > 0 ? own - (held.middle[k] + along * (loaded.middle[k] - held.middle[k])) : 0
    })
  return [off(0), off(1)]
}

function centroid({ at, area, middle }: Cuts, within: (mm: number) => boolean, otherwise: number) {
  let [all, along, u, v] = [0, 0, 0, 0]
  for (let i = 0; i < at.length; i++) {
    if (!within(at[i]!)) continue
    all += area[i]!
    along += area[i]! * at[i]!
    u += area[i]! * middle[0][i]!
    v += area[i]! * middle[1][i]!
  }
  return all > 0
    ? { at: along / all, middle: [u / all, v / all] as const }
    : { at: at[otherwise]!, middle: [middle[0][otherwise]!, middle[1][otherwise]!] as const }
}

/** Sections on either side by which the bend of the middle line is told, as a share of all; at least two. */
const NEARBY = 0.05

/**
 * By how much the inner side of a bent beam is stressed above a straight one: K = 1 + c/3·(1/(R − c) + 1/R), for a rectangle
 * (Wilson & Quereau 1927, as in Roark's Formulas for Stress and Strain; from memory). R is that of the circle through the
 * centroids of this section and of one on either side.
 */
export function bentFactor({ at, middle, area, reach }: Cuts, i: number): number {
  const away = Math.max(2, Math.round(NEARBY * at.length))
  const [a, b] = [i - away, i + away]
  if (a < 0 || b >= at.length || !(area[a]! > 0 && area[b]! > 0)) return 1
  const point = (k: number): readonly [number, number, number] => [at[k]!, middle[0][k]!, middle[1][k]!]
  const apart = (p: number, q: number): number => Math.hypot(...point(p).map((value, k) => value - point(q)[k]!))
  const [ab, ai, ib] = [apart(a, b), apart(a, i), apart(i, b)]
  // Heron: four times the area over the product of the sides is one over the radius.
  const half = (ab + ai + ib) / 2
  const curvature = (4 * Math.sqrt(Math.max(0, half * (half - ab) * (half - ai) * (half - ib)))) / (ab * ai * ib)
  const c = Math.min(reach[0][i]!, reach[2][i]!)
  const ratio = Math.min(0.5, c * curvature)
  return 1 + (ratio / 3) * (1 / (1 - ratio) + 1)
}

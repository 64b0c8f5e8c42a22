/** Sums that are kept of a slab. */
const STRIDE = 14
const BINS = 64
const DIAGONAL = Math.SQRT1_2
/** A side on which less than this share of the area lies farther out is a speck of another body that just begins there. */
const SPECK = 0.005

/** Of one slab after another, across which u and v are at right angles. */
export interface SlabFigures {
  /** mm² */
  readonly area: Float64Array
  /** Where the centroid lies along u and v, mm. */
  readonly middle: readonly [u: Float64Array, v: Float64Array]
  /** Second moments of area about the centroid, ∫u², ∫v² and ∫uv, mm⁴. */
  readonly second: readonly [uu: Float64Array, vv: Float64Array, uv: Float64Array]
  /** Distance of the farthest fibre from it either way along u, between u and v, along v, and between v and −u, mm. */
  readonly reach: readonly [Float64Array, Float64Array, Float64Array, Float64Array]
}

/**
 * Area and moments per slab, about the origin until `finish` moves them to the centroid: area, first u, first v, uu, vv, uv,
 * then low and high along each of the four directions, of one slab after another.
 */
export class SlabSums {
  private readonly sums: Float64Array
  /** Half of the area of each piece of rim at either of its ends, in bins along u and along v, one slab after another. */
  private readonly ends: Float32Array
  /** Bins per mm and where the first one begins, along u and v. */
  private readonly per: Float64Array
  private readonly low: Float64Array

  constructor(
    private readonly count: number,
    [lowU, highU]: readonly [number, number],
    [lowV, highV]: readonly [number, number],
  ) {
    this.sums = new Float64Array(STRIDE * count)
    this.ends = new Float32Array(2 * BINS * count)
    for (let at = 0; at < this.sums.length; at += STRIDE) {
      for (let k = 6; k < STRIDE; k += 2) {
        this.sums[at + k] = Infinity
        this.sums[at + k + 1] = -Infinity
      }
    }
    const ranges = [
      [lowU, highU],
      [lowV, highV],
    ] as const
    this.low = Float64Array.from(ranges, ([low]) => low)
    this.per = Float64Array.from(ranges, ([low, high]) => BINS / Math.max(1e-6, high - low))
  }

  /** Adds a straight piece of line about (u, v), (du, dv) long and `halfU` and `halfV` thick to either side. */
  // biome-ignore lint/complexity/useMaxParams: called for every piece of line in every section; an object each would be made for nothing.
  add(slab: number, area: number, u: number, du: number, v: number, dv: number, halfU: number, halfV: number): void {
    const { sums } = this
    const at = STRIDE * slab
    sums[at]! += area
    sums[at + 1]! += area * u
    sums[at + 2]! += area * v
    // A piece has length and thickness of its own; both add to its moment about its middle.
    sums[at + 3]! += area * (u * u + (du * du) / 12 + (halfU * halfU) / 3)
    sums[at + 4]! += area * (v * v + (dv * dv) / 12 + (halfV * halfV) / 3)
    sums[at + 5]! += area * (u * v + (du * dv) / 12)
  }

  /**
   * Notes where a piece of rim ends: what lies farthest out is a rim, so that all else need not be asked. Kept apart from `add`,
   * which is called for every piece of line.
   */
  // biome-ignore lint/complexity/useMaxParams: as above.
  addEnds(slab: number, half: number, u: number, du: number, v: number, dv: number, halfU: number, halfV: number): void {
    const { ends, low, per, sums } = this
    const first = 2 * BINS * slab
    const at = STRIDE * slab
    const box = DIAGONAL * (halfU + halfV)
    const spreadU = (du < 0 ? -du : du) / 2 + halfU
    const spreadV = (dv < 0 ? -dv : dv) / 2 + halfV
    const spreadP = (DIAGONAL * (du + dv < 0 ? -du - dv : du + dv)) / 2 + box
    const spreadQ = (DIAGONAL * (dv < du ? du - dv : dv - du)) / 2 + box
    const p = DIAGONAL * (u + v)
    const q = DIAGONAL * (v - u)
    if (u - spreadU < sums[at + 6]!) sums[at + 6] = u - spreadU
    if (u + spreadU > sums[at + 7]!) sums[at + 7] = u + spreadU
    if (p - spreadP < sums[at + 8]!) sums[at + 8] = p - spreadP
    if (p + spreadP > sums[at + 9]!) sums[at + 9] = p + spreadP
    if (v - spreadV < sums[at + 10]!) sums[at + 10] = v - spreadV
    if (v + spreadV > sums[at + 11]!) sums[at + 11] = v + spreadV
    if (q - spreadQ < sums[at + 12]!) sums[at + 12] = q - spreadQ
    if (q + spreadQ > sums[at + 13]!) sums[at + 13] = q + spreadQ
    // The ranges are wide enough for every line, so both ends have a bin.
    ends[first + (((u - spreadU - low[0]!) * per[0]!) | 0)]! += half
    ends[first + (((u + spreadU - low[0]!) * per[0]!) | 0)]! += half
    ends[first + BINS + (((v - spreadV - low[1]!) * per[1]!) | 0)]! += half
    ends[first + BINS + (((v + spreadV - low[1]!) * per[1]!) | 0)]! += half
  }

  /** How far from `middle` the ends lie that still carry, in bins from `first` on. */
  private carryingReach(first: number, middle: number, low: number, per: number): number {
    let area = 0
    for (let bin = 0; bin < BINS; bin++) area += this.ends[first + bin]!
    let from = 0
    let to = BINS - 1
    for (let sum = this.ends[first]!; sum < SPECK * area && from < to; sum += this.ends[first + from]!) from++
    for (let sum = this.ends[first + to]!; sum < SPECK * area && to > from; sum += this.ends[first + to]!) to--
    return Math.max(low + (to + 1) / per - middle, middle - low - from / per)
  }

  finish(): SlabFigures {
    const { sums, count } = this
    const own = (): Float64Array => new Float64Array(count)
    const area = own()
    const middle = [own(), own()] as const
    const second = [own(), own(), own()] as const
    const reach = [own(), own(), own(), own()] as const
    for (let slab = 0; slab < count; slab++) {
      const at = STRIDE * slab
      const all = sums[at]!
      area[slab] = all
      if (all === 0) continue
      const [u, v] = [sums[at + 1]! / all, sums[at + 2]! / all]
      middle[0][slab] = u
      middle[1][slab] = v
      second[0][slab] = sums[at + 3]! - all * u * u
      second[1][slab] = sums[at + 4]! - all * v * v
      second[2][slab] = sums[at + 5]! - all * u * v
      const [carryingU, carryingV] = [u, v].map((own, k) => this.carryingReach(BINS * (2 * slab + k), own, this.low[k]!, this.per[k]!)) as [
        number,
        number,
      ]
      // Along a diagonal what carries reaches no farther than the corner of both.
      const corner = DIAGONAL * (carryingU + carryingV)
      const carrying = [carryingU, corner, carryingV, corner]
      for (const [k, own] of [u, DIAGONAL * (u + v), v, DIAGONAL * (v - u)].entries()) {
        // A slab without any rim reaches as far as the part does.
        const [low, high] = [sums[at + 6 + 2 * k]!, sums[at + 7 + 2 * k]!]
        reach[k]![slab] = Math.min(high > low ? Math.max(high - own, own - low) : Infinity, carrying[k]!)
      }
    }
    return { area, middle, second, reach }
  }
}

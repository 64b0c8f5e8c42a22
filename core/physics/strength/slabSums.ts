/** Sums that are kept of a slab. */
const STRIDE = 9
const BINS = 64
/** A side on which less than this share of the area lies farther out is a speck of another body that just begins there. */
const SPECK = 0.005

/** Of one slab after another; what has two entries has one for either direction across. */
export interface SlabFigures {
  /** mm² */
  readonly area: Float64Array
  /** Second moment of area about the centroid, mm⁴. */
  readonly second: readonly [Float64Array, Float64Array]
  /** Distance of the farthest fibre from it, mm. */
  readonly reach: readonly [Float64Array, Float64Array]
}

/**
 * Area and moments per slab, about the origin until `finish` moves them to the centroid: area, first u, first v, second u,
 * second v, low u, high u, low v, high v of one slab after another.
 */
export class SlabSums {
  private readonly sums: Float64Array
  /** Half of the area of each piece of rim at either of its ends, in bins along u and then v, one slab after another. */
  private readonly ends: Float64Array

  constructor(
    private readonly count: number,
    private readonly rangeU: readonly [number, number],
    private readonly rangeV: readonly [number, number],
  ) {
    this.sums = new Float64Array(STRIDE * count)
    this.ends = new Float64Array(2 * BINS * count)
    for (let at = 0; at < this.sums.length; at += STRIDE) {
      this.sums[at + 5] = this.sums[at + 7] = Infinity
      this.sums[at + 6] = this.sums[at + 8] = -Infinity
    }
    this.perU = BINS / Math.max(1e-6, rangeU[1] - rangeU[0])
    this.perV = BINS / Math.max(1e-6, rangeV[1] - rangeV[0])
    this.lowU = rangeU[0]
    this.lowV = rangeV[0]
  }

  private readonly perU: number
  private readonly perV: number
  private readonly lowU: number
  private readonly lowV: number

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
    const spreadU = (du < 0 ? -du : du) / 2 + halfU
    const spreadV = (dv < 0 ? -dv : dv) / 2 + halfV
    if (u - spreadU < sums[at + 5]!) sums[at + 5] = u - spreadU
    if (u + spreadU > sums[at + 6]!) sums[at + 6] = u + spreadU
    if (v - spreadV < sums[at + 7]!) sums[at + 7] = v - spreadV
    if (v + spreadV > sums[at + 8]!) sums[at + 8] = v + spreadV
  }

  /**
   * Notes where a piece of rim ends: what lies farthest out is a rim. Kept apart from `add` and small, so that both are
   * compiled into the loops that call them.
   */
  addEnds(slab: number, half: number, u: number, spreadU: number, v: number, spreadV: number): void {
    const { ends, perU, perV, lowU, lowV } = this
    const firstU = 2 * BINS * slab
    // The ranges are wide enough for every line, so both ends have a bin.
    ends[firstU + (((u - spreadU - lowU) * perU) | 0)]! += half
    ends[firstU + (((u + spreadU - lowU) * perU) | 0)]! += half
    ends[firstU + BINS + (((v - spreadV - lowV) * perV) | 0)]! += half
    ends[firstU + BINS + (((v + spreadV - lowV) * perV) | 0)]! += half
  }

  /** How far from `middle` the ends lie that still carry, in bins from `first` on. */
  private carryingReach(first: number, middle: number, [low]: readonly [number, number], per: number): number {
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
    const pair = (): [Float64Array, Float64Array] => [new Float64Array(count), new Float64Array(count)]
    const area = new Float64Array(count)
    const [second, reach] = [pair(), pair()]
    for (let slab = 0; slab < count; slab++) {
      const at = STRIDE * slab
      area[slab] = sums[at]!
      if (area[slab] === 0) continue
      for (const side of [0, 1] as const) {
        const middle = sums[at + 1 + side]! / sums[at]!
        second[side][slab] = sums[at + 3 + side]! - sums[at]! * middle * middle
        const farthest = Math.max(sums[at + 6 + 2 * side]! - middle, middle - sums[at + 5 + 2 * side]!)
        const first = BINS * (2 * slab + side)
        const carrying =
          side === 0 ? this.carryingReach(first, middle, this.rangeU, this.perU) : this.carryingReach(first, middle, this.rangeV, this.perV)
        reach[side][slab] = Math.min(farthest, carrying)
      }
    }
    return { area, second, reach }
  }
}

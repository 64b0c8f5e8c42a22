import { toCorners, toPatterns } from './hadamard'
import type { BelowPlaces, CellPlaces, Kernel, Place, RowPlaces } from './kernel'

/** The kernel in plain TypeScript: what assembly/kernel.ts does, one number at a time. */
export class PlainKernel implements Kernel {
  private readonly single: Float32Array
  private readonly double: Float64Array
  private readonly whole: Int32Array
  private readonly bytes: Uint8Array
  // A cell's movements by pattern, and its forces.
  private readonly w = new Float64Array(24)
  private readonly t = new Float64Array(24)

  constructor(readonly buffer: ArrayBuffer) {
    this.single = new Float32Array(buffer)
    this.double = new Float64Array(buffer)
    this.whole = new Int32Array(buffer)
    this.bytes = new Uint8Array(buffer)
  }

  springs(cells: CellPlaces, moved: Place, out: Place): void {
    this.each(cells, this.single, cells.coefficients / 4, moved / 4, out / 4)
  }

  springsDouble(cells: CellPlaces, moved: Place, out: Place): void {
    this.each(cells, this.double, cells.coefficientsDouble / 8, moved / 8, out / 8)
  }

  /** Places are numbers' own here. */
  private each(
    { count, nodes, share, kind }: CellPlaces,
    of: Float32Array | Float64Array,
    coefficients: Place,
    moved: Place,
    out: Place,
  ): void {
    const { w, t, whole, single, bytes } = this
    for (let c = 0; c < count; c++) {
      const first = nodes / 4 + 8 * c
      for (let i = 0; i < 3; i++) {
        for (let n = 0; n < 8; n++) t[8 * i + n] = of[moved + (whole[first + n]! >> 2) + i]!
        toPatterns(t, w, 8 * i)
      }
      const full = single[share / 4 + c]!
      const k = coefficients + 128 * bytes[kind + c]!
      for (let p = 0; p < 8; p++) {
        const at = k + 16 * p
        const [x, y, z] = [w[p]!, w[8 + p]!, w[16 + p]!]
        t[p] = full * (of[at]! * x + of[at + 4]! * w[8 + (p ^ 3)]! + of[at + 8]! * w[16 + (p ^ 5)]!)
        t[8 + p] = full * (of[at + 1]! * y + of[at + 5]! * w[p ^ 3]! + of[at + 13]! * w[16 + (p ^ 6)]!)
        t[16 + p] = full * (of[at + 2]! * z + of[at + 10]! * w[p ^ 5]! + of[at + 14]! * w[8 + (p ^ 6)]!)
      }
      for (let i = 0; i < 3; i++) {
        toCorners(t, w, 8 * i)
        for (let n = 0; n < 8; n++) of[out + (whole[first + n]! >> 2) + i]! += w[8 * i + n]!
      }
    }
  }

  left(nodes: number, a: Place, b: Place, out: Place): void {
    const { single } = this
    for (let i = 0; i < 4 * nodes; i++) single[out / 4 + i] = single[a / 4 + i]! - single[b / 4 + i]!
  }

  step(nodes: number, own: Place, r: Place, keeps: number, takes: number, step: Place): void {
    const { single } = this
    for (let n = 0; n < nodes; n++)
      for (let i = 0; i < 3; i++) {
        const at = step / 4 + 4 * n + i
        single[at] = keeps * single[at]! + takes * this.turned(own / 4 + 12 * n + i, r / 4 + 4 * n)
      }
  }

  /** A row of three columns of four times three numbers. */
  private turned(row: number, r: number): number {
    const { single } = this
    return single[row]! * single[r]! + single[row + 4]! * single[r + 1]! + single[row + 8]! * single[r + 2]!
  }

  plus(nodes: number, step: Place, x: Place): void {
    const { single } = this
    for (let i = 0; i < 4 * nodes; i++) single[x / 4 + i]! += single[step / 4 + i]!
  }

  restrict(nodes: number, parents: Place, fine: Place, coarse: Place): void {
    const { single, whole } = this
    for (let n = 0; n < nodes; n++)
      for (let k = 8 * n; k < 8 * n + 8; k++)
        for (let i = 0; i < 3; i++) single[coarse / 4 + whole[parents / 4 + k]! / 4 + i]! += single[fine / 4 + 4 * n + i]! / 8
  }

  prolong(nodes: number, parents: Place, coarse: Place, fine: Place): void {
    const { single, whole } = this
    for (let n = 0; n < nodes; n++)
      for (let i = 0; i < 3; i++) {
        let sum = 0
        for (let k = 8 * n; k < 8 * n + 8; k++) sum += single[coarse / 4 + whole[parents / 4 + k]! / 4 + i]!
        single[fine / 4 + 4 * n + i]! += sum / 8
      }
  }

  sweep(grid: RowPlaces, isBack: boolean): void {
    const { single } = this
    const { nodes, inverse, x, r } = grid
    for (let i = 0; i < nodes; i++) {
      const n = isBack ? nodes - 1 - i : i
      this.leftAt(grid, n)
      for (let k = 0; k < 3; k++) single[x / 4 + 4 * n + k]! += this.turned(inverse / 4 + 12 * n + k, r / 4 + 4 * n)
    }
  }

  residual(grid: RowPlaces): void {
    for (let n = 0; n < grid.nodes; n++) this.leftAt(grid, n)
  }

  private leftAt({ rows, near, stencil, x, b, r }: RowPlaces, n: number): void {
    const { single, whole } = this
    for (let i = 0; i < 3; i++) {
      let sum = single[b / 4 + 4 * n + i]!
      for (let k = whole[rows / 4 + n]!; k < whole[rows / 4 + n + 1]!; k++) {
        const other = x / 4 + whole[near / 4 + k]! / 4
        const s = stencil / 4 + 9 * k + i
        sum -= single[s]! * single[other]! + single[s + 3]! * single[other + 1]! + single[s + 6]! * single[other + 2]!
      }
      single[r / 4 + 4 * n + i] = sum
    }
  }

  toSingle(nodes: number, from: Place, to: Place): void {
    for (let i = 0; i < 4 * nodes; i++) this.single[to / 4 + i] = this.double[from / 8 + i]!
  }

  direction(nodes: number, z: Place, keeps: number, p: Place): void {
    const { single, double } = this
    for (let i = 0; i < 4 * nodes; i++) double[p / 8 + i] = single[z / 4 + i]! + keeps * double[p / 8 + i]!
  }

  dot(nodes: number, a: Place, b: Place): number {
    return this.sum(nodes, this.double, a / 8, b / 8)
  }

  dotMixed(nodes: number, a: Place, b: Place): number {
    return this.sum(nodes, this.single, a / 4, b / 8)
  }

  private sum(nodes: number, of: Float32Array | Float64Array, a: number, b: number): number {
    let sum = 0
    for (let n = 0; n < 4 * nodes; n += 4) for (let i = n; i < n + 3; i++) sum += of[a + i]! * this.double[b + i]!
    return sum
  }

  add(nodes: number, factor: number, p: Place, x: Place): void {
    const { double } = this
    for (let i = 0; i < 4 * nodes; i++) double[x / 8 + i]! += factor * double[p / 8 + i]!
  }

  blend(fours: number, factor: number, from: Place, to: Place): void {
    const { single } = this
    for (let i = 0; i < 4 * fours; i++) single[to / 4 + i]! += factor * single[from / 4 + i]!
  }

  spread(sum: Place, corners: Place, slots: Place, out: Place): void {
    const { single, whole } = this
    for (let n = 0; n < 8; n++)
      for (let m = 0; m < 8; m++) {
        const way = 13 + (m & 1) - (n & 1) + 3 * (((m >> 1) & 1) - ((n >> 1) & 1)) + 9 * ((m >> 2) - (n >> 2))
        const to = out / 4 + 9 * whole[slots / 4 + 27 * whole[corners / 4 + n]! + way]!
        for (let i = 0; i < 9; i++) single[to + i]! += single[sum / 4 + 9 * (8 * n + m) + i]!
      }
  }

  coarser({ nodes, at, along: [nx, ny], rows, ways, stencil, parents }: BelowPlaces, slots: Place, out: Place): void {
    const { single, whole, bytes } = this
    const seen = new Float64Array(9 * 27)
    for (let n = 0; n < nodes; n++) {
      const place = whole[at / 4 + n]!
      const odd = ((place % nx) & 1) | (((Math.floor(place / nx) % ny) & 1) << 1) | ((Math.floor(place / (nx * ny)) & 1) << 2)
      seen.fill(0)
      for (let k = whole[rows / 4 + n]!; k < whole[rows / 4 + n + 1]!; k++) {
        const way = bytes[ways + k]!
        const [mx, my, mz] = [
          (odd & 1) + (way % 3) - 1,
          ((odd >> 1) & 1) + (Math.floor(way / 3) % 3) - 1,
          (odd >> 2) + Math.floor(way / 9) - 1,
        ]
        const near = 13 + (mx >> 1) + 3 * (my >> 1) + 9 * (mz >> 1)
        const { weight, ways: to } = parentsBy[(mx & 1) | ((my & 1) << 1) | ((mz & 1) << 2)]!
        for (const by of to) for (let i = 0; i < 9; i++) seen[9 * (near + by) + i]! += weight * single[stencil / 4 + 9 * k + i]!
      }
      const { weight, corners: own, ways: from } = parentsBy[odd]!
      for (const [i, corner] of own.entries()) {
        const row = slots / 4 + 27 * (whole[parents / 4 + 8 * n + corner]! / 16)
        for (let way = from[i]!; way < 27; way++) {
          const slot = whole[row + way - from[i]!]!
          if (slot >= 0) for (let j = 0; j < 9; j++) single[out / 4 + 9 * slot + j]! += weight * seen[9 * way + j]!
        }
      }
    }
  }
}

/** Which of the eight corners above are a node's parents, which way they lie from the nearest, and their weight, by which coordinates are odd. */
const parentsBy = Array.from({ length: 8 }, (_, odd) => {
  const own = [0, 1, 2, 3, 4, 5, 6, 7].filter((k) => (k & ~odd) === 0)
  return { corners: own, ways: own.map((k) => (k & 1) + 3 * ((k >> 1) & 1) + 9 * (k >> 2)), weight: 1 / own.length }
})

/** Cells beyond this many are not worth their memory: they grow instead. */
const MOST_CELLS = 1 << 22

/**
 * Square cells over some closed rims that name the edges passing through them. An edge is known by its first point. The
 * arrays are used again for the next rims.
 *
 * ```
 * cellStart  cell → its first entry in `edges`; cells run row by row
 * edges      an edge's first point, in every cell that it passes through
 * next       point → the point that follows it on its rim, counted from `first`
 * ```
 */
export class EdgeGrid {
  size = 1
  left = 0
  bottom = 0
  columns = 0
  rows = 0
  first = 0
  cellStart = new Uint32Array(2)
  edges = new Uint32Array(0)
  next = new Uint32Array(0)

  /** Lays the rims from one to before another, in cells of this size, mm. */
  lay(xy: Float64Array, rimStart: ArrayLike<number>, fromRim: number, toRim: number, size: number): this {
    const from = rimStart[fromRim]!
    const to = rimStart[toRim]!
    this.first = from
    if (to - from > this.next.length) this.next = new Uint32Array(2 * (to - from))
    for (let r = fromRim; r < toRim; r++) {
      const end = rimStart[r + 1]!
      for (let i = rimStart[r]!; i < end; i++) this.next[i - from] = i + 1
      if (end > rimStart[r]!) this.next[end - 1 - from] = rimStart[r]!
    }
    this.measure(xy, from, to, size)
    const cells = this.columns * this.rows
    if (cells + 2 > this.cellStart.length) this.cellStart = new Uint32Array(2 * cells + 2)
    else this.cellStart.fill(0, 0, cells + 2)
    // Counts stand two cells ahead, so that filling moves each cell's end to where its own start belongs.
    this.rasterize(xy, from, to, true)
    for (let c = 1; c <= cells; c++) this.cellStart[c + 1]! += this.cellStart[c]!
    const entries = this.cellStart[cells + 1]!
    if (entries > this.edges.length) this.edges = new Uint32Array(2 * entries)
    this.rasterize(xy, from, to, false)
    return this
  }

  private measure(xy: Float64Array, from: number, to: number, size: number): void {
    let left = Infinity
    let right = -Infinity
    let bottom = Infinity
    let top = -Infinity
    for (let i = from; i < to; i++) {
      const x = xy[2 * i]!
      const y = xy[2 * i + 1]!
      if (x < left) left = x
      if (x > right) right = x
      if (y < bottom) bottom = y
      if (y > top) top = y
    }
    this.left = left - 1e-6
    this.bottom = bottom - 1e-6
    const [width, depth] = [right - this.left, top - this.bottom]
    // Rims that are nearly flat, or nearly a point, have hardly any area, and yet as many cells as they are long.
    this.size = to > from ? Math.max(size, Math.sqrt((width * depth) / MOST_CELLS), (width + depth) / MOST_CELLS) : size
    this.columns = to > from ? Math.floor((right - this.left) / this.size) + 1 : 0
    this.rows = to > from ? Math.floor((top - this.bottom) / this.size) + 1 : 0
  }

  /** Visits every cell that an edge passes through, row by row, to count or to fill. */
  private rasterize(xy: Float64Array, from: number, to: number, counting: boolean): void {
    const { left, bottom, columns, rows, next, cellStart, edges } = this
    const perMm = 1 / this.size
    for (let i = from; i < to; i++) {
      const j = next[i - from]!
      let x0 = (xy[2 * i]! - left) * perMm
      let y0 = (xy[2 * i + 1]! - bottom) * perMm
      let x1 = (xy[2 * j]! - left) * perMm
      let y1 = (xy[2 * j + 1]! - bottom) * perMm
      if (y0 > y1) {
        const x = x0
        const y = y0
        x0 = x1
        y0 = y1
        x1 = x
        y1 = y
      }
      const firstRow = Math.min(rows - 1, y0 | 0)
      const lastRow = Math.min(rows - 1, y1 | 0)
      const slope = y1 > y0 ? (x1 - x0) / (y1 - y0) : 0
      for (let r = firstRow; r <= lastRow; r++) {
        const xa = r === firstRow ? x0 : x0 + (r - y0) * slope
        const xb = r === lastRow ? x1 : x0 + (r + 1 - y0) * slope
        // Rounding must not lose the cell on the other side of a line of the grid.
        const firstColumn = Math.max(0, Math.floor((xa < xb ? xa : xb) - 1e-9))
        const lastColumn = Math.min(columns - 1, Math.floor((xa < xb ? xb : xa) + 1e-9))
        for (let c = r * columns + firstColumn; c <= r * columns + lastColumn; c++) {
          if (counting) cellStart[c + 2]!++
          else edges[cellStart[c + 1]!++] = i
        }
      }
    }
  }
}

import type { Contours } from './contours'
import { holds } from './polygonsOf'

/** Nearest point of some contours. */
export interface Near {
  /** From the solid's rim, mm: positive outside, negative inside. */
  readonly distance: number
  /** Direction that leads out of the solid, not of unit length. */
  readonly awayX: number
  readonly awayY: number
}

/**
 * Finds the nearest rim of one group of contours within a reach, by a grid of cells that name the edges passing through
 * them.
 *
 * ```
 * cellStart  cell → first entry in `edges`
 * edges      index of an edge's first point, twice where an edge passes through two cells
 * ```
 */
export class NearIndex {
  private readonly size: number
  private readonly left: number
  private readonly bottom: number
  private readonly columns: number
  private readonly rows: number
  private readonly cellStart: Uint32Array
  private readonly edges: Uint32Array
  private readonly next: Uint32Array
  private readonly firstPoint: number
  private awayX = 0
  private awayY = 0

  /** @param reach farther rims are not seen, mm */
  constructor(
    private readonly contours: Contours,
    private readonly group: number,
    private readonly reach: number,
  ) {
    const { xy, polygonStart, groupStart } = contours
    const from = polygonStart[groupStart[group]!]!
    const to = polygonStart[groupStart[group + 1]!]!
    let [left, right, bottom, top] = [Infinity, -Infinity, Infinity, -Infinity]
    for (let i = from; i < to; i++) {
      left = Math.min(left, xy[2 * i]!)
      right = Math.max(right, xy[2 * i]!)
      bottom = Math.min(bottom, xy[2 * i + 1]!)
      top = Math.max(top, xy[2 * i + 1]!)
    }
    this.firstPoint = from
    this.size = 2 * reach
    this.left = left - 1e-6
    this.bottom = bottom - 1e-6
    this.columns = to > from ? Math.floor((right - this.left) / this.size) + 1 : 0
    this.rows = to > from ? Math.floor((top - this.bottom) / this.size) + 1 : 0
    this.next = new Uint32Array(to - from)
    for (let p = groupStart[group]!; p < groupStart[group + 1]!; p++)
      for (let i = polygonStart[p]!; i < polygonStart[p + 1]!; i++)
        this.next[i - from] = i + 1 === polygonStart[p + 1]! ? polygonStart[p]! : i + 1
    this.cellStart = new Uint32Array(this.columns * this.rows + 1)
    for (let i = from; i < to; i++) this.eachCell(i, (cell) => this.cellStart[cell + 1]!++)
    for (let c = 0; c < this.columns * this.rows; c++) this.cellStart[c + 1]! += this.cellStart[c]!
    this.edges = new Uint32Array(this.cellStart[this.columns * this.rows]!)
    const cursor = this.cellStart.slice()
    for (let i = from; i < to; i++)
      this.eachCell(i, (cell) => {
        this.edges[cursor[cell]!++] = i
      })
  }

  /** Nearest rim within reach; undefined where there is none. */
  nearest(x: number, y: number): Near | undefined {
    const distance = this.signedDistance(x, y)
    return Number.isNaN(distance) ? undefined : { distance, awayX: this.awayX, awayY: this.awayY }
  }

  /** Distance from the solid's rim, mm: positive outside, negative inside; NaN where no rim is within reach. */
  signedDistance(x: number, y: number): number {
    const { xy } = this.contours
    const firstRow = Math.max(0, Math.floor((y - this.reach - this.bottom) / this.size))
    const lastRow = Math.min(this.rows - 1, Math.floor((y + this.reach - this.bottom) / this.size))
    const firstColumn = Math.max(0, Math.floor((x - this.reach - this.left) / this.size))
    const lastColumn = Math.min(this.columns - 1, Math.floor((x + this.reach - this.left) / this.size))
    let least = this.reach * this.reach
    let away = -1
    let outside = false
    for (let r = firstRow; r <= lastRow; r++) {
      for (let c = firstColumn; c <= lastColumn; c++) {
        const cell = r * this.columns + c
        for (let k = this.cellStart[cell]!; k < this.cellStart[cell + 1]!; k++) {
          const i = this.edges[k]!
          const j = this.next[i - this.firstPoint]!
          const ax = xy[2 * i]!
          const ay = xy[2 * i + 1]!
          const ex = xy[2 * j]! - ax
          const ey = xy[2 * j + 1]! - ay
          const px = x - ax
          const py = y - ay
          const squared = ex * ex + ey * ey
          let share = squared > 0 ? (px * ex + py * ey) / squared : 0
          if (share < 0) share = 0
          else if (share > 1) share = 1
          const dx = px - share * ex
          const dy = py - share * ey
          const d = dx * dx + dy * dy
          // At a corner both edges are equally near: the one seen less edge-on tells the side.
          const cross = squared > 0 ? (ex * py - ey * px) / Math.sqrt(squared) : 0
          const grip = cross < 0 ? -cross : cross
          if (d > least + 1e-12 || (d > least - 1e-12 && grip <= away)) continue
          least = Math.min(least, d)
          away = grip
          outside = cross < 0
          this.awayX = d < 1e-12 ? ey : outside ? dx : -dx
          this.awayY = d < 1e-12 ? -ex : outside ? dy : -dy
        }
      }
    }
    return away < 0 ? Number.NaN : outside ? Math.sqrt(least) : -Math.sqrt(least)
  }

  /** Shares of the way from one point to another at which it crosses a rim, ascending; each rim edge once. */
  crossings(x0: number, y0: number, x1: number, y1: number): number[] {
    const { xy } = this.contours
    const dx = x1 - x0
    const dy = y1 - y0
    const cell = (value: number, origin: number): number => Math.floor((value - origin) / this.size)
    const found: { edge: number; share: number }[] = []
    const lastRow = Math.min(this.rows - 1, cell(Math.max(y0, y1), this.bottom) + 1)
    const lastColumn = Math.min(this.columns - 1, cell(Math.max(x0, x1), this.left) + 1)
    for (let r = Math.max(0, cell(Math.min(y0, y1), this.bottom) - 1); r <= lastRow; r++) {
      for (let c = Math.max(0, cell(Math.min(x0, x1), this.left) - 1); c <= lastColumn; c++) {
        const at = r * this.columns + c
        for (let k = this.cellStart[at]!; k < this.cellStart[at + 1]!; k++) {
          const i = this.edges[k]!
          const j = this.next[i - this.firstPoint]!
          const ax = xy[2 * i]!
          const ay = xy[2 * i + 1]!
          const ex = xy[2 * j]! - ax
          const ey = xy[2 * j + 1]! - ay
          const from = ex * (y0 - ay) - ey * (x0 - ax)
          const to = ex * (y1 - ay) - ey * (x1 - ax)
          if (from > 0 === to > 0) continue
          if (dx * (ay - y0) - dy * (ax - x0) > 0 === dx * (ay + ey - y0) - dy * (ax + ex - x0) > 0) continue
          if (!found.some(({ edge }) => edge === i)) found.push({ edge: i, share: from / (from - to) })
        }
      }
    }
    return found.map(({ share }) => share).sort((a, b) => a - b)
  }

  /** Whether the solid holds a point: even-odd rule over all rims. */
  holds(x: number, y: number): boolean {
    const { xy, polygonStart, groupStart } = this.contours
    let inside = false
    for (let p = groupStart[this.group]!; p < groupStart[this.group + 1]!; p++)
      if (holds(xy.subarray(2 * polygonStart[p]!, 2 * polygonStart[p + 1]!), x, y)) inside = !inside
    return inside
  }

  /** Cells that the edge beginning at point i passes through; a cell may come twice. */
  private eachCell(i: number, visit: (cell: number) => void): void {
    const { xy } = this.contours
    const j = this.next[i - this.firstPoint]!
    const x0 = (xy[2 * i]! - this.left) / this.size
    const y0 = (xy[2 * i + 1]! - this.bottom) / this.size
    const x1 = (xy[2 * j]! - this.left) / this.size
    const y1 = (xy[2 * j + 1]! - this.bottom) / this.size
    // Half-cell steps miss no cell by more than the neighbours that a search looks at cover.
    const steps = Math.max(1, Math.ceil(2 * Math.max(Math.abs(x1 - x0), Math.abs(y1 - y0))))
    let last = -1
    for (let s = 0; s <= steps; s++) {
      const cell = Math.floor(y0 + ((y1 - y0) * s) / steps) * this.columns + Math.floor(x0 + ((x1 - x0) * s) / steps)
      if (cell !== last) visit(cell)
      last = cell
    }
  }
}

import type { Contours } from './contours'
import { EdgeGrid } from './edgeGrid'

/** Nearest point of some contours. */
export interface Near {
  /** From the solid's rim, mm: positive outside, negative inside. */
  readonly distance: number
  /** Direction that leads out of the solid, not of unit length. */
  readonly awayX: number
  readonly awayY: number
}

/** Finds the nearest rim of one group of contours within a reach. Can be moved on to another group. */
export class NearIndex {
  private readonly grid = new EdgeGrid()
  private awayX = 0
  private awayY = 0

  /** @param reach farther rims are not seen, mm */
  constructor(
    private readonly contours: Contours,
    private group: number,
    private readonly reach: number,
  ) {
    this.enter(group)
  }

  enter(group: number): void {
    const { xy, polygonStart, groupStart } = this.contours
    this.group = group
    this.grid.lay(xy, polygonStart, groupStart[group]!, groupStart[group + 1]!, 2 * this.reach)
  }

  /** Nearest rim within reach; undefined where there is none. */
  nearest(x: number, y: number): Near | undefined {
    const distance = this.signedDistance(x, y)
    return Number.isNaN(distance) ? undefined : { distance, awayX: this.awayX, awayY: this.awayY }
  }

  /** Distance from the solid's rim, mm: positive outside, negative inside; NaN where no rim is within reach. */
  signedDistance(x: number, y: number): number {
    const { xy } = this.contours
    const { reach, grid } = this
    const { cellStart, edges, next, first, left, bottom, columns } = grid
    const perMm = 1 / grid.size
    const firstRow = Math.max(0, Math.floor((y - reach - bottom) * perMm))
    const lastRow = Math.min(grid.rows - 1, Math.floor((y + reach - bottom) * perMm))
    const firstColumn = Math.max(0, Math.floor((x - reach - left) * perMm))
    const lastColumn = Math.min(columns - 1, Math.floor((x + reach - left) * perMm))
    let least = reach * reach
    let away = -1
    let outside = false
    for (let r = firstRow; r <= lastRow; r++) {
      // Cells of a row stand one after another, and so do their edges.
      const to = lastColumn < firstColumn ? 0 : cellStart[r * columns + lastColumn + 1]!
      for (let k = lastColumn < firstColumn ? 0 : cellStart[r * columns + firstColumn]!; k < to; k++) {
        const i = edges[k]!
        const j = next[i - first]!
        const ax = xy[2 * i]!
        const ay = xy[2 * i + 1]!
        const ex = xy[2 * j]! - ax
        const ey = xy[2 * j + 1]! - ay
        const px = x - ax
        const py = y - ay
        const squared = ex * ex + ey * ey
        const along = px * ex + py * ey
        const share = along <= 0 ? 0 : along >= squared ? 1 : along / squared
        const dx = px - share * ex
        const dy = py - share * ey
        const d = dx * dx + dy * dy
        if (d > least + 1e-12) continue
        // At a corner both edges are equally near: the one seen less edge-on tells the side.
        const cross = squared > 0 ? (ex * py - ey * px) / Math.sqrt(squared) : 0
        const grip = cross < 0 ? -cross : cross
        if (d > least - 1e-12 && grip <= away) continue
        if (d < least) least = d
        away = grip
        outside = cross < 0
        this.awayX = d < 1e-12 ? ey : outside ? dx : -dx
        this.awayY = d < 1e-12 ? -ex : outside ? dy : -dy
      }
    }
    return away < 0 ? Number.NaN : outside ? Math.sqrt(least) : -Math.sqrt(least)
  }

  /** Shares of the way from one point to another at which it crosses a rim, ascending; each rim edge once. */
  crossings(x0: number, y0: number, x1: number, y1: number): number[] {
    const { xy } = this.contours
    const { grid } = this
    const { cellStart, edges, next, first, columns } = grid
    const dx = x1 - x0
    const dy = y1 - y0
    const cell = (value: number, origin: number): number => Math.floor((value - origin) / grid.size)
    const found: { edge: number; share: number }[] = []
    const lastRow = Math.min(grid.rows - 1, cell(Math.max(y0, y1), grid.bottom))
    const lastColumn = Math.min(columns - 1, cell(Math.max(x0, x1), grid.left))
    const firstColumn = Math.max(0, cell(Math.min(x0, x1), grid.left))
    for (let r = Math.max(0, cell(Math.min(y0, y1), grid.bottom)); r <= lastRow && firstColumn <= lastColumn; r++) {
      const to = cellStart[r * columns + lastColumn + 1]!
      for (let k = cellStart[r * columns + firstColumn]!; k < to; k++) {
        const i = edges[k]!
        const j = next[i - first]!
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
    return found.map(({ share }) => share).sort((a, b) => a - b)
  }

  /** Whether the solid holds a point: even-odd rule over all rims, told from the edges to its right. */
  holds(x: number, y: number): boolean {
    const { xy } = this.contours
    const { cellStart, edges, next, first, left, bottom, columns, rows, size } = this.grid
    const row = Math.floor((y - bottom) / size)
    const column = Math.max(0, Math.floor((x - left) / size))
    if (row < 0 || row >= rows || column >= columns) return false
    const crossed: number[] = []
    const to = cellStart[(row + 1) * columns]!
    for (let k = cellStart[row * columns + column]!; k < to; k++) {
      const i = edges[k]!
      const j = next[i - first]!
      const yi = xy[2 * i + 1]!
      const yj = xy[2 * j + 1]!
      if (yi > y === yj > y || x >= ((xy[2 * j]! - xy[2 * i]!) * (y - yi)) / (yj - yi) + xy[2 * i]!) continue
      // An edge stands in every cell that it passes through.
      if (!crossed.includes(i)) crossed.push(i)
    }
    return crossed.length % 2 === 1
  }
}

import { EdgeGrid } from './edgeGrid'
import type { Rims } from './rims'

/** Cells hold about this many edges of a rim that does not wind: coarse enough that passing over empty ones costs little. */
const EDGES_PER_CELL = 3

/**
 * Tells whether rims bound a solid as they are: none meets another or itself, and all have the solid on their left. May say
 * no where rims only come very near to each other, never yes where they meet.
 */
export class RimCheck {
  private readonly grid = new EdgeGrid()

  boundSolid(rims: Rims): boolean {
    return !this.meet(rims) && areNested(rims)
  }

  private meet(rims: Rims): boolean {
    if (rims.points === 0) return false
    const { xy } = rims
    const { cellStart, edges, next, columns, rows } = this.grid.lay(
      xy,
      rims.start,
      0,
      rims.count,
      (EDGES_PER_CELL * rims.length) / rims.points,
    )
    for (let c = 0; c < columns * rows; c++) {
      const to = cellStart[c + 1]!
      for (let a = cellStart[c]!; a < to; a++) {
        const i = edges[a]!
        const j = next[i]!
        const ax = xy[2 * i]!
        const ay = xy[2 * i + 1]!
        const dx = xy[2 * j]! - ax
        const dy = xy[2 * j + 1]! - ay
        for (let b = a + 1; b < to; b++) {
          const k = edges[b]!
          const l = next[k]!
          if (k === j || l === i || k === i) continue
          const px = xy[2 * k]! - ax
          const py = xy[2 * k + 1]! - ay
          const qx = xy[2 * l]! - ax
          const qy = xy[2 * l + 1]! - ay
          const p = dx * py - dy * px
          const q = dx * qy - dy * qx
          if ((p > 0 && q > 0) || (p < 0 && q < 0)) continue
          const ex = qx - px
          const ey = qy - py
          const s = py * ex - px * ey
          const t = s + dx * ey - dy * ex
          if ((s > 0 && t > 0) || (s < 0 && t < 0)) continue
          return true
        }
      }
    }
    return false
  }
}

/** Whether every outer rim lies in the open and every hole in the solid of the others. */
function areNested(rims: Rims): boolean {
  for (let r = 0; r < rims.count; r++) {
    const at = 2 * rims.start[r]!
    let winding = 0
    for (let s = 0; s < rims.count; s++) if (s !== r) winding += windingOf(rims, s, rims.xy[at]!, rims.xy[at + 1]!)
    if (winding !== (areaOf(rims, r) > 0 ? 0 : 1)) return false
  }
  return true
}

function windingOf({ xy, start }: Rims, rim: number, x: number, y: number): number {
  let winding = 0
  const to = start[rim + 1]!
  for (let i = start[rim]!, j = to - 1; i < to; j = i++) {
    const below = xy[2 * j + 1]! <= y
    if (below === xy[2 * i + 1]! <= y) continue
    const side = (xy[2 * i]! - xy[2 * j]!) * (y - xy[2 * j + 1]!) - (x - xy[2 * j]!) * (xy[2 * i + 1]! - xy[2 * j + 1]!)
    if (below && side > 0) winding++
    else if (!below && side < 0) winding--
  }
  return winding
}

function areaOf({ xy, start }: Rims, rim: number): number {
  let twice = 0
  const to = start[rim + 1]!
  for (let i = start[rim]!, j = to - 1; i < to; j = i++) twice += xy[2 * j]! * xy[2 * i + 1]! - xy[2 * i]! * xy[2 * j + 1]!
  return twice / 2
}

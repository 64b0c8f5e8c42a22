import type { Contours } from './contours'
import { NearIndex } from './nearIndex'

/** Edges are looked up in cells of this size, mm: a few line widths. */
const CELL = 1.5

/** Cuts open polylines, each x, y, x, y … in mm, to what lies inside a group of contours (even-odd rule). */
export function clipLines(lines: readonly ArrayLike<number>[], contours: Contours, group: number): Float64Array[] {
  const rims = new NearIndex(contours, group, CELL)
  const kept: Float64Array[] = []
  for (const line of lines) {
    let inside = rims.holds(line[0]!, line[1]!)
    let piece: number[] = inside ? [line[0]!, line[1]!] : []
    for (let i = 2; i < line.length; i += 2) {
      const [x0, y0, x1, y1] = [line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!]
      for (const share of rims.crossings(x0, y0, x1, y1)) {
        piece.push(x0 + (x1 - x0) * share, y0 + (y1 - y0) * share)
        if (inside) {
          kept.push(Float64Array.from(piece))
          piece = []
        }
        inside = !inside
      }
      if (inside) piece.push(x1, y1)
    }
    if (piece.length >= 4) kept.push(Float64Array.from(piece))
  }
  return kept
}

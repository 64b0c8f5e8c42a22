import type { Contours } from './contours'
import { NearIndex } from './nearIndex'

/** Edges are looked up in cells of this size, mm: a few line widths. */
const CELL = 1.5
/** So far beyond a crossing it is looked on which side a line goes on, mm. */
const PROBE = 0.01
/** Shares of a way that differ by less are one. */
const SAME = 1e-12

/**
 * Cuts open polylines, each x, y, x, y … in mm, to what lies inside a group of contours (even-odd rule). The side is looked up
 * behind every crossing and not counted on from the one before: a line may begin on a rim, touch a corner or run along an edge.
 */
export function clipLines(lines: readonly ArrayLike<number>[], contours: Contours, group: number): Float64Array[] {
  const rims = new NearIndex(contours, group, CELL)
  const kept: Float64Array[] = []
  for (const line of lines) {
    let piece: number[] = []
    const end = (): void => {
      if (piece.length >= 4) kept.push(Float64Array.from(piece))
      piece = []
    }
    let inside = false
    let isKnown = false
    for (let i = 2; i < line.length; i += 2) {
      const [x0, y0] = [line[i - 2]!, line[i - 1]!]
      const [dx, dy] = [line[i]! - x0, line[i + 1]! - y0]
      const length = Math.hypot(dx, dy)
      if (length === 0) continue
      const shares = rims.crossings(x0, y0, x0 + dx, y0 + dy)
      for (let k = 0; k <= shares.length; k++) {
        const from = k === 0 ? 0 : shares[k - 1]!
        const to = shares[k] ?? 1
        if (k > 0) isKnown = false
        if (to - from < SAME) continue
        if (!isKnown) {
          const probe = from + Math.min((to - from) / 2, PROBE / length)
          const goesOn = rims.holds(x0 + dx * probe, y0 + dy * probe)
          if (inside && !goesOn) end()
          if (!inside && goesOn) piece = [x0 + dx * from, y0 + dy * from]
          inside = goesOn
          isKnown = true
        }
        if (inside) piece.push(to === 1 ? line[i]! : x0 + dx * to, to === 1 ? line[i + 1]! : y0 + dy * to)
      }
    }
    end()
  }
  return kept
}

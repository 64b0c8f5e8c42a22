import type { Contours } from '../geometry/contours'

/** Whether the straight way between two points crosses a contour of the group, and so runs over open air or a wall. */
export function leavesPart(
  { xy, polygonStart, groupStart }: Contours,
  group: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): boolean {
  const dx = x1 - x0
  const dy = y1 - y0
  for (let p = groupStart[group]!; p < groupStart[group + 1]!; p++) {
    const to = polygonStart[p + 1]!
    let ax = xy[2 * (to - 1)]!
    let ay = xy[2 * (to - 1) + 1]!
    let sideA = dx * (ay - y0) - dy * (ax - x0)
    for (let i = polygonStart[p]!; i < to; i++) {
      const bx = xy[2 * i]!
      const by = xy[2 * i + 1]!
      const sideB = dx * (by - y0) - dy * (bx - x0)
      if (sideA > 0 !== sideB > 0) {
        const ex = bx - ax
        const ey = by - ay
        const sideStart = ex * (y0 - ay) - ey * (x0 - ax)
        const sideEnd = ex * (y1 - ay) - ey * (x1 - ax)
        if (sideStart > 0 !== sideEnd > 0) return true
      }
      ax = bx
      ay = by
      sideA = sideB
    }
  }
  return false
}

import { type Contours, polygonArea } from '../geometry/contours'
import { holds } from '../geometry/polygonsOf'

/** Separate bodies of one layer: the outer contours of a group, with their boxes. */
export interface Islands {
  readonly count: number
  /** Island that holds the point; islands inside the hole of another are told from it. */
  find(x: number, y: number): number
}

export function findIslands(contours: Contours, group: number): Islands {
  const outer: { polygon: number; area: number; box: readonly [number, number, number, number] }[] = []
  for (let p = contours.groupStart[group]!; p < contours.groupStart[group + 1]!; p++) {
    const area = polygonArea(contours, p)
    if (area > 0) outer.push({ polygon: p, area, box: boxOf(contours, p) })
  }
  // Smallest first: of nested contours that hold a point, the innermost is its island.
  outer.sort((a, b) => a.area - b.area)
  return {
    count: outer.length,
    find(x, y) {
      if (outer.length <= 1) return 0
      const found = outer.findIndex(
        ({ polygon, box }) =>
          x >= box[0] &&
          x <= box[1] &&
          y >= box[2] &&
          y <= box[3] &&
          holds(contours.xy.subarray(2 * contours.polygonStart[polygon]!, 2 * contours.polygonStart[polygon + 1]!), x, y),
      )
      return found < 0 ? outer.length - 1 : found
    },
  }
}

function boxOf({ xy, polygonStart }: Contours, polygon: number): [number, number, number, number] {
  const box: [number, number, number, number] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = polygonStart[polygon]!; i < polygonStart[polygon + 1]!; i++) {
    box[0] = Math.min(box[0], xy[2 * i]!)
    box[1] = Math.max(box[1], xy[2 * i]!)
    box[2] = Math.min(box[2], xy[2 * i + 1]!)
    box[3] = Math.max(box[3], xy[2 * i + 1]!)
  }
  return box
}

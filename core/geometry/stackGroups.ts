import type { Contours } from './contours'

/** Puts groups that were made one by one, each as contours of a single group, on top of each other in order. */
export function stackGroups(groups: readonly Contours[]): Contours {
  const points = groups.reduce((sum, { xy }) => sum + xy.length, 0)
  const polygons = groups.reduce((sum, { polygonStart }) => sum + polygonStart.length - 1, 0)
  const xy = new Float64Array(points)
  const polygonStart = new Uint32Array(polygons + 1)
  const groupStart = new Uint32Array(groups.length + 1)
  let point = 0
  let polygon = 0
  for (const [g, group] of groups.entries()) {
    xy.set(group.xy, 2 * point)
    for (let p = 0; p < group.polygonStart.length - 1; p++) polygonStart[polygon + p] = point + group.polygonStart[p]!
    point += group.xy.length / 2
    polygon += group.polygonStart.length - 1
    polygonStart[polygon] = point
    groupStart[g + 1] = polygon
  }
  return { xy, polygonStart, groupStart }
}

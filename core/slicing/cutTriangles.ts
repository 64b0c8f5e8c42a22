import type { Edges } from '../mesh/edges'
import type { Mesh } from '../mesh/mesh'

/**
 * Where triangles cross the cutting planes, sorted by plane.
 *
 * ```
 * planeStart  plane → first segment; one more entry than planes
 * fromEdge    mesh edge on which the segment starts
 * toEdge      mesh edge on which it ends
 * from        x, y of its start, mm (the end is the start of the segment that follows on toEdge)
 * to          x, y of its end, mm: needed only where nothing follows
 * ```
 * Segments run with the solid on their left, seen from above.
 */
export interface Segments {
  readonly planeStart: Uint32Array
  readonly fromEdge: Uint32Array
  readonly toEdge: Uint32Array
  readonly from: Float64Array
  readonly to: Float64Array
  readonly edgeCount: number
}

/** @param planes ascending heights, mm */
export function cutTriangles(mesh: Mesh, edges: Pick<Edges, 'count' | 'ofTriangle'>, planes: Float64Array): Segments {
  const { positions: p, triangles } = mesh
  const triangleCount = triangles.length / 3
  const firstPlane = new Uint32Array(triangleCount)
  const endPlane = new Uint32Array(triangleCount)
  const planeStart = new Uint32Array(planes.length + 1)
  for (let t = 0; t < triangleCount; t++) {
    const a = p[3 * triangles[3 * t]! + 2]!
    const b = p[3 * triangles[3 * t + 1]! + 2]!
    const c = p[3 * triangles[3 * t + 2]! + 2]!
    // A corner on the plane counts as above it, so every plane meets a triangle in no or two edges: lowest < z <= highest.
    const first = countUpTo(planes, Math.min(a, b, c))
    const end = countUpTo(planes, Math.max(a, b, c))
    firstPlane[t] = first
    endPlane[t] = end
    for (let k = first; k < end; k++) planeStart[k + 1]!++
  }
  for (let k = 0; k < planes.length; k++) planeStart[k + 1]! += planeStart[k]!
  const total = planeStart[planes.length]!
  const cursor = planeStart.slice()
  const fromEdge = new Uint32Array(total)
  const toEdge = new Uint32Array(total)
  const from = new Float64Array(2 * total)
  const to = new Float64Array(2 * total)
  for (let t = 0; t < triangleCount; t++) {
    for (let k = firstPlane[t]!; k < endPlane[t]!; k++) {
      const z = planes[k]!
      const s = cursor[k]!++
      for (let side = 0; side < 3; side++) {
        const here = triangles[3 * t + side]!
        const next = triangles[3 * t + (side === 2 ? 0 : side + 1)]!
        const hereAbove = p[3 * here + 2]! >= z
        if (hereAbove === p[3 * next + 2]! >= z) continue
        // Going down through the plane begins the segment, going up ends it: that keeps the solid on the left.
        const out = hereAbove ? from : to
        if (hereAbove) fromEdge[s] = edges.ofTriangle[3 * t + side]!
        else toEdge[s] = edges.ofTriangle[3 * t + side]!
        // Both triangles on an edge must find the very same point, so it is computed from the lower-numbered vertex.
        const low = 3 * Math.min(here, next)
        const high = 3 * Math.max(here, next)
        const share = (z - p[low + 2]!) / (p[high + 2]! - p[low + 2]!)
        out[2 * s] = p[low]! + share * (p[high]! - p[low]!)
        out[2 * s + 1] = p[low + 1]! + share * (p[high + 1]! - p[low + 1]!)
      }
    }
  }
  return { planeStart, fromEdge, toEdge, from, to, edgeCount: edges.count }
}

/** How many of the ascending heights are at or below `z`. */
function countUpTo(planes: Float64Array, z: number): number {
  let low = 0
  let high = planes.length
  while (low < high) {
    const middle = (low + high) >>> 1
    if (planes[middle]! <= z) low = middle + 1
    else high = middle
  }
  return low
}

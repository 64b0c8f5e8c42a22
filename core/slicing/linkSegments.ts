import type { ContoursBuilder } from '../regions/contours'
import type { Segments } from './cutTriangles'

/** A chain of segments that does not close by itself: the x, y of its points. */
type OpenChain = readonly number[]

/** Finds the segments of one plane by the mesh edge that they start on. One is made per mesh and used plane after plane. */
export class SegmentIndex {
  private readonly head: Int32Array
  /** Plane in which `head` was last written, per edge: saves clearing it for each plane. */
  private readonly writtenIn: Int32Array
  private readonly next: Int32Array

  constructor(private readonly segments: Segments) {
    this.head = new Int32Array(segments.edgeCount)
    this.writtenIn = new Int32Array(segments.edgeCount).fill(-1)
    this.next = new Int32Array(segments.fromEdge.length)
  }

  enter(plane: number): void {
    const { planeStart, fromEdge } = this.segments
    for (let s = planeStart[plane + 1]! - 1; s >= planeStart[plane]!; s--) {
      const edge = fromEdge[s]!
      this.next[s] = this.writtenIn[edge] === plane ? this.head[edge]! : -1
      this.head[edge] = s
      this.writtenIn[edge] = plane
    }
  }

  /** First segment of the plane on this edge that `used` does not mark, or −1. A crowded edge may start several. */
  startingOn(edge: number, plane: number, used: Uint8Array): number {
    if (this.writtenIn[edge] !== plane) return -1
    let s = this.head[edge]!
    while (s >= 0 && used[s] === 1) s = this.next[s]!
    return s
  }
}

/**
 * Links the segments of one plane into closed polygons. Neighbouring triangles name the same mesh edge, so links need no
 * search by distance; only at holes of the surface are the nearest ends joined.
 *
 * @param used one mark a segment, shared by all planes
 * @returns the widest gap that was closed, mm; 0 for a watertight mesh
 */
export function linkSegments(segments: Segments, plane: number, index: SegmentIndex, used: Uint8Array, out: ContoursBuilder): number {
  const from = segments.planeStart[plane]!
  const to = segments.planeStart[plane + 1]!
  index.enter(plane)
  const open: OpenChain[] = []
  const chainEnds = new Set<number>()
  for (let s = from; s < to; s++) if (index.startingOn(segments.toEdge[s]!, plane, used) < 0) chainEnds.add(s)
  // Chains that nothing leads into are followed first; what is left then consists of closed rings.
  if (chainEnds.size > 0) {
    const ledInto = new Set<number>()
    for (let s = from; s < to; s++) ledInto.add(segments.toEdge[s]!)
    for (let s = from; s < to; s++) if (used[s] === 0 && !ledInto.has(segments.fromEdge[s]!)) follow(s)
  }
  for (let s = from; s < to; s++) if (used[s] === 0) follow(s)
  return closeChains(open, out)

  function follow(start: number): void {
    const xy: number[] = []
    let s = start
    for (;;) {
      used[s] = 1
      xy.push(segments.from[2 * s]!, segments.from[2 * s + 1]!)
      const next = index.startingOn(segments.toEdge[s]!, plane, used)
      if (next < 0) {
        if (segments.toEdge[s] === segments.fromEdge[start]) out.addPolygon(fromItsCorner(xy))
        else {
          xy.push(segments.to[2 * s]!, segments.to[2 * s + 1]!)
          open.push(xy)
        }
        return
      }
      s = next
    }
  }
}

/** Joins each chain's end to the nearest start, its own included, until all are closed. */
function closeChains(chains: readonly OpenChain[], out: ContoursBuilder): number {
  let widest = 0
  const left = [...chains]
  while (left.length > 0) {
    const xy = [...(left.pop() as OpenChain)]
    for (;;) {
      const x = xy[xy.length - 2]!
      const y = xy[xy.length - 1]!
      let nearest = Math.hypot(xy[0]! - x, xy[1]! - y)
      let chosen = -1
      for (const [i, chain] of left.entries()) {
        const distance = Math.hypot(chain[0]! - x, chain[1]! - y)
        if (distance < nearest) {
          nearest = distance
          chosen = i
        }
      }
      widest = Math.max(widest, nearest)
      if (chosen < 0) break
      xy.push(...(left.splice(chosen, 1)[0] as OpenChain))
    }
    if (xy.length >= 6) out.addPolygon(xy)
  }
  return widest
}

/** A point nearer than this to the line through its neighbours, mm, is no corner but where a plane crosses an edge within a side. */
const ON_SIDE = 1e-6

/**
 * A ring from its leftmost corner on, the lowest of those, and without points that lie on its sides. So layers of the same shape
 * are the same, point for point, however the sides are cut into triangles.
 */
function fromItsCorner(xy: readonly number[]): number[] {
  const count = xy.length / 2
  let first = 0
  for (let i = 1; i < count; i++)
    if (xy[2 * i]! < xy[2 * first]! || (xy[2 * i] === xy[2 * first] && xy[2 * i + 1]! < xy[2 * first + 1]!)) first = i
  const ring = [xy[2 * first]!, xy[2 * first + 1]!]
  for (let n = 1; n < count; n++) {
    const i = (first + n) % count
    const next = (i + 1) % count
    const [x, y] = [xy[2 * i]!, xy[2 * i + 1]!]
    const [ax, ay] = [ring[ring.length - 2]!, ring[ring.length - 1]!]
    const [dx, dy] = [xy[2 * next]! - ax, xy[2 * next + 1]! - ay]
    const length = Math.sqrt(dx * dx + dy * dy)
    if (length > 0 && Math.abs(dx * (y - ay) - dy * (x - ax)) <= ON_SIDE * length && dx * (x - ax) + dy * (y - ay) > 0) continue
    ring.push(x, y)
  }
  return ring.length >= 6 ? ring : [...xy]
}

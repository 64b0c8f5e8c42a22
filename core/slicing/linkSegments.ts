import type { ContoursBuilder } from '../geometry/contours'
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

  /** The chain that was followed last: x, y of where its segments begin, how many these are, and the last of them. */
  chain = new Float64Array(0)
  chainLength = 0
  chainEnd = -1

  /** Follows a chain from a segment and marks it. */
  follow(start: number, plane: number, used: Uint8Array): void {
    const { from, toEdge, planeStart } = this.segments
    const most = 2 * (planeStart[plane + 1]! - planeStart[plane]!)
    if (most > this.chain.length) this.chain = new Float64Array(2 * most)
    const { chain } = this
    let count = 0
    for (let s = start; s >= 0; s = this.startingOn(toEdge[s]!, plane, used)) {
      used[s] = 1
      chain[2 * count] = from[2 * s]!
      chain[2 * count + 1] = from[2 * s + 1]!
      count++
      this.chainEnd = s
    }
    this.chainLength = count
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
    index.follow(start, plane, used)
    const { chain, chainLength, chainEnd } = index
    if (segments.toEdge[chainEnd] === segments.fromEdge[start]) addFromItsCorner(chain, chainLength, out)
    else open.push([...chain.subarray(0, 2 * chainLength), segments.to[2 * chainEnd]!, segments.to[2 * chainEnd + 1]!])
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
 * Adds a ring from its leftmost corner on, the lowest of those, and without points that lie on its sides. So layers of the same
 * shape are the same, point for point, however the sides are cut into triangles.
 */
function addFromItsCorner(ring: Float64Array, count: number, out: ContoursBuilder): void {
  let first = 0
  for (let i = 1; i < count; i++)
    if (ring[2 * i]! < ring[2 * first]! || (ring[2 * i] === ring[2 * first] && ring[2 * i + 1]! < ring[2 * first + 1]!)) first = i
  const { xy, at } = out.reserve(count)
  let ax = ring[2 * first]!
  let ay = ring[2 * first + 1]!
  xy[at] = ax
  xy[at + 1] = ay
  let kept = 1
  for (let n = 1, i = first; n < count; n++) {
    i = i + 1 === count ? 0 : i + 1
    const next = i + 1 === count ? 0 : i + 1
    const x = ring[2 * i]!
    const y = ring[2 * i + 1]!
    const dx = ring[2 * next]! - ax
    const dy = ring[2 * next + 1]! - ay
    const length = Math.sqrt(dx * dx + dy * dy)
    const off = dx * (y - ay) - dy * (x - ax)
    if (length > 0 && off <= ON_SIDE * length && off >= -ON_SIDE * length && dx * (x - ax) + dy * (y - ay) > 0) continue
    xy[at + 2 * kept] = x
    xy[at + 2 * kept + 1] = y
    kept++
    ax = x
    ay = y
  }
  if (kept >= 3) out.endPolygon(kept)
  else out.addPolygon(ring.subarray(0, 2 * count))
}

import type { ContoursBuilder } from '../regions/contours'
import type { Segments } from './cutTriangles'

/** A chain of segments that does not close by itself: indices of its points into `xy`, and its two ends. */
interface OpenChain {
  readonly xy: number[]
}

/**
 * Links the segments of one plane into closed polygons. Neighbouring triangles name the same mesh edge, so links need no
 * search by distance; only at holes of the surface are the nearest ends joined.
 *
 * @returns the widest gap that was closed, mm; 0 for a watertight mesh
 */
export function linkSegments(segments: Segments, plane: number, out: ContoursBuilder): number {
  const first = segments.planeStart[plane]!
  const count = segments.planeStart[plane + 1]! - first
  const starting = startsByEdge(segments, first, count)
  const used = new Uint8Array(count)
  const endsOn = new Set<number>()
  for (let i = 0; i < count; i++) endsOn.add(segments.toEdge[first + i]!)
  const open: OpenChain[] = []
  // Chains that nothing leads into are followed first; what is left then consists of closed rings.
  for (let i = 0; i < count; i++) if (used[i] === 0 && !endsOn.has(segments.fromEdge[first + i]!)) follow(i)
  for (let i = 0; i < count; i++) if (used[i] === 0) follow(i)
  return closeChains(open, out)

  function follow(start: number): void {
    const xy: number[] = []
    let at = start
    for (;;) {
      used[at] = 1
      const s = first + at
      xy.push(segments.from[2 * s]!, segments.from[2 * s + 1]!)
      const next = starting.take(segments.toEdge[s]!, used)
      if (next < 0) {
        if (segments.toEdge[s] === segments.fromEdge[first + start]) out.addPolygon(xy)
        else {
          xy.push(segments.to[2 * s]!, segments.to[2 * s + 1]!)
          open.push({ xy })
        }
        return
      }
      at = next
    }
  }
}

/** Finds unused segments by the edge they start on; a crowded edge may start several. */
function startsByEdge(segments: Segments, first: number, count: number) {
  const head = new Map<number, number>()
  const next = new Int32Array(count).fill(-1)
  for (let i = count - 1; i >= 0; i--) {
    const edge = segments.fromEdge[first + i]!
    next[i] = head.get(edge) ?? -1
    head.set(edge, i)
  }
  return {
    take(edge: number, used: Uint8Array): number {
      let i = head.get(edge) ?? -1
      while (i >= 0 && used[i] === 1) i = next[i]!
      return i
    },
  }
}

/** Joins each chain's end to the nearest start, its own included, until all are closed. */
function closeChains(chains: OpenChain[], out: ContoursBuilder): number {
  let widest = 0
  const left = [...chains]
  while (left.length > 0) {
    const xy = [...(left.pop() as OpenChain).xy]
    for (;;) {
      const x = xy[xy.length - 2]!
      const y = xy[xy.length - 1]!
      let nearest = Math.hypot(xy[0]! - x, xy[1]! - y)
      let chosen = -1
      for (const [i, chain] of left.entries()) {
        const distance = Math.hypot(chain.xy[0]! - x, chain.xy[1]! - y)
        if (distance < nearest) {
          nearest = distance
          chosen = i
        }
      }
      widest = Math.max(widest, nearest)
      if (chosen < 0) break
      xy.push(...(left.splice(chosen, 1)[0] as OpenChain).xy)
    }
    if (xy.length >= 6) out.addPolygon(xy)
  }
  return widest
}

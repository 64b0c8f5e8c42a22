import type { Mesh } from './mesh'

/**
 * The edges of a mesh.
 *
 * `ofTriangle[3t + k]` is the edge from corner k to corner k + 1 of triangle t; the same number stands in every triangle
 * that shares the edge, whichever way it runs. `uses[e]` counts those triangles.
 * `forward[3t + k]` is 1 when the triangle runs along the edge from its lower to its higher vertex.
 */
export interface Edges {
  readonly count: number
  readonly ofTriangle: Uint32Array
  readonly forward: Uint8Array
  readonly uses: Uint32Array
}

/** Numbers the edges of a mesh. Runs in linear time with one hash table. */
export function findEdges(mesh: Mesh): Edges {
  const { triangles } = mesh
  const corners = triangles.length
  let size = 1
  while (size < 1.25 * corners) size *= 2
  const mask = size - 1
  /** Number of the edge + 1; 0 where there is none. */
  const slots = new Uint32Array(size)
  const low = new Uint32Array(corners)
  const high = new Uint32Array(corners)
  const uses = new Uint32Array(corners)
  const ofTriangle = new Uint32Array(corners)
  const forward = new Uint8Array(corners)
  let count = 0
  for (let c = 0; c < corners; c++) {
    const from = triangles[c]!
    const to = triangles[c % 3 === 2 ? c - 2 : c + 1]!
    const a = Math.min(from, to)
    const b = Math.max(from, to)
    forward[c] = from < to ? 1 : 0
    let slot = (Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b)) >>> 7
    slot &= mask
    let edge = slots[slot]! - 1
    while (edge >= 0 && (low[edge] !== a || high[edge] !== b)) {
      slot = (slot + 1) & mask
      edge = slots[slot]! - 1
    }
    if (edge < 0) {
      edge = count++
      slots[slot] = count
      low[edge] = a
      high[edge] = b
    }
    uses[edge]!++
    ofTriangle[c] = edge
  }
  return { count, ofTriangle, forward, uses: uses.slice(0, count) }
}

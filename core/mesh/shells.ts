import type { Edges } from './edges'
import { type Mesh, triangleCount } from './mesh'

/**
 * Groups triangles that hang together over edges, and turns them within each group so that neighbours agree on which
 * side is outside. Edges shared by more than two triangles do not connect: no side can be inferred across them.
 */
export interface Shells {
  readonly count: number
  /** Shell number of each triangle. */
  readonly ofTriangle: Int32Array
  /** 1 where a triangle must be turned over to agree with the first triangle of its shell. */
  readonly turned: Uint8Array
}

export function findShells(mesh: Mesh, edges: Edges): Shells {
  const triangles = triangleCount(mesh)
  const first = new Int32Array(edges.count).fill(-1)
  const second = new Int32Array(edges.count).fill(-1)
  for (let c = 0; c < 3 * triangles; c++) {
    const edge = edges.ofTriangle[c]!
    if (edges.uses[edge] !== 2) continue
    if (first[edge]! < 0) first[edge] = c
    else second[edge] = c
  }
  const ofTriangle = new Int32Array(triangles).fill(-1)
  const turned = new Uint8Array(triangles)
  const stack = new Int32Array(triangles)
  let count = 0
  for (let seed = 0; seed < triangles; seed++) {
    if (ofTriangle[seed]! >= 0) continue
    let depth = 0
    stack[depth++] = seed
    ofTriangle[seed] = count
    while (depth > 0) {
      const t = stack[--depth]!
      for (let c = 3 * t; c < 3 * t + 3; c++) {
        const edge = edges.ofTriangle[c]!
        const other = first[edge] === c ? second[edge]! : first[edge]!
        if (other < 0) continue
        const neighbour = (other / 3) | 0
        if (ofTriangle[neighbour]! >= 0) continue
        ofTriangle[neighbour] = count
        // Two triangles that agree run along their shared edge in opposite directions.
        const agrees = edges.forward[c] !== edges.forward[other]
        turned[neighbour] = agrees ? turned[t]! : 1 - turned[t]!
        stack[depth++] = neighbour
      }
    }
    count++
  }
  return { count, ofTriangle, turned }
}

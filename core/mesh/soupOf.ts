import type { Mesh } from './mesh'

/** Triangles with nothing shared, as a file would give them: nine coordinates each. */
export function soupOf({ positions, triangles }: Mesh): Float64Array {
  const corners = new Float64Array(3 * triangles.length)
  for (let i = 0; i < triangles.length; i++) corners.set(positions.subarray(3 * triangles[i]!, 3 * triangles[i]! + 3), 3 * i)
  return corners
}

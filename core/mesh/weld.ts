import type { Mesh } from './mesh'
import { weldDoubles } from './weldDoubles'
import { weldSingles } from './weldSingles'

/**
 * Joins equal corners into shared vertices.
 *
 * @param corners nine coordinates per triangle, mm, none of them not a number
 * @returns a mesh with the same triangles in the same order; corners are equal when all bits of each coordinate are
 *   (−0 counts as 0)
 */
export const weld = (corners: Float32Array | Float64Array): Mesh =>
  corners instanceof Float32Array ? weldSingles(corners) : weldDoubles(corners)

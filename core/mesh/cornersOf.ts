/**
 * Corners of every facet, one after another: nine coordinates each, mm, as drawings want them.
 *
 * @param positions x, y, z per vertex, @param triangles three vertices per facet
 */
export function cornersOf({
  positions,
  triangles,
}: {
  readonly positions: ArrayLike<number>
  readonly triangles: Uint32Array
}): Float32Array {
  const corners = new Float32Array(3 * triangles.length)
  for (let i = 0; i < triangles.length; i++)
    for (let axis = 0; axis < 3; axis++) corners[3 * i + axis] = positions[3 * triangles[i]! + axis]!
  return corners
}

/**
 * A triangle mesh with shared vertices. Lengths in mm, winding counter-clockwise seen from outside.
 *
 * `positions` holds x, y, z per vertex; `triangles` holds three vertex indices per triangle.
 */
export interface Mesh {
  readonly positions: Float64Array
  readonly triangles: Uint32Array
}

/** Triangles as a file gives them: nine coordinates (three corners) per triangle, nothing shared, mm; as precise as the file has them. */
export interface TriangleSoup {
  readonly corners: Float32Array | Float64Array
  /** Anything odd in the file that did not stop it from being read. */
  readonly notes: readonly string[]
}

export interface Box {
  readonly min: readonly [number, number, number]
  readonly max: readonly [number, number, number]
}

export const triangleCount = (mesh: Mesh): number => mesh.triangles.length / 3

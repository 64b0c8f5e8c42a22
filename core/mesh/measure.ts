import { type Box, type Mesh, triangleCount } from './mesh'

/** Volume enclosed, mm³: the sum of signed tetrahedra about the origin. Negative when the mesh is inside out. */
export function measureVolume(mesh: Mesh): number {
  let sixfold = 0
  for (let t = 0; t < triangleCount(mesh); t++) sixfold += sixfoldVolume(mesh, t)
  return sixfold / 6
}

/** Six times the signed volume of the tetrahedron between a triangle and the origin, mm³. */
export function sixfoldVolume({ positions: p, triangles }: Mesh, t: number): number {
  const a = 3 * triangles[3 * t]!
  const b = 3 * triangles[3 * t + 1]!
  const c = 3 * triangles[3 * t + 2]!
  return (
    p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
    p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
    p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!)
  )
}

/** Surface area, mm². */
export function measureArea(mesh: Mesh): number {
  const normal = new Float64Array(3)
  let area = 0
  for (let t = 0; t < triangleCount(mesh); t++) {
    area += areaNormal(mesh, t, normal) / 2
  }
  return area
}

/** Writes the unnormalised normal of triangle `t` to `out` and returns its length, which is twice the area, mm². */
export function areaNormal(mesh: Mesh, t: number, out: Float64Array): number {
  const { positions: p, triangles } = mesh
  const a = 3 * triangles[3 * t]!
  const b = 3 * triangles[3 * t + 1]!
  const c = 3 * triangles[3 * t + 2]!
  const ux = p[b]! - p[a]!
  const uy = p[b + 1]! - p[a + 1]!
  const uz = p[b + 2]! - p[a + 2]!
  const vx = p[c]! - p[a]!
  const vy = p[c + 1]! - p[a + 1]!
  const vz = p[c + 2]! - p[a + 2]!
  out[0] = uy * vz - uz * vy
  out[1] = uz * vx - ux * vz
  out[2] = ux * vy - uy * vx
  return Math.sqrt(out[0]! * out[0]! + out[1]! * out[1]! + out[2]! * out[2]!)
}

/** The axis-aligned box around the vertices that triangles use, mm. */
export function measureBox({ positions, triangles }: Mesh): Box {
  let [x0, y0, z0, x1, y1, z1] = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity]
  for (let c = 0; c < triangles.length; c++) {
    const at = 3 * triangles[c]!
    const x = positions[at]!
    const y = positions[at + 1]!
    const z = positions[at + 2]!
    if (x < x0) x0 = x
    if (x > x1) x1 = x
    if (y < y0) y0 = y
    if (y > y1) y1 = y
    if (z < z0) z0 = z
    if (z > z1) z1 = z
  }
  return { min: [x0, y0, z0], max: [x1, y1, z1] }
}

/** Edge lengths of the box around the mesh, mm. */
export function measureSize(mesh: Mesh): [number, number, number] {
  const { min, max } = measureBox(mesh)
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]]
}

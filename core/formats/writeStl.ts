import type { Mesh } from '../mesh/mesh'

/** Writes a mesh as a binary STL file; coordinates in mm, rounded to 32-bit floats as the format asks. */
export function writeStl(mesh: Mesh, title = ''): Uint8Array<ArrayBuffer> {
  const count = mesh.triangles.length / 3
  const bytes = new Uint8Array(84 + 50 * count)
  const view = new DataView(bytes.buffer)
  for (let i = 0; i < Math.min(80, title.length); i++) bytes[i] = title.charCodeAt(i) & 0x7f
  view.setUint32(80, count, true)
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [0, 1, 2].map((k) => (mesh.triangles[3 * t + k] as number) * 3) as [number, number, number]
    const p = mesh.positions
    const u = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!] as const
    const v = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!] as const
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const
    const length = Math.hypot(...n) || 1
    const at = 84 + 50 * t
    for (let k = 0; k < 3; k++) view.setFloat32(at + 4 * k, n[k]! / length, true)
    for (let k = 0; k < 9; k++) view.setFloat32(at + 12 + 4 * k, p[[a, b, c][Math.floor(k / 3)]! + (k % 3)]!, true)
  }
  return bytes
}

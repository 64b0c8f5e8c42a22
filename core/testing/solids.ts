import createManifold, { type ManifoldToplevel } from 'manifold-3d'
import type { Mesh } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import { repair } from '../mesh/repair'
import { soupOf } from '../mesh/soupOf'

/** A general-purpose solid-modelling kernel, independent of ours: makes test bodies and knows their volumes and sections. */
export const solids: Promise<ManifoldToplevel> = createManifold().then((kernel) => {
  kernel.setup()
  return kernel
})

export { soupOf } from '../mesh/soupOf'
export { meshOf } from '../trials/solids/solidKernel'

/** An axis-parallel block with its middle above the origin and its foot on z = 0, mm. */
export function blockMesh(width: number, depth: number, height: number): Mesh {
  const [x, y] = [width / 2, depth / 2]
  const corners = [-x, -y, 0, x, -y, 0, x, y, 0, -x, y, 0, -x, -y, height, x, -y, height, x, y, height, -x, y, height]
  const faces = [0, 2, 1, 0, 3, 2, 4, 5, 6, 4, 6, 7, 0, 1, 5, 0, 5, 4, 1, 2, 6, 1, 6, 5, 2, 3, 7, 2, 7, 6, 3, 0, 4, 3, 4, 7]
  return { positions: Float64Array.from(corners), triangles: Uint32Array.from(faces) }
}

/** Several meshes as one, their bodies left as they are. */
export function joined(...meshes: readonly Mesh[]): Mesh {
  const positions = Float64Array.from(meshes.flatMap((mesh) => [...mesh.positions]))
  let offset = 0
  const triangles = meshes.flatMap((mesh) => {
    const shifted = [...mesh.triangles].map((v) => v + offset)
    offset += mesh.positions.length / 3
    return shifted
  })
  return { positions, triangles: Uint32Array.from(triangles) }
}

export const moved = (mesh: Mesh, dx: number, dy: number, dz: number): Mesh => ({
  positions: mesh.positions.map((value, i) => value + [dx, dy, dz][i % 3]!),
  triangles: mesh.triangles,
})

/** Turned about the upright axis, degrees. */
export function turnedAbout(mesh: Mesh, degrees: number): Mesh {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  const positions = mesh.positions.slice()
  for (let i = 0; i < positions.length; i += 3) {
    positions[i] = mesh.positions[i]! * cos - mesh.positions[i + 1]! * sin
    positions[i + 1] = mesh.positions[i]! * sin + mesh.positions[i + 1]! * cos
  }
  return { positions, triangles: mesh.triangles }
}

/** A mesh as a part, under a name that stands for its content. */
export const partOf = (key: string, mesh: Mesh): Part => ({ key, ...repair({ corners: soupOf(mesh), notes: [] }) })

import { z } from 'zod'
import { shared } from '../units/shared'
import { measureBox } from './measure'
import type { Mesh } from './mesh'

/** How a part lies on the bed: uniform scale, then rotation about x, y and z in that order. */
export const placementSchema = z.object({
  scale: z.number().positive().max(1000).default(1),
  rotateDeg: z.tuple([z.number(), z.number(), z.number()]).default([0, 0, 0]),
})
export type Placement = z.infer<typeof placementSchema>

export const asModelled: Placement = { scale: 1, rotateDeg: [0, 0, 0] }

/**
 * Scales and turns a mesh, then sets it on the bed: lowest point at z = 0, middle of its box at x = y = 0.
 * Lengths in mm, angles in degrees, right-handed.
 */
export function place(mesh: Mesh, placement: Placement = asModelled): Mesh {
  const turned = transform(mesh, rotationMatrix(placement.rotateDeg, placement.scale))
  const { min, max } = measureBox(turned)
  const { triangles } = turned
  const positions = shared(turned.positions)
  for (let i = 0; i < positions.length; i += 3) {
    positions[i]! -= (min[0] + max[0]) / 2
    positions[i + 1]! -= (min[1] + max[1]) / 2
    positions[i + 2]! -= min[2]
  }
  return { positions, triangles }
}

/** Applies a row-major 3 × 3 matrix to every vertex; a mirroring matrix also turns the winding, so the mesh stays outside out. */
export function transform(mesh: Mesh, m: readonly number[]): Mesh {
  const positions = new Float64Array(mesh.positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    const x = mesh.positions[i]!
    const y = mesh.positions[i + 1]!
    const z = mesh.positions[i + 2]!
    for (let r = 0; r < 3; r++) positions[i + r] = m[3 * r]! * x + m[3 * r + 1]! * y + m[3 * r + 2]! * z
  }
  return { positions, triangles: determinant(m) < 0 ? turnedOver(mesh.triangles) : mesh.triangles }
}

function turnedOver(triangles: Uint32Array): Uint32Array {
  const turned = triangles.slice()
  for (let c = 0; c < triangles.length; c += 3) {
    turned[c + 1] = triangles[c + 2]!
    turned[c + 2] = triangles[c + 1]!
  }
  return turned
}

export function rotationMatrix([rx, ry, rz]: readonly [number, number, number], scale: number): number[] {
  const [cx, sx] = cosSin(rx)
  const [cy, sy] = cosSin(ry)
  const [cz, sz] = cosSin(rz)
  // Rz · Ry · Rx
  return [
    cz * cy,
    cz * sy * sx - sz * cx,
    cz * sy * cx + sz * sx,
    sz * cy,
    sz * sy * sx + cz * cx,
    sz * sy * cx - cz * sx,
    -sy,
    cy * sx,
    cy * cx,
  ].map((v) => v * scale)
}

/** Exact at quarter turns, where floating-point cosine would leave a sliver of tilt and spoil flat faces. */
function cosSin(degrees: number): [number, number] {
  const turn = ((degrees % 360) + 360) % 360
  if (turn % 90 === 0)
    return [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ][turn / 90] as [number, number]
  return [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
}

const determinant = (m: readonly number[]): number =>
  m[0]! * (m[4]! * m[8]! - m[5]! * m[7]!) - m[1]! * (m[3]! * m[8]! - m[5]! * m[6]!) + m[2]! * (m[3]! * m[7]! - m[4]! * m[6]!)

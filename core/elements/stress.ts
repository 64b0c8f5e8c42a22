import { stressMatrix } from './brick'
import type { Elasticity } from './elasticity'
import type { Mesh } from './mesh'

/** Points of a cell at which stresses are told: the middles of its eighths. */
export const POINTS = 8

/** Tells stresses of cells, MPa, of what they are filled with, however much that is: σx, σy, σz, τyz, τxz, τxy at each of eight points. */
export function stressTeller(
  { size, nodes, kind }: Mesh,
  materials: readonly Elasticity[],
): (moved: Float64Array, cell: number, out: Float64Array) => void {
  const matrices = materials.map((one) => stressMatrix(size, one))
  const u = new Float64Array(24)
  return (moved, cell, out) => {
    for (let n = 0; n < 8; n++) {
      const d = 3 * nodes[8 * cell + n]!
      u[3 * n] = moved[d]!
      u[3 * n + 1] = moved[d + 1]!
      u[3 * n + 2] = moved[d + 2]!
    }
    const matrix = matrices[kind[cell]!]!
    for (let row = 0, k = 0; row < 6 * POINTS; row++) {
      let sum = 0
      for (let j = 0; j < 24; j++, k++) sum += matrix[k]! * u[j]!
      out[row] = sum
    }
  }
}

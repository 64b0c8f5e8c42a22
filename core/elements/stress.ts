import { stressMatrix } from './brick'
import type { Elasticity } from './elasticity'
import { toCorners, toPatterns } from './kernel/hadamard'
import type { Mesh } from './mesh'
import { CORNERS, signOf } from './patterns'

/** Points of a cell at which stresses are told: the middles of its eighths. */
export const POINTS = 8
/** Of 24 movements by pattern no more than one along each axis has to do with a stress of one pattern. */
const TERMS = 3

/** Tells stresses of cells, MPa, of what they are filled with, however much that is: σx, σy, σz, τyz, τxz, τxy at each of eight points. */
export function stressTeller(
  { size, nodes, kind }: Mesh,
  materials: readonly Elasticity[],
): (moved: Float64Array, cell: number, out: Float64Array) => void {
  const tables = materials.map((one) => byPatterns(stressMatrix(size, one)))
  const [u, w] = [new Float64Array(24), new Float64Array(24)]
  const [t, points] = [new Float64Array(8), new Float64Array(8)]
  return (moved, cell, out) => {
    for (let n = 0; n < 8; n++) {
      const d = 3 * nodes[8 * cell + n]!
      u[n] = moved[d]!
      u[8 + n] = moved[d + 1]!
      u[16 + n] = moved[d + 2]!
    }
    for (let i = 0; i < 24; i += 8) toPatterns(u, w, i)
    const { from, times } = tables[kind[cell]!]!
    for (let row = 0, k = 0; row < 6; row++) {
      for (let p = 0; p < 8; p++, k += TERMS)
        t[p] = times[k]! * w[from[k]!]! + times[k + 1]! * w[from[k + 1]!]! + times[k + 2]! * w[from[k + 2]!]!
      toCorners(t, points)
      for (let p = 0; p < POINTS; p++) out[row + 6 * p] = points[p]!
    }
  }
}

/** A stress matrix between patterns of points and patterns of corners, of which few numbers are left: which, and how much, by stress and pattern. */
function byPatterns(matrix: Float64Array): { readonly from: Uint8Array; readonly times: Float64Array } {
  const from = new Uint8Array(6 * 8 * TERMS)
  const times = new Float64Array(6 * 8 * TERMS)
  for (let row = 0; row < 6; row++)
    for (let p = 0; p < 8; p++)
      for (let axis = 0; axis < 3; axis++) {
        // A stress is even or odd along an axis as the movements are that make it, but for the axes it is named by.
        const q = sources[row]![axis]! ^ p
        let sum = 0
        for (let point = 0; point < POINTS; point++)
          for (let n = 0; n < CORNERS; n++) sum += signOf(p, point) * matrix[24 * (6 * point + row) + 3 * n + axis]! * signOf(q, n)
        const k = TERMS * (8 * row + p) + axis
        from[k] = CORNERS * axis + q
        times[k] = sum / 64
      }
  return { from, times }
}

/** By which axes movements along x, y and z differ in pattern from σx, σy, σz, τyz, τxz and τxy. */
const sources: readonly (readonly [number, number, number])[] = [
  [1, 2, 4],
  [1, 2, 4],
  [1, 2, 4],
  [7, 4, 2],
  [4, 7, 1],
  [2, 1, 7],
]

import type { Elasticity } from './elasticity'
import { CORNERS, signOf } from './patterns'

const DOFS = 3 * CORNERS

/** Sign of a corner along an axis. */
const sign = (corner: number, axis: number): number => ((corner >> axis) & 1 ? 1 : -1)

/** Two points of Gauss along each axis: exact here, for nothing is of more than the third degree along any. */
const GAUSS = 1 / Math.sqrt(3)

/**
 * Stiffness of an 8-node brick, N/mm, 24 × 24 row by row, degrees of freedom corner by corner: with the bending modes that its corners alone lack
 * (incompatible modes `1 − ξ²`; Wilson et al. 1973, Taylor, Beresford & Wilson 1976, from memory), which are condensed out.
 *
 * @param size along x, y and z, mm
 */
export function brickStiffness(size: readonly [number, number, number], elasticity: Elasticity): Float64Array {
  const { k, own, solved } = parts(size, elasticity)
  for (let i = 0; i < DOFS; i++)
    for (let j = 0; j < DOFS; j++) for (let m = 0; m < 9; m++) k[DOFS * i + j]! -= own[DOFS * m + i]! * solved[DOFS * m + j]!
  return k
}

/** Stiffness of the corners alone, what they do to the bending modes, and by how much each of these answers to each corner (with the other sign). */
function parts(size: readonly [number, number, number], elasticity: Elasticity) {
  const k = new Float64Array(DOFS * DOFS)
  const own = new Float64Array(9 * DOFS)
  const inner = new Float64Array(81)
  const volume = (size[0] * size[1] * size[2]) / 8
  for (let point = 0; point < 8; point++) {
    const at = [0, 1, 2].map((axis) => GAUSS * sign(point, axis))
    const b = cornerStrains(at, size)
    const bubble = bubbleStrains(at, size)
    add(k, b, b, elasticity, volume)
    add(own, bubble, b, elasticity, volume)
    add(inner, bubble, bubble, elasticity, volume)
  }
  return { k, own, solved: solveMany(inner, own, 9, DOFS) }
}

/** Strains by each corner's movements, 24 columns. */
const cornerStrains = (at: readonly number[], size: readonly number[]): number[][] =>
  Array.from({ length: CORNERS }, (_, corner) => strainsOf([0, 1, 2].map((axis) => slope(corner, axis, at, size)))).flat()

/** Strains by the bending modes, nine columns. */
const bubbleStrains = (at: readonly number[], size: readonly number[]): number[][] =>
  [0, 1, 2].flatMap((axis) => strainsOf([0, 1, 2].map((other) => (other === axis ? (-2 * at[axis]! * 2) / size[axis]! : 0))))

/**
 * What leads from movements of a brick's corners to stresses in it, MPa/mm: at the middles of its eight halves of halves, its bending modes with them,
 * six rows of 24 each.
 */
export function stressMatrix(size: readonly [number, number, number], elasticity: Elasticity): Float64Array {
  const { solved } = parts(size, elasticity)
  const out = new Float64Array(8 * 6 * DOFS)
  for (let point = 0; point < 8; point++) {
    const at = [0, 1, 2].map((axis) => 0.5 * sign(point, axis))
    const [b, bubble] = [cornerStrains(at, size), bubbleStrains(at, size)]
    for (let d = 0; d < DOFS; d++) {
      const strain = b[d]!.map((own, row) => bubble.reduce((sum, mode, m) => sum - mode[row]! * solved[DOFS * m + d]!, own))
      for (let row = 0; row < 6; row++)
        out[DOFS * (6 * point + row) + d] = strain.reduce((sum, one, k) => sum + elasticity[6 * row + k]! * one, 0)
    }
  }
  return out
}

/** Slope of a corner's shape function along an axis, 1/mm. */
function slope(corner: number, axis: number, at: readonly number[], size: readonly number[]): number {
  let value = (sign(corner, axis) / 8) * (2 / size[axis]!)
  for (let other = 0; other < 3; other++) if (other !== axis) value *= 1 + sign(corner, other) * at[other]!
  return value
}

/** Strains by a movement along each axis, from the slopes of its shape: three columns of six. */
const strainsOf = ([x = 0, y = 0, z = 0]: readonly number[]): number[][] => [
  [x, 0, 0, 0, z, y],
  [0, y, 0, z, 0, x],
  [0, 0, z, y, x, 0],
]

/** Adds `leftᵀ · C · right · weight`. */
function add(to: Float64Array, left: readonly number[][], right: readonly number[][], c: Elasticity, weight: number): void {
  for (let j = 0; j < right.length; j++) {
    const stress = [0, 1, 2, 3, 4, 5].map((row) => right[j]!.reduce((sum, strain, k) => sum + c[6 * row + k]! * strain, 0))
    for (let i = 0; i < left.length; i++)
      to[right.length * i + j]! += weight * left[i]!.reduce((sum, strain, k) => sum + strain * stress[k]!, 0)
  }
}

/** Solves A·X = B for a small symmetric positive A by elimination. */
function solveMany(a: Float64Array, b: Float64Array, n: number, columns: number): Float64Array {
  const [left, x] = [Float64Array.from(a), Float64Array.from(b)]
  for (let p = 0; p < n; p++)
    for (let row = 0; row < n; row++) {
      if (row === p) continue
      const factor = left[n * row + p]! / left[n * p + p]!
      if (factor === 0) continue
      for (let k = p; k < n; k++) left[n * row + k]! -= factor * left[n * p + k]!
      for (let k = 0; k < columns; k++) x[columns * row + k]! -= factor * x[columns * p + k]!
    }
  for (let p = 0; p < n; p++) for (let k = 0; k < columns; k++) x[columns * p + k]! /= left[n * p + p]!
  return x
}

/**
 * The same stiffness in the basis of even and odd movements of its corners, in which that of a brick whose material has the axes for directions
 * falls into eight blocks of 3 × 3: block k, row i is the movement along axis i whose signs are those of pattern `k ^ 1 << i`. With the eighth that
 * going there and back by sums and differences takes.
 *
 * @returns 72 numbers
 */
export function blocksOf(stiffness: Float64Array): Float64Array {
  const blocks = new Float64Array(72)
  for (let block = 0; block < 8; block++)
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++) {
        let sum = 0
        for (let n = 0; n < CORNERS; n++)
          for (let m = 0; m < CORNERS; m++)
            sum += signOf(block ^ (1 << i), n) * stiffness[DOFS * (3 * n + i) + 3 * m + j]! * signOf(block ^ (1 << j), m)
        blocks[9 * block + 3 * i + j] = sum / 64
      }
  return blocks
}

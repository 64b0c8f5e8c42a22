import { seeded } from '../units/seeded'
import { type Steps, within } from '../units/steps'
import type { Mesh } from './mesh'
import { CORNERS, signOf } from './patterns'
import type { Ready } from './ready'
import { solveWork } from './solve'

/** How a structure gives way sideways. */
export interface Buckling {
  /** The load times this; without end where nothing of it is pressed. */
  readonly factor: number
  /** Three numbers a node, its largest about 1. */
  readonly shape: Float64Array
}

/** So many shapes are followed at once: the ones sought may be near to each other, or answer to a load the other way round. */
const SHAPES = 3
const MOST_ROUNDS = 14
/** It is found where another round changes no more of it than this. */
const STEADY = 0.01
/** What rounds say falls towards the factor that is sought. Where it still is so many times beyond what matters after the first, or later, it is left. Assumed. */
const [FAR_AT_FIRST, FAR] = [50, 5]

/**
 * The smallest factor on a load under which a structure has another way to bear it than straight on (linear buckling): `K·x = λ·G·x`, G what its stresses
 * do to movements that turn it. By subspace iteration (Bathe, Finite Element Procedures, ch. 11; from memory) on the operators of the load itself.
 * Yields the share that is done.
 *
 * @param matters a factor that lies far beyond this is not sought to its end
 * @param stress σx, σy, σz, τyz, τxz, τxy of what each cell is filled with, its mean, MPa
 */
export function* bucklingWork(ready: Ready, stress: Float64Array, matters = Infinity): Steps<Buckling> {
  const { mesh } = ready
  const n = 3 * mesh.nodeCount
  const random = seeded(7)
  const isHeld = new Uint8Array(n)
  for (const place of ready.held) isHeld[3 * Math.floor(place / 4) + (place % 4)] = 1
  let shapes = Array.from({ length: SHAPES }, () => Float64Array.from({ length: n }, (_, d) => (isHeld[d] ? 0 : random() - 0.5)))
  const turns = turner(mesh, stress)
  let factor = Infinity
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const forces = shapes.map((shape) => turns(shape, isHeld))
    const moved: Float64Array[] = []
    for (const [i, force] of forces.entries()) {
      const at = (round + i / SHAPES) / MOST_ROUNDS
      const { moved: own } = yield* within(solveWork(ready, force), at, at + 1 / SHAPES / MOST_ROUNDS)
      moved.push(own)
    }
    const turned = moved.map((own) => turns(own, isHeld))
    const a = moved.map((own) => turned.map((other) => dot(own, other)))
    const b = moved.map((own) => forces.map((other) => dot(own, other)))
    const { values, vectors } = generalEigen(a, b)
    // Shapes by how soon they come, those under the load itself first.
    const order = values.map((_, i) => i).sort((p, q) => values[q]! - values[p]!)
    shapes = order.map((i) => {
      const sum = new Float64Array(n)
      for (const [j, own] of moved.entries()) for (let d = 0; d < n; d++) sum[d]! += vectors[j]![i]! * own[d]!
      let most = 0
      for (let d = 0; d < n; d++) most = Math.max(most, Math.abs(sum[d]!))
      return most > 0 ? sum.map((one) => one / most) : sum
    })
    const best = values[order[0]!]!
    const next = best > 0 ? 1 / best : Infinity
    const isFar = next > (round === 0 ? FAR_AT_FIRST : FAR) * matters
    if (isFar || next === factor || Math.abs(next / factor - 1) < STEADY) return { factor: next, shape: shapes[0]! }
    factor = next
  }
  return { factor, shape: shapes[0]! }
}

/** What stresses do to movements that turn cells, `−G·x`, none at held movements. */
function turner({ size, share, nodes, nodeCount }: Mesh, stress: Float64Array): (moved: Float64Array, isHeld: Uint8Array) => Float64Array {
  const products = slopeProducts(size)
  const g = new Float64Array(64)
  return (moved, isHeld) => {
    const out = new Float64Array(3 * nodeCount)
    for (let c = 0; c < share.length; c++) {
      g.fill(0)
      for (let k = 0; k < 6; k++) {
        const own = -share[c]! * stress[6 * c + k]!
        const product = products[k]!
        for (let i = 0; i < 64; i++) g[i]! += own * product[i]!
      }
      for (let a = 0; a < CORNERS; a++) {
        const to = 3 * nodes[8 * c + a]!
        let [x, y, z] = [0, 0, 0]
        for (let b = 0; b < CORNERS; b++) {
          const from = 3 * nodes[8 * c + b]!
          const own = g[8 * a + b]!
          x += own * moved[from]!
          y += own * moved[from + 1]!
          z += own * moved[from + 2]!
        }
        out[to]! += x
        out[to + 1]! += y
        out[to + 2]! += z
      }
    }
    for (let d = 0; d < out.length; d++) if (isHeld[d] === 1) out[d] = 0
    return out
  }
}

/** ∫ of products of the slopes of two corners' shape functions along two axes, mm: xx, yy, zz, and both orders of yz, xz, xy together; 8 × 8 each. */
function slopeProducts(size: readonly [number, number, number]): Float64Array[] {
  const gauss = 1 / Math.sqrt(3)
  const volume = (size[0] * size[1] * size[2]) / 8
  const pairs = [
    [0, 0],
    [1, 1],
    [2, 2],
    [1, 2],
    [0, 2],
    [0, 1],
  ] as const
  const all = pairs.map(() => new Float64Array(64))
  for (let point = 0; point < 8; point++) {
    const at = [1, 2, 4].map((axis) => gauss * signOf(axis, point))
    const slope = (corner: number, axis: number): number => {
      let value = signOf(1 << axis, corner) / (4 * size[axis]!)
      for (let other = 0; other < 3; other++) if (other !== axis) value *= 1 + signOf(1 << other, corner) * at[other]!
      return value
    }
    for (const [k, [i, j]] of pairs.entries())
      for (let a = 0; a < CORNERS; a++)
        for (let b = 0; b < CORNERS; b++)
          all[k]![8 * a + b]! += volume * (i === j ? slope(a, i) * slope(b, i) : slope(a, i) * slope(b, j) + slope(a, j) * slope(b, i))
  }
  return all
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}

/** Values and vectors (columns) of `A·v = μ·B·v`, small, A symmetric and B positive: by B's triangle and Jacobi's turns. */
function generalEigen(a: readonly number[][], b: readonly number[][]): { readonly values: number[]; readonly vectors: number[][] } {
  const n = a.length
  const l = a.map(() => new Array<number>(n).fill(0))
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = (b[i]![j]! + b[j]![i]!) / 2
      for (let k = 0; k < j; k++) sum -= l[i]![k]! * l[j]![k]!
      l[i]![j] = i === j ? Math.sqrt(Math.max(sum, 1e-300)) : sum / l[j]![j]!
    }
  // Columns of L⁻¹·A·L⁻ᵀ.
  const forward = (v: readonly number[]): number[] => {
    const x = [...v]
    for (let i = 0; i < n; i++) {
      for (let k = 0; k < i; k++) x[i]! -= l[i]![k]! * x[k]!
      x[i]! /= l[i]![i]!
    }
    return x
  }
  const half = a.map((row) => forward(row))
  const m = half.map((_, j) => forward(half.map((row) => row[j]!)))
  const v = m.map((_, i) => m.map((__, j): number => (i === j ? 1 : 0)))
  for (let sweep = 0; sweep < 30; sweep++)
    for (let p = 0; p < n; p++)
      for (let q = p + 1; q < n; q++) {
        if (Math.abs(m[p]![q]!) < 1e-300) continue
        const t = (m[q]![q]! - m[p]![p]!) / (2 * m[p]![q]!)
        const s = (t >= 0 ? 1 : -1) / (Math.abs(t) + Math.sqrt(t * t + 1))
        const c = 1 / Math.sqrt(s * s + 1)
        const d = s * c
        for (const row of m) [row[p], row[q]] = [c * row[p]! - d * row[q]!, d * row[p]! + c * row[q]!]
        for (let k = 0; k < n; k++) {
          const [x, y] = [m[p]![k]!, m[q]![k]!]
          m[p]![k] = c * x - d * y
          m[q]![k] = d * x + c * y
        }
        for (const row of v) [row[p], row[q]] = [c * row[p]! - d * row[q]!, d * row[p]! + c * row[q]!]
      }
  // Back from the triangle: Lᵀ·v = y.
  const vectors = v.map((row) => [...row])
  for (let j = 0; j < n; j++)
    for (let i = n - 1; i >= 0; i--) {
      for (let k = i + 1; k < n; k++) vectors[i]![j]! -= l[k]![i]! * vectors[k]![j]!
      vectors[i]![j]! /= l[i]![i]!
    }
  return { values: m.map((row, i) => row[i]!), vectors }
}

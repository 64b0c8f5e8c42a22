import { brickStiffness, CORNERS } from './brick'
import { type Level, levelsAbove, symmetricInverse } from './coarse'
import type { Elasticity } from './elasticity'
import type { Mesh } from './mesh'
import { forcesOf, type Springs, springsOf } from './operator'

/** The last level is solved at once, with so many nodes at most. */
const FEW_NODES = 120
/** Steps in which the largest eigenvalue of one cell is looked for. */
const POWER_STEPS = 200
/** Smoothing reaches from the largest eigenvalue down to this share of it. Assumed. */
const DOWN_TO = 1 / 6

/** Everything that does not depend on the load. */
export interface Ready {
  readonly springs: Springs
  /** Inverse of each node's own stiffness, 3 × 3. */
  readonly own: Float64Array
  readonly largest: number
  readonly levels: readonly Level[]
  readonly bottom: Cholesky
  readonly rooms: readonly Room[]
}

/** Where a level works. */
interface Room {
  readonly x: Float64Array
  readonly b: Float64Array
  readonly r: Float64Array
}

/**
 * @param materials by the kinds of the mesh's cells
 * @param held 1 for each movement (three a node) that is none
 */
export function makeReady(mesh: Mesh, materials: readonly Elasticity[], held: Uint8Array): Ready {
  const stiffness = materials.map((one) => brickStiffness(mesh.size, one))
  const springs = springsOf(mesh, stiffness, held)
  const levels = levelsAbove(mesh, stiffness, held, FEW_NODES)
  const own = ownStiffness(mesh, stiffness, held)
  const room = (nodes: number): Room => ({ x: new Float64Array(3 * nodes), b: new Float64Array(3 * nodes), r: new Float64Array(3 * nodes) })
  const rooms = [room(mesh.nodeCount), ...levels.map(({ nodeCount }) => room(nodeCount))]
  return { springs, own, largest: largestOf(stiffness), levels, bottom: factor(levels.at(-1)!), rooms }
}

function ownStiffness({ nodeCount, nodes, share, kind }: Mesh, stiffness: readonly Float64Array[], held: Uint8Array): Float64Array {
  const own = new Float64Array(9 * nodeCount)
  for (let c = 0; c < share.length; c++) {
    const k = stiffness[kind[c]!]!
    for (let n = 0; n < CORNERS; n++)
      for (let i = 0; i < 3; i++)
        for (let j = 0; j < 3; j++) own[9 * nodes[8 * c + n]! + 3 * i + j]! += share[c]! * k[24 * (3 * n + i) + 3 * n + j]!
  }
  for (let n = 0; n < nodeCount; n++) {
    for (let i = 0; i < 3; i++) {
      if (held[3 * n + i] === 0) continue
      for (let j = 0; j < 3; j++) {
        own[9 * n + 3 * i + j] = 0
        own[9 * n + 3 * j + i] = 0
      }
      own[9 * n + 4 * i] = 1
    }
    own.set(symmetricInverse(own, 9 * n), 9 * n)
  }
  return own
}

/** `out = own · r`, node by node. */
function byOwn(own: Float64Array, r: Float64Array, out: Float64Array): void {
  for (let d = 0, k = 0; d < r.length; d += 3, k += 9) {
    const [x, y, z] = [r[d]!, r[d + 1]!, r[d + 2]!]
    out[d] = own[k]! * x + own[k + 1]! * y + own[k + 2]! * z
    out[d + 1] = own[k + 3]! * x + own[k + 4]! * y + own[k + 5]! * z
    out[d + 2] = own[k + 6]! * x + own[k + 7]! * y + own[k + 8]! * z
  }
}

/**
 * No eigenvalue of the nodes' own inverses times the whole is above the largest of any cell's own (Rayleigh quotients of sums lie between those of what
 * is summed), however full cells are and whatever of them is held.
 */
function largestOf(stiffness: readonly Float64Array[]): number {
  return Math.max(
    ...stiffness.map((k) => {
      const own = new Float64Array(9 * CORNERS)
      for (let n = 0; n < CORNERS; n++) {
        for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) own[9 * n + 3 * i + j] = k[24 * (3 * n + i) + 3 * n + j]!
        own.set(symmetricInverse(own, 9 * n), 9 * n)
      }
      // A start that no symmetry of the cell keeps from the largest.
      let x = new Float64Array(24).map((_, i) => Math.sin(1 + i * i))
      const [y, z] = [new Float64Array(24), new Float64Array(24)]
      let found = 0
      for (let step = 0; step < POWER_STEPS; step++) {
        for (let i = 0; i < 24; i++) {
          let sum = 0
          for (let j = 0; j < 24; j++) sum += k[24 * i + j]! * x[j]!
          y[i] = sum
        }
        byOwn(own, y, z)
        found = Math.sqrt(dot(z, z) / dot(x, x))
        x = z.map((one) => one / found)
      }
      return found
    }),
  )
}

export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}

/** Movements under forces, about: one V-cycle, the same to and fro, so that it can guide conjugate gradients. */
export function cycle(ready: Ready, forces: Float64Array, out: Float64Array): void {
  const { springs, own, largest, levels, rooms } = ready
  const { b: step, r } = rooms[0]!
  const [low, high] = [DOWN_TO * largest, largest]
  const [middle, reach] = [(high + low) / 2, (high - low) / 2]
  const second = 1 / ((2 * middle) / reach - reach / middle)
  // Before: two steps of Chebyshev's from nothing, so that the first costs no product.
  byOwn(own, forces, step)
  for (let i = 0; i < out.length; i++) {
    step[i]! /= middle
    out[i] = step[i]!
  }
  forcesOf(springs, step, r)
  for (let i = 0; i < r.length; i++) r[i] = forces[i]! - r[i]!
  more(own, r, step, second * (reach / middle), (2 * second) / reach, out)

  forcesOf(springs, out, r)
  for (let i = 0; i < r.length; i++) r[i] = forces[i]! - r[i]!
  restrict(levels[0]!, r, rooms[1]!.b)
  coarseCycle(ready, 0)
  prolong(levels[0]!, rooms[1]!.x, out)
  for (let i = 0; i < out.length; i++) if (springs.held[i] === 1) out[i] = 0

  // After: the same two steps.
  forcesOf(springs, out, r)
  for (let i = 0; i < r.length; i++) r[i] = forces[i]! - r[i]!
  byOwn(own, r, step)
  for (let i = 0; i < out.length; i++) {
    step[i]! /= middle
    out[i]! += step[i]!
  }
  const { x: moved } = rooms[0]!
  forcesOf(springs, step, moved)
  for (let i = 0; i < r.length; i++) r[i]! -= moved[i]!
  more(own, r, step, second * (reach / middle), (2 * second) / reach, out)
}

/** The next of Chebyshev's steps: a share of the last one, and one along what is left. */
function more(own: Float64Array, r: Float64Array, step: Float64Array, keeps: number, takes: number, out: Float64Array): void {
  for (let d = 0, k = 0; d < r.length; d += 3, k += 9) {
    const [x, y, z] = [r[d]!, r[d + 1]!, r[d + 2]!]
    step[d] = keeps * step[d]! + takes * (own[k]! * x + own[k + 1]! * y + own[k + 2]! * z)
    step[d + 1] = keeps * step[d + 1]! + takes * (own[k + 3]! * x + own[k + 4]! * y + own[k + 5]! * z)
    step[d + 2] = keeps * step[d + 2]! + takes * (own[k + 6]! * x + own[k + 7]! * y + own[k + 8]! * z)
    out[d]! += step[d]!
    out[d + 1]! += step[d + 1]!
    out[d + 2]! += step[d + 2]!
  }
}

function coarseCycle(ready: Ready, at: number): void {
  const { levels, rooms, bottom } = ready
  const level = levels[at]!
  const room = rooms[at + 1]!
  const { x, b, r } = room
  if (at === levels.length - 1) {
    solveBottom(bottom, b, x)
    return
  }
  x.fill(0)
  for (let n = 0; n < level.nodeCount; n++) relax(level, n, room)
  for (let n = 0; n < level.nodeCount; n++) residual(level, n, x, b, r)
  restrict(levels[at + 1]!, r, rooms[at + 2]!.b)
  coarseCycle(ready, at + 1)
  prolong(levels[at + 1]!, rooms[at + 2]!.x, x)
  for (let n = level.nodeCount - 1; n >= 0; n--) relax(level, n, room)
}

/** What is left at a node. */
function residual({ near, stencil }: Level, n: number, x: Float64Array, b: Float64Array, out: Float64Array): void {
  let [rx, ry, rz] = [b[3 * n]!, b[3 * n + 1]!, b[3 * n + 2]!]
  for (let k = 27 * n; k < 27 * n + 27; k++) {
    const other = near[k]!
    if (other < 0) continue
    const [s, ux, uy, uz] = [9 * k, x[3 * other]!, x[3 * other + 1]!, x[3 * other + 2]!]
    rx -= stencil[s]! * ux + stencil[s + 1]! * uy + stencil[s + 2]! * uz
    ry -= stencil[s + 3]! * ux + stencil[s + 4]! * uy + stencil[s + 5]! * uz
    rz -= stencil[s + 6]! * ux + stencil[s + 7]! * uy + stencil[s + 8]! * uz
  }
  out[3 * n] = rx
  out[3 * n + 1] = ry
  out[3 * n + 2] = rz
}

/** A node goes to where its neighbours leave nothing of its forces (Gauss–Seidel by nodes). */
function relax(level: Level, n: number, { x, b, r }: Room): void {
  residual(level, n, x, b, r)
  const { inverse } = level
  const d = 3 * n
  const i = 9 * n
  const rx = r[d]!
  const ry = r[d + 1]!
  const rz = r[d + 2]!
  x[d]! += inverse[i]! * rx + inverse[i + 1]! * ry + inverse[i + 2]! * rz
  x[d + 1]! += inverse[i + 3]! * rx + inverse[i + 4]! * ry + inverse[i + 5]! * rz
  x[d + 2]! += inverse[i + 6]! * rx + inverse[i + 7]! * ry + inverse[i + 8]! * rz
}

function restrict({ parents }: Level, fine: Float64Array, coarse: Float64Array): void {
  coarse.fill(0)
  for (let n = 0; 3 * n < fine.length; n++) {
    const [x, y, z] = [fine[3 * n]! / 8, fine[3 * n + 1]! / 8, fine[3 * n + 2]! / 8]
    for (let k = 8 * n; k < 8 * n + 8; k++) {
      const p = 3 * parents[k]!
      coarse[p]! += x
      coarse[p + 1]! += y
      coarse[p + 2]! += z
    }
  }
}

function prolong({ parents }: Level, coarse: Float64Array, fine: Float64Array): void {
  for (let n = 0; 3 * n < fine.length; n++) {
    let [x, y, z] = [0, 0, 0]
    for (let k = 8 * n; k < 8 * n + 8; k++) {
      const p = 3 * parents[k]!
      x += coarse[p]!
      y += coarse[p + 1]!
      z += coarse[p + 2]!
    }
    fine[3 * n]! += x / 8
    fine[3 * n + 1]! += y / 8
    fine[3 * n + 2]! += z / 8
  }
}

/** A lower triangle, row by row in a square. */
interface Cholesky {
  readonly n: number
  readonly l: Float64Array
}

/** Of a positive matrix; where it is hardly so, a movement that nothing resists, it is held. */
function factor({ nodeCount, near, stencil }: Level): Cholesky {
  const n = 3 * nodeCount
  const l = new Float64Array(n * n)
  for (let node = 0; node < nodeCount; node++)
    for (let k = 0; k < 27; k++) {
      const other = near[27 * node + k]!
      if (other < 0) continue
      for (let i = 0; i < 3; i++)
        for (let j = 0; j < 3; j++) l[n * (3 * node + i) + 3 * other + j] = stencil[9 * (27 * node + k) + 3 * i + j]!
    }
  for (let j = 0; j < n; j++) {
    const whole = l[n * j + j]!
    let pivot = whole
    for (let k = 0; k < j; k++) pivot -= l[n * j + k]! ** 2
    const root = Math.sqrt(pivot > 1e-6 * whole ? pivot : whole)
    l[n * j + j] = root
    for (let i = j + 1; i < n; i++) {
      let sum = l[n * i + j]!
      for (let k = 0; k < j; k++) sum -= l[n * i + k]! * l[n * j + k]!
      l[n * i + j] = sum / root
    }
  }
  return { n, l }
}

function solveBottom({ n, l }: Cholesky, b: Float64Array, x: Float64Array): void {
  for (let i = 0; i < n; i++) {
    let sum = b[i]!
    for (let k = 0; k < i; k++) sum -= l[n * i + k]! * x[k]!
    x[i] = sum / l[n * i + i]!
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = x[i]!
    for (let k = i + 1; k < n; k++) sum -= l[n * k + i]! * x[k]!
    x[i] = sum / l[n * i + i]!
  }
}

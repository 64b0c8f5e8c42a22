import type { Steps } from '../units/steps'
import { blocksOf, brickStiffness } from './brick'
import { type Cholesky, factor } from './cholesky'
import type { Elasticity } from './elasticity'
import { fromCells, fromGrid, inversesOf, putColumns, scratchOf } from './galerkin'
import { type Grid, gridsAbove } from './grids'
import { type CellPlaces, FIRST_PLACE, type Kernel, openKernel, type Place, type RowPlaces } from './kernel/kernel'
import { symmetricInverse } from './matrix3'
import type { Mesh } from './mesh'
import { CORNERS } from './patterns'

/** The last grid is solved at once, with so many nodes at most. */
const FEW_NODES = 120
/** Steps in which the largest eigenvalue of one cell is looked for. */
const POWER_STEPS = 200
/** It is found where another step changes no more of it than this; what may still be missing is a hundred times as much. */
const STEADY = 1e-5
/** Bytes of a node's movements in single precision, of what leads from its forces to its own movements, and of a number of single precision. */
const [NODE, COLUMNS, NUMBER] = [16, 48, 4]
/** Numbers of one kind's coefficients. */
const COEFFICIENTS = 128

/** A coarse grid in the kernel's memory, and the parents that the nodes of the level below have in it. */
export interface Level extends RowPlaces {
  readonly parents: Place
}

/** Everything that does not depend on the load. */
export interface Ready {
  readonly mesh: Mesh
  readonly kernel: Kernel
  readonly cells: CellPlaces
  readonly nodes: number
  /** Where in a vector those movements are that are none. */
  readonly held: Int32Array
  /** Inverse of each node's own stiffness. */
  readonly own: Place
  /** No eigenvalue of those inverses times the whole is above it. */
  readonly largest: number
  readonly levels: readonly Level[]
  readonly bottom: Cholesky
  /** Vectors of single precision: forces, what is left of them, a step, movements. */
  readonly single: { readonly b: Place; readonly r: Place; readonly step: Place; readonly x: Place }
  /** And of double precision: what is left, movements, the direction and its forces. */
  readonly double: { readonly r: Place; readonly x: Place; readonly p: Place; readonly q: Place }
}

/** Hands out places, each for vectors of four. */
class Room {
  used = FIRST_PLACE

  take(bytes: number): Place {
    const at = this.used
    this.used += Math.ceil(bytes / 16) * 16
    return at
  }
}

/**
 * Yields the share that is done.
 *
 * @param materials by the kinds of the mesh's cells
 * @param held 1 for each movement (three a node) that is none
 * @param isPlain without WebAssembly
 * @throws RangeError where there is not enough memory
 */
export function* readyWork(mesh: Mesh, materials: readonly Elasticity[], held: Uint8Array, isPlain = false): Steps<Ready> {
  const grids = gridsAbove(mesh, FEW_NODES)
  yield 0.3
  const stiffness = materials.map((one) => brickStiffness(mesh.size, one))
  const room = new Room()
  const { nodeCount: nodes } = mesh
  const count = mesh.share.length
  const cells: CellPlaces = {
    count,
    nodes: room.take(8 * NUMBER * count),
    share: room.take(NUMBER * count),
    kind: room.take(count),
    coefficients: room.take(NUMBER * COEFFICIENTS * materials.length),
    coefficientsDouble: room.take(2 * NUMBER * COEFFICIENTS * materials.length),
  }
  const own = room.take(COLUMNS * nodes)
  const vector = (): Place => room.take(NODE * nodes)
  const doubles = (): Place => room.take(2 * NODE * nodes)
  const single = { b: vector(), r: vector(), step: vector(), x: vector() }
  const levels = grids.map((grid): Level => levelIn(room, grid))
  // Grids are made where the solver works afterwards.
  const scratch = room.used
  const double = { r: doubles(), x: doubles(), p: doubles(), q: doubles() }
  const kernel = openKernel(Math.max(room.used, scratch + scratchOf(grids, materials.length)), isPlain)
  const put = new Uint32Array(kernel.buffer)
  const numbers = new Float32Array(kernel.buffer)
  for (let i = 0; i < mesh.nodes.length; i++) put[cells.nodes / NUMBER + i] = NODE * mesh.nodes[i]!
  numbers.set(mesh.share, cells.share / NUMBER)
  new Uint8Array(kernel.buffer).set(mesh.kind, cells.kind)
  for (const [kind, one] of stiffness.entries()) {
    const coefficients = coefficientsOf(blocksOf(one))
    numbers.set(coefficients, cells.coefficients / NUMBER + COEFFICIENTS * kind)
    new Float64Array(kernel.buffer).set(coefficients, cells.coefficientsDouble / (2 * NUMBER) + COEFFICIENTS * kind)
  }
  putOwn(mesh, stiffness, held, numbers.subarray(own / NUMBER))
  yield 0.5
  for (const [i, grid] of grids.entries()) {
    const level = levels[i]!
    for (const [places, at] of [
      [grid.near, level.near],
      [grid.parents, level.parents],
    ] as const)
      for (let k = 0; k < places.length; k++) put[at / NUMBER + k] = NODE * places[k]!
    put.set(grid.rows, level.rows / NUMBER)
    if (i === 0) fromCells({ mesh, stiffness, held }, grid, kernel, level.stencil, scratch)
    else fromGrid(grids[i - 1]!, levels[i - 1]!, grid, level, kernel, scratch)
    inversesOf(grid, numbers.subarray(level.stencil / NUMBER), numbers.subarray(level.inverse / NUMBER))
    yield 0.5 + (0.5 * (i + 1)) / grids.length
  }
  const last = levels.at(-1)!
  return {
    mesh,
    kernel,
    cells,
    nodes,
    held: placesOf(held),
    own,
    largest: largestOf(stiffness),
    levels,
    bottom: factor(grids.at(-1)!, numbers.subarray(last.stencil / NUMBER)),
    single,
    double,
  }
}

function levelIn(room: Room, { nodeCount, near, parents }: Grid): Level {
  return {
    nodes: nodeCount,
    rows: room.take(NUMBER * (nodeCount + 1)),
    near: room.take(NUMBER * near.length),
    // The last 3 × 3 is read by vectors of four as well.
    stencil: room.take(9 * NUMBER * near.length + NODE),
    inverse: room.take(COLUMNS * nodeCount),
    x: room.take(NODE * nodeCount),
    b: room.take(NODE * nodeCount),
    r: room.take(NODE * nodeCount),
    parents: room.take(NUMBER * parents.length),
  }
}

/** Where, four numbers a node, an array of three a node is not 0. */
function placesOf(held: Uint8Array): Int32Array {
  const places: number[] = []
  for (let d = 0; d < held.length; d++) if (held[d] === 1) places.push(4 * Math.floor(d / 3) + (d % 3))
  return Int32Array.from(places)
}

/**
 * A brick's blocks by patterns, four vectors each: what of a pattern's forces along x, y and z comes of its own movements, and of those of the patterns
 * that differ from it by x and y, by x and z, by y and z.
 */
function coefficientsOf(blocks: Float64Array): Float64Array {
  const all = new Float64Array(COEFFICIENTS)
  for (let p = 0; p < 8; p++)
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++) {
        // 0 for itself, 1 for x with y, 2 for x with z, 3 for y with z.
        const which = i === j ? 0 : i + j
        all[16 * p + 4 * which + i] = blocks[9 * (p ^ (1 << i)) + 3 * i + j]!
      }
  return all
}

function putOwn({ nodeCount, nodes, share, kind }: Mesh, stiffness: readonly Float64Array[], held: Uint8Array, out: Float32Array): void {
  const own = new Float64Array(9 * nodeCount)
  for (let c = 0; c < share.length; c++) {
    const k = stiffness[kind[c]!]!
    const full = share[c]!
    for (let n = 0; n < CORNERS; n++) {
      const to = 9 * nodes[8 * c + n]!
      const from = 24 * 3 * n + 3 * n
      for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) own[to + 3 * i + j]! += full * k[from + 24 * i + j]!
    }
  }
  for (let n = 0; n < nodeCount; n++) {
    const isHeld = (i: number): boolean => held[3 * n + i] === 1
    for (let i = 0; i < 3; i++) {
      if (!isHeld(i)) continue
      for (let j = 0; j < 3; j++) own[9 * n + 3 * i + j] = own[9 * n + 3 * j + i] = i === j ? 1 : 0
    }
    const inverse = symmetricInverse(own, 9 * n)
    for (let i = 0; i < 3; i++) if (isHeld(i)) inverse[4 * i] = 0
    putColumns(inverse, out, 12 * n)
  }
}

/**
 * No eigenvalue of the nodes' own inverses times the whole is above the largest of any cell's own (Rayleigh quotients of sums lie between those of what
 * is summed), however full cells are and whatever of them is held.
 */
function largestOf(stiffness: readonly Float64Array[]): number {
  return Math.max(
    ...stiffness.map((k) => {
      const own = Array.from({ length: CORNERS }, (_, n) => {
        const from = 24 * 3 * n + 3 * n
        return symmetricInverse([0, 1, 2].flatMap((i) => [0, 1, 2].map((j) => k[from + 24 * i + j]!)))
      })
      // A start that no symmetry of the cell keeps from the largest.
      const x = Float64Array.from({ length: 24 }, (_, i) => Math.sin(1 + i * i))
      const [y, z] = [new Float64Array(24), new Float64Array(24)]
      let found = 0
      for (let step = 0; step < POWER_STEPS; step++) {
        for (let i = 0; i < 24; i++) {
          let sum = 0
          for (let j = 0; j < 24; j++) sum += k[24 * i + j]! * x[j]!
          y[i] = sum
        }
        let [before, after] = [0, 0]
        for (let d = 0; d < 24; d++) {
          const [n, i] = [Math.floor(d / 3), d % 3]
          const m = own[n]!
          z[d] = m[3 * i]! * y[3 * n]! + m[3 * i + 1]! * y[3 * n + 1]! + m[3 * i + 2]! * y[3 * n + 2]!
          before += x[d]! ** 2
          after += z[d]! ** 2
        }
        const grown = Math.sqrt(after / before)
        const isSteady = Math.abs(grown / found - 1) < STEADY
        found = grown
        if (isSteady) break
        for (let d = 0; d < 24; d++) x[d] = z[d]! / found
      }
      return found * (1 + 100 * STEADY)
    }),
  )
}

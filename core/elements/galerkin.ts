import { type Grid, gridCorners, ITSELF, NEAR } from './grids'
import type { Kernel, Place, RowPlaces } from './kernel/kernel'
import { symmetricInverse } from './matrix3'
import type { Mesh } from './mesh'
import { CORNERS } from './patterns'

/** 24 × 24 numbers of a cell. */
const CELL = 576
/** Less than this share of the stiffest is none. */
const HARDLY = 1e-7

/** Corners of a cell from those of the wider one, by which of its eight children it is: coarse corners and weights, `[child][corner]`. */
const weights = Array.from({ length: 8 }, (_, child) =>
  Array.from({ length: CORNERS }, (_, corner) =>
    Array.from({ length: CORNERS }, (_, coarse) => {
      let weight = 1
      for (let axis = 0; axis < 3; axis++) {
        const far = (((child >> axis) & 1) + ((corner >> axis) & 1)) / 2
        weight *= (coarse >> axis) & 1 ? far : 1 - far
      }
      return { coarse, weight }
    }).filter(({ weight }) => weight > 0),
  ),
)

const half = new Float64Array(CELL)

/** Adds a cell's stiffness as the corners of the wider cell see it: `Wᵀ·K·W`. */
function seen(stiffness: Float64Array, child: number, to: Float64Array): void {
  half.fill(0)
  const corners = weights[child]!
  for (let n = 0; n < CORNERS; n++)
    for (const { coarse, weight } of corners[n]!)
      for (let i = 0; i < 3; i++) {
        const source = 24 * (3 * n + i)
        const target = 24 * (3 * coarse + i)
        for (let j = 0; j < 24; j++) half[target + j]! += weight * stiffness[source + j]!
      }
  for (let m = 0; m < CORNERS; m++)
    for (const { coarse, weight } of corners[m]!)
      for (let row = 0; row < 24; row++) for (let j = 0; j < 3; j++) to[24 * row + 3 * coarse + j]! += weight * half[24 * row + 3 * m + j]!
}

/** 64 blocks of 3 × 3, each column by column, of 24 × 24. */
function blocksOf(of: Float64Array, out: Float32Array): void {
  for (let n = 0; n < CORNERS; n++)
    for (let m = 0; m < CORNERS; m++)
      for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) out[9 * (8 * n + m) + 3 * j + i] = of[24 * (3 * n + i) + 3 * m + j]!
}

/** Bytes of a cell's numbers. */
const CELL_BYTES = 4 * CELL

/** Bytes that are worked in while grids are made. */
export function scratchOf(grids: readonly Grid[], materials: number): number {
  const of = (i: number): number => (grids[i] ? 4 * (grids[i].slots.length + grids[i].nodeCount) + grids[i].ways.length + 64 : 0)
  return CELL_BYTES * (8 * materials + 2) + Math.max(...grids.map((_, i) => of(i) + of(i - 1)))
}

/**
 * Stiffness of the grid above a mesh: what its cells are to movements that are even over wide cells (Galerkin). Held movements have no part in it.
 *
 * @param stiffness 24 × 24 of a full cell, by material
 * @param held 1 for each movement (three a node) that is none
 * @param out 3 × 3 for each of the grid's neighbours, column by column; empty
 * @param scratch as many bytes as `scratchOf` says
 */
export function fromCells(
  { mesh, stiffness, held }: { readonly mesh: Mesh; readonly stiffness: readonly Float64Array[]; readonly held: Uint8Array },
  grid: Grid,
  kernel: Kernel,
  out: Place,
  scratch: Place,
): void {
  const { share, kind, nodes } = mesh
  const single = new Float32Array(kernel.buffer)
  const ready = (which: number, child: number): Place => scratch + CELL_BYTES * (8 * which + child)
  const sum = ready(stiffness.length, 0)
  const corners = sum + CELL_BYTES
  const slots = corners + 4 * CORNERS
  new Int32Array(kernel.buffer).set(grid.slots, slots / 4)
  const numbers = new Int32Array(kernel.buffer, corners, CORNERS)
  const [full, masked] = [new Float64Array(CELL), new Float64Array(CELL)]
  for (const [which, own] of stiffness.entries())
    for (let child = 0; child < 8; child++) {
      full.fill(0)
      seen(own, child, full)
      blocksOf(full, single.subarray(ready(which, child) / 4))
    }
  const masks = new Map<number, Float32Array>()
  /** What of a full cell is not held, as its wide cell sees it: of few kinds. */
  const unheld = (which: number, child: number, mask: number): Float32Array => {
    const key = mask + 2 ** 24 * (8 * which + child)
    const known = masks.get(key)
    if (known) return known
    maskCell(stiffness[which]!, mask, masked)
    full.fill(0)
    seen(masked, child, full)
    const made = new Float32Array(CELL)
    blocksOf(full, made)
    masks.set(key, made)
    return made
  }
  for (let wide = 0; wide < grid.cells.length; wide++) {
    single.fill(0, sum / 4, sum / 4 + CELL)
    for (let child = 0; child < 8; child++) {
      const c = grid.children[8 * wide + child]!
      if (c < 0) continue
      const mask = heldOf(nodes, held, c)
      if (mask === 0) kernel.blend(CELL / 4, share[c]!, ready(kind[c]!, child), sum)
      else if (mask !== ALL_HELD) {
        const own = unheld(kind[c]!, child, mask)
        for (let i = 0; i < CELL; i++) single[sum / 4 + i]! += share[c]! * own[i]!
      }
    }
    gridCorners(grid.counts, grid.cells[wide]!, numbers)
    for (let n = 0; n < CORNERS; n++) numbers[n] = grid.number[numbers[n]!]!
    kernel.spread(sum, corners, slots, out)
  }
}

const ALL_HELD = 2 ** 24 - 1

/** A bit for each of a cell's movements that is held. */
function heldOf(nodes: Int32Array, held: Uint8Array, c: number): number {
  let mask = 0
  for (let n = 0; n < CORNERS; n++) {
    const d = 3 * nodes[8 * c + n]!
    mask |= (held[d]! | (held[d + 1]! << 1) | (held[d + 2]! << 2)) << (3 * n)
  }
  return mask
}

/** A cell's stiffness without rows and columns of what is held. */
function maskCell(own: Float64Array, mask: number, out: Float64Array): void {
  for (let i = 0; i < 24; i++) for (let j = 0; j < 24; j++) out[24 * i + j] = ((mask >> i) | (mask >> j)) & 1 ? 0 : own[24 * i + j]!
}

/**
 * Stiffness of a grid above another.
 *
 * @param level of the grid below; its parents are in the one above
 */
export function fromGrid(
  below: Grid,
  { rows, stencil }: Pick<RowPlaces, 'rows' | 'stencil'>,
  grid: Grid,
  { parents, stencil: out }: { readonly parents: Place; readonly stencil: Place },
  kernel: Kernel,
  scratch: Place,
): void {
  const whole = new Int32Array(kernel.buffer)
  const at = scratch
  const slots = at + 4 * below.nodeCount
  const ways = slots + 4 * grid.slots.length
  whole.set(below.nodeAt, at / 4)
  whole.set(grid.slots, slots / 4)
  new Uint8Array(kernel.buffer).set(below.ways, ways)
  const along = [below.counts[0] + 1, below.counts[1] + 1] as const
  kernel.coarser({ nodes: below.nodeCount, at, along, rows, ways, stencil, parents }, slots, out)
}

/** Inverse of each node's own stiffness, three columns of four. A movement that nothing resists has none of its own. */
export function inversesOf({ nodeCount, slots }: Grid, stencil: Float32Array, out: Float32Array): void {
  const own = new Float64Array(9)
  for (let n = 0; n < nodeCount; n++) {
    const s = 9 * slots[NEAR * n + ITSELF]!
    for (let i = 0; i < 9; i++) own[i] = stencil[s + i]!
    const largest = Math.max(own[0]!, own[4]!, own[8]!)
    for (let i = 0; i < 3; i++) if (!(own[4 * i]! > HARDLY * largest)) own[4 * i] = largest > 0 ? largest : 1
    putColumns(symmetricInverse(own), out, 12 * n)
  }
}

/** A symmetric 3 × 3 as three columns of four. */
export function putColumns(matrix: readonly number[], out: Float32Array, at: number): void {
  for (let j = 0; j < 3; j++) for (let i = 0; i < 3; i++) out[at + 4 * j + i] = matrix[3 * j + i]!
}

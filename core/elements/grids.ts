import type { Mesh } from './mesh'
import { CORNERS } from './patterns'

type Counts = Mesh['counts']

/** Neighbours of a node at most, itself among them. */
export const NEAR = 27
/** The node itself among them. */
export const ITSELF = 13

/** A grid of cells twice as wide along each axis as the one below it: which nodes it has, and which of them see each other. */
export interface Grid {
  readonly counts: Counts
  readonly nodeCount: number
  /** Place of each node in the grid, ascending. */
  readonly nodeAt: Int32Array
  /** The other way round; −1 where there is none. */
  readonly number: Int32Array
  /** Wide cells, ascending, and which cells of the level below are their eight children; −1 where there is none. */
  readonly cells: Int32Array
  readonly children: Int32Array
  /** Where each node's neighbours begin, and the last end. */
  readonly rows: Int32Array
  readonly near: Int32Array
  /** Which way each neighbour lies: 13 is the node itself, +1 along x, +3 along y, +9 along z. */
  readonly ways: Uint8Array
  /** Place of a neighbour among `near`, by `27·node + way`; −1 where there is none. */
  readonly slots: Int32Array
  /** The eight nodes of this grid of which each node of the level below is the mean; some of them the same. */
  readonly parents: Int32Array
}

/** Grids above a mesh, the finest first, until the last has few nodes. */
export function gridsAbove(mesh: Pick<Mesh, 'counts' | 'at' | 'nodeAt'>, fewNodes: number): Grid[] {
  const grids = [gridAbove(mesh.counts, mesh.at, mesh.nodeAt)]
  for (;;) {
    const { counts, cells, nodeAt, nodeCount } = grids.at(-1)!
    if (nodeCount <= fewNodes || Math.max(...counts) <= 1) return grids
    grids.push(gridAbove(counts, cells, nodeAt))
  }
}

function gridAbove(counts: Counts, at: Int32Array, nodeAt: Int32Array): Grid {
  const [nx, ny] = counts
  const wide = counts.map((count) => Math.max(1, Math.ceil(count / 2))) as [number, number, number]
  const place = new Int32Array(wide[0] * wide[1] * wide[2]).fill(-1)
  const owner = new Int32Array(at.length)
  for (let c = 0; c < at.length; c++) {
    const cell = at[c]!
    const [x, y, z] = [cell % nx, Math.floor(cell / nx) % ny, Math.floor(cell / (nx * ny))]
    owner[c] = (x >> 1) + wide[0] * ((y >> 1) + wide[1] * (z >> 1))
    place[owner[c]!] = 0
  }
  const cells = numbered(place)
  const children = new Int32Array(8 * cells.length).fill(-1)
  for (let c = 0; c < at.length; c++) {
    const cell = at[c]!
    const [x, y, z] = [cell % nx, Math.floor(cell / nx) % ny, Math.floor(cell / (nx * ny))]
    children[8 * place[owner[c]!]! + ((x & 1) | ((y & 1) << 1) | ((z & 1) << 2))] = c
  }
  const number = new Int32Array((wide[0] + 1) * (wide[1] + 1) * (wide[2] + 1)).fill(-1)
  const corners = new Int32Array(CORNERS)
  for (const cell of cells) {
    gridCorners(wide, cell, corners)
    for (let n = 0; n < CORNERS; n++) number[corners[n]!] = 0
  }
  const nodes = numbered(number)
  return {
    counts: wide,
    nodeCount: nodes.length,
    nodeAt: nodes,
    number,
    cells,
    children,
    ...rowsOf(wide, cells, number, nodes.length),
    parents: parentsOf(counts, nodeAt, wide, number),
  }
}

/** Gives numbers to all places that are not −1, ascending, and tells where each stands. */
function numbered(place: Int32Array): Int32Array {
  let count = 0
  for (let i = 0; i < place.length; i++) if (place[i]! >= 0) place[i] = count++
  const at = new Int32Array(count)
  for (let i = 0; i < place.length; i++) if (place[i]! >= 0) at[place[i]!] = i
  return at
}

/** Place in the grid of each corner of a cell. */
export function gridCorners([nx, ny]: Counts, cell: number, out: Int32Array): void {
  const [x, y, z] = [cell % nx, Math.floor(cell / nx) % ny, Math.floor(cell / (nx * ny))]
  for (let n = 0; n < CORNERS; n++) out[n] = x + (n & 1) + (nx + 1) * (y + ((n >> 1) & 1) + (ny + 1) * (z + (n >> 2)))
}

/** Which way a corner of a cell lies from another. */
export const wayBetween = (from: number, to: number): number =>
  ITSELF + ((to & 1) - (from & 1)) + 3 * (((to >> 1) & 1) - ((from >> 1) & 1)) + 9 * ((to >> 2) - (from >> 2))

function rowsOf(counts: Counts, cells: Int32Array, number: Int32Array, nodeCount: number): Pick<Grid, 'rows' | 'near' | 'ways' | 'slots'> {
  const slots = new Int32Array(NEAR * nodeCount).fill(-1)
  const corners = new Int32Array(CORNERS)
  for (const cell of cells) {
    gridCorners(counts, cell, corners)
    for (let n = 0; n < CORNERS; n++)
      for (let m = 0; m < CORNERS; m++) slots[NEAR * number[corners[n]!]! + wayBetween(n, m)] = number[corners[m]!]!
  }
  let count = 0
  for (let i = 0; i < slots.length; i++) if (slots[i]! >= 0) count++
  const [rows, near, ways] = [new Int32Array(nodeCount + 1), new Int32Array(count), new Uint8Array(count)]
  count = 0
  for (let n = 0; n < nodeCount; n++) {
    for (let way = 0; way < NEAR; way++) {
      const slot = NEAR * n + way
      if (slots[slot]! < 0) continue
      near[count] = slots[slot]!
      ways[count] = way
      slots[slot] = count++
    }
    rows[n + 1] = count
  }
  return { rows, near, ways, slots }
}

/** Nodes of the wider grid between which each node stands. */
function parentsOf([nx, ny]: Counts, nodeAt: Int32Array, wide: Counts, number: Int32Array): Int32Array {
  const parents = new Int32Array(8 * nodeAt.length)
  for (let n = 0; n < nodeAt.length; n++) {
    const node = nodeAt[n]!
    const [x, y, z] = [node % (nx + 1), Math.floor(node / (nx + 1)) % (ny + 1), Math.floor(node / ((nx + 1) * (ny + 1)))]
    for (let k = 0; k < 8; k++)
      parents[8 * n + k] =
        number[((x + (k & 1)) >> 1) + (wide[0] + 1) * (((y + ((k >> 1) & 1)) >> 1) + (wide[1] + 1) * ((z + (k >> 2)) >> 1))]!
  }
  return parents
}

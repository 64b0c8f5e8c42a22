import { InputError } from '../units/errors'

/** Cells of a regular grid that hold anything: where they stand, and how much of them is filled. */
export interface Cells {
  /** Cells along x, y and z. */
  readonly counts: readonly [number, number, number]
  /** Of one cell, mm. */
  readonly size: readonly [number, number, number]
  /** Cell `x + nx·(y + ny·z)`, ascending. */
  readonly at: Int32Array
  /** Filled share, above 0 and at most 1. */
  readonly share: Float32Array
  /** Which of the materials each is made of. */
  readonly kind: Uint8Array
}

/** Cells with the nodes that they share. */
export interface Mesh extends Cells {
  readonly nodeCount: number
  /** The eight nodes of each cell, by corner. */
  readonly nodes: Int32Array
  /** Node `x + (nx + 1)·(y + (ny + 1)·z)` of the grid, ascending. */
  readonly nodeAt: Int32Array
}

/** Gives numbers to the nodes that any cell has, in the order of the grid. */
export function meshOf(cells: Cells): Mesh {
  const { counts, at } = cells
  const [nx, ny, nz] = counts
  const number = new Int32Array((nx + 1) * (ny + 1) * (nz + 1))
  const corners = cornersOf(counts)
  for (const cell of at) for (const corner of corners) number[firstNode(cell, counts) + corner] = 1
  let nodeCount = 0
  for (let i = 0; i < number.length; i++) number[i] = number[i] === 0 ? -1 : nodeCount++
  const nodeAt = new Int32Array(nodeCount)
  for (let i = 0; i < number.length; i++) if (number[i]! >= 0) nodeAt[number[i]!] = i
  const nodes = new Int32Array(8 * at.length)
  for (let c = 0; c < at.length; c++) {
    const first = firstNode(at[c]!, counts)
    for (let corner = 0; corner < 8; corner++) nodes[8 * c + corner] = number[first + corners[corner]!]!
  }
  return { ...cells, nodeCount, nodes, nodeAt }
}

/** Grid number of the near corner of a cell. */
export function firstNode(cell: number, [nx, ny]: Cells['counts']): number {
  const x = cell % nx
  const y = Math.floor(cell / nx) % ny
  const z = Math.floor(cell / (nx * ny))
  return x + (nx + 1) * (y + (ny + 1) * z)
}

/** What leads from a cell's near corner to each of its corners. */
const cornersOf = ([nx, ny]: Cells['counts']): number[] =>
  Array.from({ length: 8 }, (_, corner) => (corner & 1) + (nx + 1) * (((corner >> 1) & 1) + (ny + 1) * (corner >> 2)))

/**
 * Only what hangs together by whole faces with a cell of the seed: what touches it along an edge alone could turn freely, and what does not touch it
 * bears nothing.
 *
 * @param seed cells by their place in `cells`, 1 where one is held
 * @returns the cells that hang together, and the filled volume of those that do not, as a share of all
 * @throws InputError where nothing is held
 */
export function joinedTo(cells: Cells, seed: Uint8Array): { readonly cells: Cells; readonly dropped: number; readonly kept: Int32Array } {
  const { counts, at, share, kind } = cells
  const [nx, ny, nz] = counts
  const place = new Int32Array(nx * ny * nz).fill(-1)
  for (let c = 0; c < at.length; c++) place[at[c]!] = c
  const isIn = new Uint8Array(at.length)
  const queue = new Int32Array(at.length)
  let count = 0
  for (let c = 0; c < at.length; c++)
    if (seed[c]) {
      isIn[c] = 1
      queue[count++] = c
    }
  if (count === 0) throw new InputError('nothing-held', 'Nothing of the part is held.', '', 'Hold it where there is some of it.')
  for (let next = 0; next < count; next++) {
    const cell = at[queue[next]!]!
    const x = cell % nx
    const y = Math.floor(cell / nx) % ny
    const z = Math.floor(cell / (nx * ny))
    const visit = (neighbour: number): void => {
      const c = place[neighbour]!
      if (c < 0 || isIn[c]) return
      isIn[c] = 1
      queue[count++] = c
    }
    if (x > 0) visit(cell - 1)
    if (x < nx - 1) visit(cell + 1)
    if (y > 0) visit(cell - nx)
    if (y < ny - 1) visit(cell + nx)
    if (z > 0) visit(cell - nx * ny)
    if (z < nz - 1) visit(cell + nx * ny)
  }
  const kept = queue.slice(0, count).sort()
  const all = share.reduce((sum, one) => sum + one, 0)
  const own = kept.reduce((sum, c) => sum + share[c]!, 0)
  const pick = <T extends Int32Array | Float32Array | Uint8Array>(from: T, to: T): T => {
    for (let i = 0; i < kept.length; i++) to[i] = from[kept[i]!]!
    return to
  }
  return {
    cells: {
      counts,
      size: cells.size,
      at: pick(at, new Int32Array(count)),
      share: pick(share, new Float32Array(count)),
      kind: pick(kind, new Uint8Array(count)),
    },
    dropped: 1 - own / all,
    kept,
  }
}

import { CORNERS } from './brick'
import type { Mesh } from './mesh'

/** 24 × 24 numbers of a cell. */
const CELL = 576
/** Neighbours of a node, itself among them, and numbers of a node's row. */
const [NEAR, ROW] = [27, 243]

/** A grid of cells twice as wide along each axis as the one below it, with what its nodes do to each other. */
export interface Level {
  readonly counts: readonly [number, number, number]
  readonly nodeCount: number
  /** The 27 neighbours of each node, itself in the middle; −1 where there is none. */
  readonly near: Int32Array
  /** 3 × 3 for each neighbour. */
  readonly stencil: Float32Array
  /** Inverse of the middle one. */
  readonly inverse: Float32Array
  /** The eight nodes of this level of which each node of the level below is the mean; some of them the same. */
  readonly parents: Int32Array
}

/** What is known of the level below: where its cells and nodes stand, and what each cell adds to its corners. */
interface Below {
  readonly counts: readonly [number, number, number]
  readonly at: Int32Array
  readonly nodeAt: Int32Array
  /** Adds the stiffness of a cell, seen by the corners of the wider one in which it is child number `child`, to 576 numbers from `at` on. */
  readonly addTo: (cell: number, child: number, to: Float32Array, at: number) => void
}

interface Made {
  readonly level: Level
  readonly below: Below
}

/** Corners of a cell from those of the wider one, by which of its eight children it is: `[child][corner][coarse corner]`. */
const weights: readonly (readonly (readonly number[])[])[] = Array.from({ length: 8 }, (_, child) =>
  Array.from({ length: CORNERS }, (_, corner) =>
    Array.from({ length: CORNERS }, (_, coarse) => {
      let weight = 1
      for (let axis = 0; axis < 3; axis++) {
        const far = (((child >> axis) & 1) + ((corner >> axis) & 1)) / 2
        weight *= (coarse >> axis) & 1 ? far : 1 - far
      }
      return weight
    }),
  ),
)

/** Those that are more than nothing: coarse corners and weights, by child and corner. */
const sparse = weights.map((corners) => corners.map((all) => all.flatMap((weight, coarse) => (weight > 0 ? [{ coarse, weight }] : []))))

const half = new Float64Array(CELL)

/** Adds `scale · Wᵀ·K·W`: a cell's stiffness as the corners of the wider cell see it. */
function seen(stiffness: Float64Array | Float32Array, from: number, child: number, to: Float32Array, at = 0): void {
  half.fill(0)
  const corners = sparse[child]!
  for (let n = 0; n < CORNERS; n++)
    for (const { coarse, weight } of corners[n]!)
      for (let i = 0; i < 3; i++) {
        const source = from + 24 * (3 * n + i)
        const target = 24 * (3 * coarse + i)
        for (let j = 0; j < 24; j++) half[target + j]! += weight * stiffness[source + j]!
      }
  for (let m = 0; m < CORNERS; m++)
    for (const { coarse, weight } of corners[m]!)
      for (let row = 0; row < 24; row++) {
        const source = 24 * row + 3 * m
        const target = at + 24 * row + 3 * coarse
        to[target]! += weight * half[source]!
        to[target + 1]! += weight * half[source + 1]!
        to[target + 2]! += weight * half[source + 2]!
      }
}

/**
 * Levels above a mesh, the finest first, until the last has few nodes: each is what the one below it is to movements that are even over its cells
 * (Galerkin). Held movements of the mesh have no part in them.
 */
export function levelsAbove(mesh: Mesh, stiffness: readonly Float64Array[], held: Uint8Array, fewNodes: number): Level[] {
  const levels: Level[] = []
  let below: Below = finest(mesh, stiffness, held)
  while (levels.length === 0 || (levels.at(-1)!.nodeCount > fewNodes && Math.max(...below.counts) > 1)) {
    const made = above(below)
    levels.push(made.level)
    below = made.below
  }
  return levels
}

function finest({ counts, at, nodeAt, share, kind, nodes }: Mesh, stiffness: readonly Float64Array[], held: Uint8Array): Below {
  const ready = stiffness.map((own) =>
    Array.from({ length: 8 }, (_, child) => {
      const to = new Float32Array(CELL)
      seen(own, 0, child, to)
      return to
    }),
  )
  const masked = new Float64Array(CELL)
  const addTo: Below['addTo'] = (cell, child, to, at) => {
    const own = stiffness[kind[cell]!]!
    const full = share[cell]!
    let isHeld = false
    for (let n = 0; n < CORNERS && !isHeld; n++) {
      const d = 3 * nodes[8 * cell + n]!
      isHeld = held[d] === 1 || held[d + 1] === 1 || held[d + 2] === 1
    }
    if (!isHeld) {
      const sum = ready[kind[cell]!]![child]!
      for (let i = 0; i < CELL; i++) to[at + i]! += full * sum[i]!
      return
    }
    for (let i = 0; i < 24; i++)
      for (let j = 0; j < 24; j++) {
        const isFree =
          held[3 * nodes[8 * cell + ((i / 3) | 0)]! + (i % 3)] === 0 && held[3 * nodes[8 * cell + ((j / 3) | 0)]! + (j % 3)] === 0
        masked[24 * i + j] = isFree ? full * own[24 * i + j]! : 0
      }
    seen(masked, 0, child, to, at)
  }
  return { counts, at, nodeAt, addTo }
}

function above({ counts, at, nodeAt, addTo }: Below): Made {
  const [nx, ny] = counts
  const wide = counts.map((count) => Math.max(1, Math.ceil(count / 2))) as [number, number, number]
  const place = new Int32Array(wide[0] * wide[1] * wide[2]).fill(-1)
  const cellOf = (cell: number): number => {
    const [x, y, z] = [cell % nx, Math.floor(cell / nx) % ny, Math.floor(cell / (nx * ny))]
    return (x >> 1) + wide[0] * ((y >> 1) + wide[1] * (z >> 1))
  }
  const owner = new Int32Array(at.length)
  for (let c = 0; c < at.length; c++) {
    owner[c] = cellOf(at[c]!)
    place[owner[c]!] = 0
  }
  const cells: number[] = []
  for (let i = 0; i < place.length; i++)
    if (place[i] === 0) {
      place[i] = cells.length
      cells.push(i)
    }
  // Single precision: these grids only guide, and there are many numbers.
  const stiffness = new Float32Array(CELL * cells.length)
  for (let c = 0; c < at.length; c++) {
    const cell = at[c]!
    const [x, y, z] = [cell % nx, Math.floor(cell / nx) % ny, Math.floor(cell / (nx * ny))]
    addTo(c, (x & 1) | ((y & 1) << 1) | ((z & 1) << 2), stiffness, CELL * place[owner[c]!]!)
  }
  const nodes = nodesOf(wide, cells)
  return {
    level: {
      counts: wide,
      nodeCount: nodes.at.length,
      parents: parentsOf(counts, nodeAt, wide, nodes.number),
      ...rowsOf(wide, cells, stiffness, nodes),
    },
    below: {
      counts: wide,
      at: Int32Array.from(cells),
      nodeAt: nodes.at,
      addTo: (cell, child, to, from) => seen(stiffness, CELL * cell, child, to, from),
    },
  }
}

interface Nodes {
  readonly number: Int32Array
  readonly at: Int32Array
}

/** Grid number of each corner of a cell. */
function cornersAt([nx, ny]: Level['counts'], cell: number): number[] {
  const [x, y, z] = [cell % nx, Math.floor(cell / nx) % ny, Math.floor(cell / (nx * ny))]
  return Array.from({ length: CORNERS }, (_, n) => x + (n & 1) + (nx + 1) * (y + ((n >> 1) & 1) + (ny + 1) * (z + (n >> 2))))
}

function nodesOf(counts: Level['counts'], cells: readonly number[]): Nodes {
  const number = new Int32Array((counts[0] + 1) * (counts[1] + 1) * (counts[2] + 1)).fill(-1)
  for (const cell of cells) for (const node of cornersAt(counts, cell)) number[node] = 0
  const at: number[] = []
  for (let i = 0; i < number.length; i++)
    if (number[i] === 0) {
      number[i] = at.length
      at.push(i)
    }
  return { number, at: Int32Array.from(at) }
}

/** Nodes of the wider grid between which each node stands. */
function parentsOf([nx, ny]: Level['counts'], nodeAt: Int32Array, wide: Level['counts'], number: Int32Array): Int32Array {
  const parents = new Int32Array(8 * nodeAt.length)
  for (let n = 0; n < nodeAt.length; n++) {
    const node = nodeAt[n]!
    const [x, y, z] = [node % (nx + 1), Math.floor(node / (nx + 1)) % (ny + 1), Math.floor(node / ((nx + 1) * (ny + 1)))]
    for (let k = 0; k < 8; k++) {
      const [px, py, pz] = [(x + (k & 1)) >> 1, (y + ((k >> 1) & 1)) >> 1, (z + (k >> 2)) >> 1]
      parents[8 * n + k] = number[px + (wide[0] + 1) * (py + (wide[1] + 1) * pz)]!
    }
  }
  return parents
}

/** The cells' stiffness, gathered by nodes. A movement that nothing resists is held where it is. */
function rowsOf(
  counts: Level['counts'],
  cells: readonly number[],
  stiffness: Float32Array,
  { number, at }: Nodes,
): Pick<Level, 'near' | 'stencil' | 'inverse'> {
  const near = new Int32Array(NEAR * at.length).fill(-1)
  const stencil = new Float32Array(ROW * at.length)
  for (const [c, cell] of cells.entries()) {
    const corners = cornersAt(counts, cell).map((node) => number[node]!)
    for (let n = 0; n < CORNERS; n++)
      for (let m = 0; m < CORNERS; m++) {
        const way = 13 + ((m & 1) - (n & 1)) + 3 * (((m >> 1) & 1) - ((n >> 1) & 1)) + 9 * ((m >> 2) - (n >> 2))
        const row = NEAR * corners[n]! + way
        near[row] = corners[m]!
        for (let i = 0; i < 3; i++)
          for (let j = 0; j < 3; j++) stencil[9 * row + 3 * i + j]! += stiffness[CELL * c + 24 * (3 * n + i) + 3 * m + j]!
      }
  }
  const inverse = new Float32Array(9 * at.length)
  for (let n = 0; n < at.length; n++) {
    const middle = 9 * (NEAR * n + 13)
    const largest = Math.max(stencil[middle]!, stencil[middle + 4]!, stencil[middle + 8]!)
    for (let i = 0; i < 3; i++) if (!(stencil[middle + 4 * i]! > HARDLY * largest)) stencil[middle + 4 * i] = largest > 0 ? largest : 1
    inverse.set(symmetricInverse(stencil, middle), 9 * n)
  }
  return { near, stencil, inverse }
}
/** Less than this share of the stiffest is none. */
const HARDLY = 1e-7

/** Inverse of a symmetric 3 × 3 that stands at a place of an array. */
export function symmetricInverse(
  m: ArrayLike<number>,
  at: number,
): [number, number, number, number, number, number, number, number, number] {
  const [a, b, c, d, e, f] = [m[at]!, m[at + 1]!, m[at + 2]!, m[at + 4]!, m[at + 5]!, m[at + 8]!]
  const [A, B, C] = [d * f - e * e, c * e - b * f, b * e - c * d]
  const over = 1 / (a * A + b * B + c * C)
  const [D, E, F] = [a * f - c * c, b * c - a * e, a * d - b * b]
  return [A * over, B * over, C * over, B * over, D * over, E * over, C * over, E * over, F * over]
}

import { Growing } from '../units/growing'
import type { Edges } from './edges'
import { measureBox } from './measure'
import type { Mesh } from './mesh'

/** Corners on open edges nearer than this are meant to be one, mm: a tenth of what the finest nozzle can show. */
const BORDER_TOLERANCE = 0.01
/** The same for files in other units, where a hundredth may be much: a share of the part's largest extent. */
const RELATIVE_TOLERANCE = 1e-5
/** Edge of a cell of the grid, tolerances: most vertices then have all their neighbours in one cell. */
const CELL = 8

/**
 * Joins vertices on open edges that lie a hair's breadth of each other. Vertices elsewhere never move, so fine
 * detail is safe.
 */
export function weldBorder(mesh: Mesh, edges: Edges): { mesh: Mesh; joined: number } {
  const { min, max } = measureBox(mesh)
  const tolerance = Math.min(BORDER_TOLERANCE, RELATIVE_TOLERANCE * Math.max(...max.map((high, axis) => high - min[axis]!)))
  const { positions } = mesh
  const border = borderOf(mesh, edges)
  const grid = new Grid(border.length)
  const target = Uint32Array.from({ length: positions.length / 3 }, (_, v) => v)
  const cellOf = (value: number, axis: number): number => Math.floor((value - min[axis]!) / (CELL * tolerance))
  const from = new Int32Array(3)
  const to = new Int32Array(3)
  let joined = 0
  for (const vertex of border) {
    for (let axis = 0; axis < 3; axis++) {
      const value = positions[3 * vertex + axis]!
      from[axis] = cellOf(value - tolerance, axis)
      to[axis] = cellOf(value + tolerance, axis)
    }
    let near = -1
    for (let x = from[0]!; x <= to[0]! && near < 0; x++)
      for (let y = from[1]!; y <= to[1]! && near < 0; y++)
        for (let z = from[2]!; z <= to[2]! && near < 0; z++)
          for (let other = grid.first(x, y, z); other >= 0; other = grid.after(other))
            if (distance(positions, vertex, grid.vertexAt(other)) <= tolerance) {
              near = grid.vertexAt(other)
              break
            }
    if (near >= 0) {
      target[vertex] = near
      joined++
    } else grid.add(cellOf(positions[3 * vertex]!, 0), cellOf(positions[3 * vertex + 1]!, 1), cellOf(positions[3 * vertex + 2]!, 2), vertex)
  }
  if (joined === 0) return { mesh, joined }
  return { mesh: { positions, triangles: mesh.triangles.map((v) => target[v]!) }, joined }
}

/** Vertices on open edges, each once, in the order of their triangles. */
function borderOf({ positions, triangles }: Mesh, edges: Edges): Uint32Array {
  const seen = new Uint8Array(positions.length / 3)
  const border = Growing.ofIndices()
  for (let c = 0; c < triangles.length; c++) {
    if (edges.uses[edges.ofTriangle[c]!] !== 1) continue
    const ends = [triangles[c]!, triangles[c % 3 === 2 ? c - 2 : c + 1]!]
    for (let k = 0; k < 2; k++) {
      const vertex = ends[k]!
      if (seen[vertex] === 1) continue
      seen[vertex] = 1
      border.push(vertex)
    }
  }
  return border.values
}

/** Vertices by the cell that they lie in: an open hash table of cells, each with a chain of entries. */
class Grid {
  private readonly mask: number
  /** Per slot: the newest entry of its cell, −1 where there is none. */
  private readonly slots: Int32Array
  /** Per entry: its cell, its vertex, and the one before it in its cell. */
  private readonly cells: Int32Array
  private readonly vertices: Uint32Array
  private readonly before: Int32Array
  private count = 0

  constructor(most: number) {
    let size = 16
    while (size < 2 * most) size *= 2
    this.mask = size - 1
    this.slots = new Int32Array(size).fill(-1)
    this.cells = new Int32Array(3 * most)
    this.vertices = new Uint32Array(most)
    this.before = new Int32Array(most)
  }

  first(x: number, y: number, z: number): number {
    return this.slots[this.slotOf(x, y, z)]!
  }

  after(entry: number): number {
    return this.before[entry]!
  }

  vertexAt(entry: number): number {
    return this.vertices[entry]!
  }

  add(x: number, y: number, z: number, vertex: number): void {
    const slot = this.slotOf(x, y, z)
    const entry = this.count++
    this.cells[3 * entry] = x
    this.cells[3 * entry + 1] = y
    this.cells[3 * entry + 2] = z
    this.vertices[entry] = vertex
    this.before[entry] = this.slots[slot]!
    this.slots[slot] = entry
  }

  private slotOf(x: number, y: number, z: number): number {
    const mixed = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35)
    let slot = (mixed ^ (mixed >>> 15)) & this.mask
    for (let entry = this.slots[slot]!; entry >= 0 && !this.isIn(entry, x, y, z); entry = this.slots[slot]!) slot = (slot + 1) & this.mask
    return slot
  }

  private isIn(entry: number, x: number, y: number, z: number): boolean {
    return this.cells[3 * entry] === x && this.cells[3 * entry + 1] === y && this.cells[3 * entry + 2] === z
  }
}

const distance = (p: Float64Array, a: number, b: number): number =>
  Math.hypot(p[3 * a]! - p[3 * b]!, p[3 * a + 1]! - p[3 * b + 1]!, p[3 * a + 2]! - p[3 * b + 2]!)

import { Growing } from '../units/growing'
import { count, type Linked, linkEdges } from './linked'
import type { Mesh } from './mesh'

/** Leaves out triangles that use a vertex twice, and exact repeats of another triangle. */
export function dropCollapsed(mesh: Mesh, notes: string[]): Linked {
  const collapsed = keepTriangles(mesh, (a, b, c) => a !== b && b !== c && c !== a)
  if (collapsed.dropped > 0)
    notes.push(`${count(collapsed.dropped, 'triangle')} without area ${collapsed.dropped === 1 ? 'was' : 'were'} left out.`)
  // A repeat makes all three of its edges crowded; few triangles are, so the rest need no look.
  const { edges } = linkEdges(collapsed.mesh)
  if (!edges.uses.some((uses) => uses > 2)) return { mesh: collapsed.mesh, edges }
  const { uses, ofTriangle } = edges
  const isCrowded = (t: number): boolean =>
    uses[ofTriangle[3 * t]!]! > 2 && uses[ofTriangle[3 * t + 1]!]! > 2 && uses[ofTriangle[3 * t + 2]!]! > 2
  const triples = new Triples(collapsed.mesh.triangles.length / 3)
  // Of repeats that face the same way one stays; two that face each other are a wall between bodies that touch, and neither does.
  const net = new Int32Array(collapsed.mesh.triangles.length / 3)
  const { triangles } = collapsed.mesh
  for (let t = 0; t < net.length; t++) {
    const [a, b, c] = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!]
    if (isCrowded(t)) net[triples.numberOf(a, b, c)]! += facing(a, b, c)
  }
  const repeated = keepTriangles(collapsed.mesh, (a, b, c, t) => {
    if (!isCrowded(t)) return true
    const triple = triples.numberOf(a, b, c)
    if (Math.sign(net[triple]!) !== facing(a, b, c)) return false
    net[triple] = 0
    return true
  })
  if (repeated.dropped > 0)
    notes.push(`${count(repeated.dropped, 'repeated triangle')} ${repeated.dropped === 1 ? 'was' : 'were'} left out.`)
  return repeated.dropped === 0 ? { mesh: collapsed.mesh, edges } : linkEdges(repeated.mesh)
}

/** 1 when the corners go up from the lowest, −1 when they go down: triangles of the same corners that face each other differ. */
const facing = (a: number, b: number, c: number): number => ((a < b ? 1 : -1) * (b < c ? 1 : -1) * (a < c ? 1 : -1) > 0 ? 1 : -1)

/** Numbers triples of vertices, in whatever order these are, by when they first came. */
class Triples {
  private readonly size: number
  /** Number of the triple + 1; 0 where there is none. */
  private readonly slots: Uint32Array
  private readonly known = Growing.ofIndices()

  /** @param most triples that come at most */
  constructor(most: number) {
    let size = 16
    while (size < 2 * most) size *= 2
    this.size = size
    this.slots = new Uint32Array(size)
  }

  numberOf(a: number, b: number, c: number): number {
    const { known, slots, size } = this
    const low = Math.min(a, b, c)
    const high = Math.max(a, b, c)
    const middle = a + b + c - low - high
    const mixed = Math.imul(low, 0x9e3779b1) ^ Math.imul(middle, 0x85ebca6b) ^ Math.imul(high, 0xc2b2ae35)
    let slot = (mixed ^ (mixed >>> 15)) & (size - 1)
    for (let number = slots[slot]!; number > 0; number = slots[slot]!) {
      const at = 3 * (number - 1)
      if (known.at(at) === low && known.at(at + 1) === middle && known.at(at + 2) === high) return number - 1
      slot = (slot + 1) & (size - 1)
    }
    for (const vertex of [low, middle, high]) known.push(vertex)
    slots[slot] = known.length / 3
    return slots[slot]! - 1
  }
}

export function keepTriangles(mesh: Mesh, keep: (a: number, b: number, c: number, t: number) => boolean): { mesh: Mesh; dropped: number } {
  const kept = new Uint32Array(mesh.triangles.length)
  let length = 0
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const a = mesh.triangles[i]!
    const b = mesh.triangles[i + 1]!
    const c = mesh.triangles[i + 2]!
    if (!keep(a, b, c, i / 3)) continue
    kept[length++] = a
    kept[length++] = b
    kept[length++] = c
  }
  const dropped = (mesh.triangles.length - length) / 3
  return dropped === 0 ? { mesh, dropped } : { mesh: { positions: mesh.positions, triangles: kept.slice(0, length) }, dropped }
}

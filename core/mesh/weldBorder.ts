import type { Edges } from './edges'
import { measureSize } from './measure'
import type { Mesh } from './mesh'

/** Corners on open edges nearer than this are meant to be one, mm: a tenth of what the finest nozzle can show. */
const BORDER_TOLERANCE = 0.01
/** The same for files in other units, where a hundredth may be much: a share of the part's largest extent. */
const RELATIVE_TOLERANCE = 1e-5

/**
 * Joins vertices on open edges that lie a hair's breadth of each other. Vertices elsewhere never move, so fine
 * detail is safe.
 */
export function weldBorder(mesh: Mesh, edges: Edges): { mesh: Mesh; joined: number } {
  const tolerance = Math.min(BORDER_TOLERANCE, RELATIVE_TOLERANCE * Math.max(...measureSize(mesh)))
  const border = new Set<number>()
  for (let c = 0; c < mesh.triangles.length; c++) {
    if (edges.uses[edges.ofTriangle[c]!] !== 1) continue
    border.add(mesh.triangles[c]!)
    border.add(mesh.triangles[c % 3 === 2 ? c - 2 : c + 1]!)
  }
  const cells = new Map<string, number[]>()
  const target = new Map<number, number>()
  const cellOf = (value: number) => Math.floor(value / tolerance)
  for (const vertex of border) {
    const [x, y, z] = mesh.positions.subarray(3 * vertex, 3 * vertex + 3) as unknown as [number, number, number]
    const home = [cellOf(x), cellOf(y), cellOf(z)] as const
    const near = nearby(home, cells).find((other) => distance(mesh.positions, vertex, other) <= tolerance)
    if (near !== undefined) target.set(vertex, near)
    else {
      const key = home.join()
      const list = cells.get(key)
      if (list) list.push(vertex)
      else cells.set(key, [vertex])
    }
  }
  if (target.size === 0) return { mesh, joined: 0 }
  return { mesh: { positions: mesh.positions, triangles: mesh.triangles.map((v) => target.get(v) ?? v) }, joined: target.size }
}

function nearby([x, y, z]: readonly [number, number, number], cells: Map<string, number[]>): number[] {
  const found: number[] = []
  for (let dx = -1; dx <= 1; dx++) {
    for (let dy = -1; dy <= 1; dy++) {
      for (let dz = -1; dz <= 1; dz++) found.push(...(cells.get([x + dx, y + dy, z + dz].join()) ?? []))
    }
  }
  return found
}

const distance = (p: Float64Array, a: number, b: number): number =>
  Math.hypot(p[3 * a]! - p[3 * b]!, p[3 * a + 1]! - p[3 * b + 1]!, p[3 * a + 2]! - p[3 * b + 2]!)

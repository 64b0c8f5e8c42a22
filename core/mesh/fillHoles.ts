import earcut from 'earcut'
import { Growing } from '../units/growing'
import type { Edges } from './edges'
import type { Mesh } from './mesh'

/** A rim of more corners than this is left open: putting a face into it takes time that grows faster than its length. */
const LONGEST_RIM = 20_000
/** A hole counts as flat when its rim leaves its plane by less than this share of its size. */
const FLATNESS = 1e-3

/**
 * Closes holes whose rim lies in a plane; there the missing face can only be the flat one. Curved holes stay open: any
 * surface put there would be a guess.
 */
export function fillFlatHoles(mesh: Mesh, edges: Edges): { mesh: Mesh; holes: number } {
  const added = Growing.ofIndices()
  let holes = 0
  for (const rim of traceRims(mesh, edges)) {
    const patch = rim.length > LONGEST_RIM ? null : flatPatch(mesh.positions, rim)
    if (patch === null) continue
    for (const vertex of patch) added.push(vertex)
    holes++
  }
  if (holes === 0) return { mesh, holes }
  const triangles = new Uint32Array(mesh.triangles.length + added.length)
  triangles.set(mesh.triangles)
  triangles.set(added.values, mesh.triangles.length)
  return { mesh: { positions: mesh.positions, triangles }, holes }
}

/** Follows open edges, against the way their triangles run, into closed rims; branching ones are left alone. */
function traceRims(mesh: Mesh, edges: Edges): number[][] {
  const next = new Map<number, number>()
  const branching = new Set<number>()
  for (let c = 0; c < mesh.triangles.length; c++) {
    if (edges.uses[edges.ofTriangle[c]!] !== 1) continue
    const from = mesh.triangles[c % 3 === 2 ? c - 2 : c + 1]!
    if (next.has(from)) branching.add(from)
    next.set(from, mesh.triangles[c]!)
  }
  const rims: number[][] = []
  for (const start of [...next.keys()]) {
    const rim: number[] = []
    let at: number | undefined = start
    while (at !== undefined && next.has(at) && !branching.has(at)) {
      rim.push(at)
      const following: number | undefined = next.get(at)
      next.delete(at)
      at = following
    }
    if (at === start && rim.length >= 3) rims.push(rim)
  }
  return rims
}

function flatPatch(positions: Float64Array, rim: readonly number[]): number[] | null {
  const points = rim.map((v) => [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!] as const)
  const normal = [0, 0, 0]
  for (let i = 0; i < points.length; i++) {
    const a = points[i]!
    const b = points[(i + 1) % points.length]!
    for (let k = 0; k < 3; k++) normal[k]! += (a[(k + 1) % 3]! - b[(k + 1) % 3]!) * (a[(k + 2) % 3]! + b[(k + 2) % 3]!)
  }
  const length = Math.hypot(...normal)
  if (length === 0) return null
  const heights = points.map((p) => (p[0] * normal[0]! + p[1] * normal[1]! + p[2] * normal[2]!) / length)
  if (Math.max(...heights) - Math.min(...heights) > FLATNESS * Math.sqrt(length)) return null
  // Looking along the largest component of the normal keeps the rim's order: seen from outside it runs counter-clockwise.
  const axis = [0, 1, 2].reduce((best, k) => (Math.abs(normal[k]!) > Math.abs(normal[best]!) ? k : best), 0)
  const [u, v] = [(axis + 1) % 3, (axis + 2) % 3] as const
  const ears = earcut(points.flatMap((p) => [p[u]!, p[v]!]))
  const patch: number[] = []
  for (let i = 0; i < ears.length; i += 3) {
    const [a, b, c] = [ears[i]!, ears[i + 1]!, ears[i + 2]!]
    const area =
      (points[b]![u]! - points[a]![u]!) * (points[c]![v]! - points[a]![v]!) -
      (points[b]![v]! - points[a]![v]!) * (points[c]![u]! - points[a]![u]!)
    const outward = area > 0 === normal[axis]! > 0
    patch.push(rim[a]!, rim[outward ? b : c]!, rim[outward ? c : b]!)
  }
  return patch
}

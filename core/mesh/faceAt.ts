import type { Edges } from './edges'
import type { Mesh } from './mesh'

type Point = readonly [number, number, number]

/**
 * The facets that hang together with the one nearest to a point and turn by no more than an angle from facet to facet.
 *
 * @param at mm
 * @returns their numbers, ascending
 */
export function faceAt(mesh: Mesh, { ofTriangle }: Pick<Edges, 'ofTriangle'>, at: Point, withinDeg: number): Uint32Array {
  const { triangles } = mesh
  const count = triangles.length / 3
  const normals = normalsOf(mesh)
  const across = new Map<number, number[]>()
  for (let i = 0; i < ofTriangle.length; i++) {
    const own = across.get(ofTriangle[i]!)
    if (own) own.push(Math.floor(i / 3))
    else across.set(ofTriangle[i]!, [Math.floor(i / 3)])
  }
  const least = Math.cos((withinDeg * Math.PI) / 180) - 1e-9
  const isIn = new Uint8Array(count)
  const first = nearestFacet(mesh, at)
  const queue = [first]
  isIn[first] = 1
  for (let facet = queue.pop(); facet !== undefined; facet = queue.pop())
    for (let k = 0; k < 3; k++)
      for (const other of across.get(ofTriangle[3 * facet + k]!)!) {
        if (isIn[other]) continue
        let cosine = 0
        for (let i = 0; i < 3; i++) cosine += normals[3 * facet + i]! * normals[3 * other + i]!
        if (cosine < least) continue
        isIn[other] = 1
        queue.push(other)
      }
  return Uint32Array.from(isIn.keys()).filter((facet) => isIn[facet] === 1)
}

function normalsOf({ positions, triangles }: Mesh): Float64Array {
  const normals = new Float64Array(triangles.length)
  for (let t = 0; t < triangles.length; t += 3) {
    const n = crossed(positions, triangles, t)
    const length = Math.hypot(...n) || 1
    for (let i = 0; i < 3; i++) normals[t + i] = n[i]! / length
  }
  return normals
}

/** Twice a facet's area along its normal. */
function crossed(p: Float64Array, triangles: Uint32Array, t: number): Point {
  const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!]
  const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!]
  const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!]
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx]
}

/** The facet that is nearest to a point. */
export function nearestFacet({ positions: p, triangles }: Mesh, at: Point): number {
  let [best, least] = [0, Infinity]
  for (let t = 0; t < triangles.length; t += 3) {
    const corner = (k: number): Point => {
      const v = 3 * triangles[t + k]!
      return [p[v]! - at[0], p[v + 1]! - at[1], p[v + 2]! - at[2]]
    }
    const distance = fromOrigin(corner(0), corner(1), corner(2))
    if (distance < least) [best, least] = [t / 3, distance]
  }
  return best
}

const dot = (a: Point, b: Point): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]

/** Square of the distance of a triangle from the origin (Ericson, Real-Time Collision Detection 2005, §5.1.5; from memory). */
function fromOrigin(a: Point, b: Point, c: Point): number {
  const [ab, ac] = [minus(b, a), minus(c, a)]
  const on = (u: number, v: number): number => {
    const at = [0, 1, 2].map((i) => a[i]! + u * ab[i]! + v * ac[i]!) as unknown as Point
    return dot(at, at)
  }
  const [d1, d2] = [-dot(ab, a), -dot(ac, a)]
  if (d1 <= 0 && d2 <= 0) return on(0, 0)
  const [d3, d4] = [-dot(ab, b), -dot(ac, b)]
  if (d3 >= 0 && d4 <= d3) return on(1, 0)
  const vc = d1 * d4 - d3 * d2
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return on(d1 / (d1 - d3 || 1), 0)
  const [d5, d6] = [-dot(ab, c), -dot(ac, c)]
  if (d6 >= 0 && d5 <= d6) return on(0, 1)
  const vb = d5 * d2 - d1 * d6
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return on(0, d2 / (d2 - d6 || 1))
  const va = d3 * d6 - d5 * d4
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const w = (d4 - d3) / (d4 - d3 + (d5 - d6) || 1)
    return on(1 - w, w)
  }
  const sum = va + vb + vc || 1
  return on(vb / sum, vc / sum)
}

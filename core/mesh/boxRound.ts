import { polygonHull } from 'd3-polygon'
import type { Edges } from './edges'
import { faceAt } from './faceAt'
import type { Mesh } from './mesh'

/** An upright box, turned about its own middle by ° counter-clockwise seen from above, between two heights; mm. */
export interface UprightBox {
  readonly minX: number
  readonly maxX: number
  readonly minY: number
  readonly maxY: number
  readonly turn: number
  readonly fromZ: number
  readonly toZ: number
}

/** Facets that turn by no more than this from one to the next are one face, °. */
const ONE_FACE = 20

/**
 * The smallest upright box round whole faces, and so much around it.
 *
 * @param mesh as it lies on the bed
 * @param at a point of each face, mm
 * @param around mm; the box does not reach under the bed
 */
export function boxRoundFaces(mesh: Mesh, edges: Edges, at: readonly (readonly [number, number, number])[], around: number): UprightBox {
  const { positions, triangles } = mesh
  const seen = new Set<number>()
  for (const point of at)
    for (const facet of faceAt(mesh, edges, point, ONE_FACE)) for (let k = 0; k < 3; k++) seen.add(triangles[3 * facet + k]!)
  const corners = [...seen]
  const heights = corners.map((corner) => positions[3 * corner + 2]!)
  const { turn, middle, width, depth } = smallestRectangle(corners.map((corner) => [positions[3 * corner]!, positions[3 * corner + 1]!]))
  const [halfX, halfY] = [width / 2 + around, depth / 2 + around]
  return {
    minX: middle[0] - halfX,
    maxX: middle[0] + halfX,
    minY: middle[1] - halfY,
    maxY: middle[1] + halfY,
    turn,
    fromZ: Math.max(0, heights.reduce((least, z) => Math.min(least, z), Infinity) - around),
    toZ: heights.reduce((most, z) => Math.max(most, z), 0) + around,
  }
}

interface Rectangle {
  /** Of its width, ° counter-clockwise from x; above −45, at most 45. */
  readonly turn: number
  readonly middle: readonly [number, number]
  readonly width: number
  readonly depth: number
}

/** One side of the smallest rectangle lies along a side of the hull (Freeman and Shapira 1975; from memory). */
function smallestRectangle(points: readonly [number, number][]): Rectangle {
  // Points in one line have no hull; the rectangle round them lies along that line.
  const hull = polygonHull([...points])
  const rim = hull && hull.length > 2 ? hull : farthestTwo(points)
  let best: (Rectangle & { readonly area: number }) | undefined
  for (let i = 0; i < rim.length; i++) {
    const [from, to] = [rim[i]!, rim[(i + 1) % rim.length]!]
    const angle = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI
    const found = rectangleAt(rim, angle - 90 * Math.ceil((angle - 45) / 90))
    if (!best || found.area < best.area * (1 - 1e-9)) best = found
  }
  return best!
}

function rectangleAt(rim: readonly (readonly [number, number])[], turn: number): Rectangle & { readonly area: number } {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  let [lowU, highU, lowV, highV] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const [x, y] of rim) {
    const [u, v] = [x * cos + y * sin, y * cos - x * sin]
    ;[lowU, highU, lowV, highV] = [Math.min(lowU, u), Math.max(highU, u), Math.min(lowV, v), Math.max(highV, v)]
  }
  const [u, v] = [(lowU + highU) / 2, (lowV + highV) / 2]
  const [width, depth] = [highU - lowU, highV - lowV]
  return { turn, middle: [u * cos - v * sin, u * sin + v * cos], width, depth, area: width * depth }
}

/** Of points in one line those at its ends. */
function farthestTwo(points: readonly [number, number][]): [number, number][] {
  const far = (from: readonly [number, number]): [number, number] =>
    points.reduce((best, point) => (distance(point, from) > distance(best, from) ? point : best))
  const one = far(points[0]!)
  return [one, far(one)]
}

const distance = (a: readonly [number, number], b: readonly [number, number]): number => Math.hypot(a[0] - b[0], a[1] - b[1])

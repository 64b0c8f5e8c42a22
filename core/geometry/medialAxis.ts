import Delaunator from 'delaunator'
import { type MiddleLine, reachOut, SMOOTHING, smooth, withoutNeedless } from './middleLine'
import { holds } from './polygonsOf'

/** Points on the rim stand this share of the place's mean width apart: farther, and the diagram zigzags between them. */
const SAMPLE_SHARE = 0.4
/** A circle wider than this many times the widest line does not touch two rims of a narrow place. */
const WIDEST = 1.5
/** A branch shorter than this many times its own width only points into a corner of the rim. */
const SPUR = 1
/** What stays within this, mm, goes nowhere. */
const LEAST_WAY = 1e-6
/** A branch longer than this, mm, is no spur whatever its width. */
const LONGEST_SPUR = 4

/**
 * Middle lines of narrow polygons, from the Voronoi diagram of points along their rims (Brandt & Algazi 1992, from
 * memory): where a Voronoi edge lies inside and its two rim points do not neighbour each other, it is part of the middle.
 *
 * @param polygons outer rims counter-clockwise and holes clockwise, each x, y … in mm
 * @param least narrower places get no line, mm
 * @param most wider places are not expected; they are cut to this, mm
 */
export function middleLines(polygons: readonly ArrayLike<number>[], least: number, most: number): MiddleLine[] {
  const { points, previous } = sampleRims(polygons, SAMPLE_SHARE * Math.min(most, Math.max(least, meanWidth(polygons))))
  if (points.length < 12) return []
  const { triangles, halfedges } = new Delaunator(points)
  const inside = trianglesInside(points, previous, triangles, halfedges, polygons)
  const middle = new Middle(points, previous, triangles, halfedges)
  for (let t = 0; t < inside.length; t++) if (inside[t] === 1) middle.place(t, least, WIDEST * most)
  middle.join()
  middle.dropSpurs()
  return middle.lines(most)
}

/** Of a narrow place: its area over half of its rim, mm. */
function meanWidth(polygons: readonly ArrayLike<number>[]): number {
  let [area, length] = [0, 0]
  for (const xy of polygons) {
    for (let i = 0, j = xy.length - 2; i < xy.length; j = i, i += 2) {
      area += (xy[j]! * xy[i + 1]! - xy[i]! * xy[j + 1]!) / 2
      length += Math.hypot(xy[i]! - xy[j]!, xy[i + 1]! - xy[j + 1]!)
    }
  }
  return (2 * area) / length
}

function sampleRims(polygons: readonly ArrayLike<number>[], step: number): { points: Float64Array; previous: Int32Array } {
  const points: number[] = []
  const previous: number[] = []
  for (const xy of polygons) {
    const first = points.length / 2
    const count = xy.length / 2
    for (let i = 0; i < count; i++) {
      const j = i + 1 === count ? 0 : i + 1
      const dx = xy[2 * j]! - xy[2 * i]!
      const dy = xy[2 * j + 1]! - xy[2 * i + 1]!
      const pieces = Math.max(1, Math.ceil(Math.hypot(dx, dy) / step))
      for (let k = 0; k < pieces; k++) {
        previous.push(points.length / 2 - 1)
        points.push(xy[2 * i]! + (dx * k) / pieces, xy[2 * i + 1]! + (dy * k) / pieces)
      }
    }
    if (points.length / 2 > first) previous[first] = points.length / 2 - 1
  }
  return { points: Float64Array.from(points), previous: Int32Array.from(previous) }
}

/**
 * Which triangles lie inside: 1 inside, −1 outside. A triangle on the left of a rim's edge is inside, one on its right
 * outside, and whatever is joined to it over an edge that is no rim is the same.
 */
function trianglesInside(
  points: Float64Array,
  previous: Int32Array,
  triangles: Uint32Array,
  halfedges: Int32Array,
  polygons: readonly ArrayLike<number>[],
): Int8Array {
  const count = triangles.length / 3
  const side = new Int8Array(count)
  const isRim = (e: number): boolean => {
    const a = triangles[e]!
    const b = triangles[e % 3 === 2 ? e - 2 : e + 1]!
    return previous[a] === b || previous[b] === a
  }
  const spread: number[] = []
  for (let e = 0; e < triangles.length; e++) {
    const t = Math.floor(e / 3)
    if (side[t] !== 0 || !isRim(e)) continue
    const here = triangles[e]!
    const next = triangles[e % 3 === 2 ? e - 2 : e + 1]!
    const third = triangles[e % 3 === 0 ? e + 2 : e - 1]!
    const [a, b] = previous[next] === here ? [here, next] : [next, here]
    const dx = points[2 * b]! - points[2 * a]!
    const dy = points[2 * b + 1]! - points[2 * a + 1]!
    side[t] = dx * (points[2 * third + 1]! - points[2 * a + 1]!) - dy * (points[2 * third]! - points[2 * a]!) > 0 ? 1 : -1
    spread.push(t)
  }
  const flood = (): void => {
    for (let t = spread.pop(); t !== undefined; t = spread.pop()) {
      for (let e = 3 * t; e < 3 * t + 3; e++) {
        const twin = halfedges[e]!
        if (twin < 0 || isRim(e)) continue
        const other = Math.floor(twin / 3)
        if (side[other] !== 0) continue
        side[other] = side[t]!
        spread.push(other)
      }
    }
  }
  flood()
  for (let t = 0; t < count; t++) {
    if (side[t] !== 0) continue
    const [a, b, c] = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!]
    const x = (points[2 * a]! + points[2 * b]! + points[2 * c]!) / 3
    const y = (points[2 * a + 1]! + points[2 * b + 1]! + points[2 * c + 1]!) / 3
    side[t] = polygons.reduce((inside, xy) => inside !== holds(xy, x, y), false) ? 1 : -1
    spread.push(t)
    flood()
  }
  return side
}

/**
 * Voronoi nodes of the rim's points that lie on the middle, and the edges between them. A node is a triangle, so it has
 * three neighbours at most.
 *
 * ```
 * x, y    of the node of each triangle, mm
 * half    from there to the rim, mm; 0 for triangles that are no part of the middle
 * links   three entries a triangle: its neighbours on the middle, −1 for none
 * ```
 */
class Middle {
  private readonly x: Float64Array
  private readonly y: Float64Array
  private readonly half: Float64Array
  private readonly links: Int32Array
  private readonly next: Int32Array

  constructor(
    private readonly points: Float64Array,
    private readonly previous: Int32Array,
    private readonly triangles: Uint32Array,
    private readonly halfedges: Int32Array,
  ) {
    const count = triangles.length / 3
    this.x = new Float64Array(count)
    this.y = new Float64Array(count)
    this.half = new Float64Array(count)
    this.links = new Int32Array(3 * count).fill(-1)
    this.next = new Int32Array(previous.length)
    for (const [point, before] of previous.entries()) this.next[before] = point
  }

  /** Puts a triangle's node on the middle, unless the place is too narrow, or so wide that it is none. */
  place(t: number, least: number, widest: number): void {
    const { points: p, triangles } = this
    const a = triangles[3 * t]!
    const b = triangles[3 * t + 1]!
    const c = triangles[3 * t + 2]!
    const dx = p[2 * b]! - p[2 * a]!
    const dy = p[2 * b + 1]! - p[2 * a + 1]!
    const ex = p[2 * c]! - p[2 * a]!
    const ey = p[2 * c + 1]! - p[2 * a + 1]!
    const d = 0.5 / (dx * ey - dy * ex)
    const bl = dx * dx + dy * dy
    const cl = ex * ex + ey * ey
    const x = (ey * bl - dy * cl) * d
    const y = (dx * cl - ex * bl) * d
    const squared = x * x + y * y
    if (!(4 * squared <= widest * widest)) return
    const [ab, bc, ca] = [this.neighbours(a, b), this.neighbours(b, c), this.neighbours(c, a)]
    let chord = Infinity
    if (ab) chord = bl
    if (ca && cl < chord) chord = cl
    if (bc) chord = Math.min(chord, (ex - dx) ** 2 + (ey - dy) ** 2)
    // The circle passes through points of the rim; the rim between two of them is nearer by their sagitta.
    const half = chord < Infinity ? Math.sqrt(Math.max(0, squared - chord / 4)) : Math.sqrt(squared)
    this.x[t] = p[2 * a]! + x
    this.y[t] = p[2 * a + 1]! + y
    this.half[t] = half
    if (ab && !bc && !ca) this.centre(t, a, b, c)
    else if (bc && !ab && !ca) this.centre(t, b, c, a)
    else if (ca && !ab && !bc) this.centre(t, c, a, b)
    if (2 * this.half[t]! < least) this.half[t] = 0
  }

  /** Moves a node to the middle between an edge of the rim and the edges that meet in the point across: they are nearer than it is. */
  private centre(t: number, from: number, to: number, across: number): void {
    const { points: p } = this
    const [x, y] = [this.x[t]!, this.y[t]!]
    const toEdge = this.half[t]!
    const toRim = Math.min(this.distance(this.previous[across]!, across, x, y), this.distance(across, this.next[across]!, x, y))
    const dx = x - (p[2 * from]! + p[2 * to]!) / 2
    const dy = y - (p[2 * from + 1]! + p[2 * to + 1]!) / 2
    const length = Math.hypot(dx, dy)
    this.half[t] = (toEdge + toRim) / 2
    if (length === 0) return
    this.x[t] = x + (dx / length) * ((toRim - toEdge) / 2)
    this.y[t] = y + (dy / length) * ((toRim - toEdge) / 2)
  }

  /** From a place to the straight between two points of the rim, mm. */
  private distance(a: number, b: number, x: number, y: number): number {
    const { points: p } = this
    const dx = p[2 * b]! - p[2 * a]!
    const dy = p[2 * b + 1]! - p[2 * a + 1]!
    const px = x - p[2 * a]!
    const py = y - p[2 * a + 1]!
    const along = Math.max(0, Math.min(1, (px * dx + py * dy) / (dx * dx + dy * dy || 1)))
    return Math.hypot(px - along * dx, py - along * dy)
  }

  /** Joins nodes over every edge whose points do not neighbour each other on the rim. */
  join(): void {
    const { halfedges, triangles, half } = this
    for (let e = 0; e < halfedges.length; e++) {
      const twin = halfedges[e]!
      if (twin < 0) continue
      const from = (e / 3) | 0
      const to = (twin / 3) | 0
      if (half[from] === 0 || half[to] === 0) continue
      if (!this.neighbours(triangles[e]!, triangles[e % 3 === 2 ? e - 2 : e + 1]!)) this.links[e] = to
    }
  }

  /**
   * Drops short branches that only point into a corner of the rim. A place that has nothing but such branches keeps its two
   * longest: they are the way through it.
   */
  dropSpurs(): void {
    const spurs = new Map<number, { readonly chain: readonly number[]; readonly length: number }[]>()
    for (let end = 0; end < this.half.length; end++) {
      if (this.degree(end) !== 1) continue
      const spur = this.spurFrom(end)
      if (spur) spurs.set(spur.junction, [...(spurs.get(spur.junction) ?? []), spur])
    }
    for (const [junction, own] of spurs) {
      const needless = own.length < this.degree(junction) ? own : own.sort((a, b) => b.length - a.length).slice(2)
      for (const { chain } of needless) for (const node of chain) this.remove(node)
    }
  }

  /** The branch from an end to the junction that it hangs on, where it is short. */
  private spurFrom(end: number): { chain: readonly number[]; length: number; junction: number } | undefined {
    const chain = [end]
    let length = 0
    let before = -1
    let at = end
    for (;;) {
      const on = this.onFrom(at, before)
      if (on < 0) return undefined
      length += Math.hypot(this.x[on]! - this.x[at]!, this.y[on]! - this.y[at]!)
      const degree = this.degree(on)
      if (degree > 2) return length < SPUR * 2 * this.half[on]! ? { chain, length, junction: on } : undefined
      if (degree < 2 || length > LONGEST_SPUR) return undefined
      chain.push(on)
      before = at
      at = on
    }
  }

  /** Chains between junctions and ends, and rings. */
  lines(most: number): MiddleLine[] {
    const lines: MiddleLine[] = []
    for (const rings of [false, true]) {
      for (let node = 0; node < this.half.length; node++) {
        if (!rings && this.degree(node) === 2) continue
        for (let k = 3 * node; k < 3 * node + 3; k++) {
          if (this.links[k]! < 0) continue
          const line = this.follow(node, k, most)
          // Rim points on one circle have their nodes in one place: what leads from one to the other is no line.
          if (line.xy.some((value, i) => Math.abs(value - line.xy[i % 2]!) > LEAST_WAY)) lines.push(line)
        }
      }
    }
    return lines
  }

  /** Follows a chain from one of a node's links, taking every link on the way out of the graph. */
  private follow(start: number, link: number, most: number): MiddleLine {
    const chain = [start]
    const [startsFree, degreeOf] = [this.degree(start) === 1, (node: number): number => this.degree(node)]
    let at = start
    let k = link
    let endsFree = false
    for (;;) {
      const next = this.links[k]!
      const degree = degreeOf(next)
      this.unlink(at, next)
      chain.push(next)
      at = next
      if (next === start || degree !== 2) {
        endsFree = degree === 1
        break
      }
      k = this.links[3 * at]! >= 0 ? 3 * at : this.links[3 * at + 1]! >= 0 ? 3 * at + 1 : 3 * at + 2
      if (this.links[k]! < 0) break
    }
    const closed = chain.length > 3 && at === start
    if (closed) chain.pop()
    const xy: number[] = []
    const width: number[] = []
    for (const node of chain) {
      xy.push(this.x[node]!, this.y[node]!)
      width.push(Math.min(most, 2 * this.half[node]!))
    }
    if (!closed) {
      // The middle ends half a width before the rim does; the largest circle there shows how far there is room.
      if (startsFree) reachOut(xy, width, true)
      if (endsFree) reachOut(xy, width, false)
    }
    for (let pass = 0; pass < SMOOTHING; pass++) smooth(xy, width, closed)
    return { ...withoutNeedless(xy, width, closed), closed }
  }

  private neighbours(a: number, b: number): boolean {
    return this.previous[a] === b || this.previous[b] === a
  }

  private degree(t: number): number {
    return (this.links[3 * t]! >= 0 ? 1 : 0) + (this.links[3 * t + 1]! >= 0 ? 1 : 0) + (this.links[3 * t + 2]! >= 0 ? 1 : 0)
  }

  /** A neighbour other than the one come from; −1 for none. */
  private onFrom(t: number, before: number): number {
    for (let k = 3 * t; k < 3 * t + 3; k++) if (this.links[k]! >= 0 && this.links[k] !== before) return this.links[k]!
    return -1
  }

  private unlink(a: number, b: number): void {
    for (let k = 3 * a; k < 3 * a + 3; k++) if (this.links[k] === b) this.links[k] = -1
    for (let k = 3 * b; k < 3 * b + 3; k++) if (this.links[k] === a) this.links[k] = -1
  }

  private remove(t: number): void {
    for (let k = 3 * t; k < 3 * t + 3; k++) if (this.links[k]! >= 0) this.unlink(t, this.links[k]!)
  }
}

import Delaunator from 'delaunator'
import { holds } from './polygonsOf'

/** A line along the middle of a narrow place: x, y per point (mm) and how wide the place is there (mm). */
export interface MiddleLine {
  readonly xy: number[]
  readonly width: number[]
  readonly closed: boolean
}

/** Points on the rim stand this share of the widest line apart. */
const SAMPLE_SHARE = 0.4
/** A circle wider than this many times the widest line does not touch two rims of a narrow place. */
const WIDEST = 1.5
/** A branch shorter than this many times its own width only points into a corner of the rim. */
const SPUR = 1

/**
 * Middle lines of narrow polygons, from the Voronoi diagram of points along their rims (Brandt & Algazi 1992, from
 * memory): where a Voronoi edge lies inside and its two rim points do not neighbour each other, it is part of the middle.
 *
 * @param polygons outer rims counter-clockwise and holes clockwise, each x, y … in mm
 * @param least narrower places get no line, mm
 * @param most wider places are not expected; they are cut to this, mm
 */
export function middleLines(polygons: readonly ArrayLike<number>[], least: number, most: number): MiddleLine[] {
  const { points, previous } = sampleRims(polygons, SAMPLE_SHARE * most)
  if (points.length < 6) return []
  const { triangles, halfedges } = new Delaunator(points)
  const nodes = new NodeGraph()
  const neighbours = (a: number, b: number): boolean => previous[a] === b || previous[b] === a
  const circles = Array.from({ length: triangles.length / 3 }, (_, t) => {
    const corners = [triangles[3 * t]!, triangles[3 * t + 1]!, triangles[3 * t + 2]!] as const
    const [x, y, radius] = circumcentre(points, ...corners)
    // The circle passes through points of the rim; the rim between two of them is nearer by their sagitta.
    const chord = [0, 1, 2].reduce((least, k) => {
      const [a, b] = [corners[k]!, corners[(k + 1) % 3]!]
      if (!neighbours(a, b)) return least
      return Math.min(least, (points[2 * a]! - points[2 * b]!) ** 2 + (points[2 * a + 1]! - points[2 * b + 1]!) ** 2)
    }, Infinity)
    return [x, y, chord < Infinity ? Math.sqrt(Math.max(0, radius * radius - chord / 4)) : radius] as const
  })
  // Triangles outside, and those along a straight rim whose circles are as good as endless, are no part of the middle.
  const counts = circles.map(([x, y, radius]) => 2 * radius <= WIDEST * most && isInside(polygons, x, y))
  for (let e = 0; e < halfedges.length; e++) {
    const twin = halfedges[e]!
    if (twin <= e) continue
    const a = triangles[e]!
    const b = triangles[e % 3 === 2 ? e - 2 : e + 1]!
    if (neighbours(a, b)) continue
    const from = Math.floor(e / 3)
    const to = Math.floor(twin / 3)
    if (counts[from] && counts[to]) nodes.join(nodes.at(from, circles[from]!), nodes.at(to, circles[to]!))
  }
  return nodes.strands(least, most)
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

/** x, y of the middle and radius of the circle through three points. */
function circumcentre(p: Float64Array, a: number, b: number, c: number): readonly [number, number, number] {
  const dx = p[2 * b]! - p[2 * a]!
  const dy = p[2 * b + 1]! - p[2 * a + 1]!
  const ex = p[2 * c]! - p[2 * a]!
  const ey = p[2 * c + 1]! - p[2 * a + 1]!
  const d = 0.5 / (dx * ey - dy * ex)
  const bl = dx * dx + dy * dy
  const cl = ex * ex + ey * ey
  const x = (ey * bl - dy * cl) * d
  const y = (dx * cl - ex * bl) * d
  return [p[2 * a]! + x, p[2 * a + 1]! + y, Math.hypot(x, y)]
}

/** Even-odd rule over all rims. */
const isInside = (polygons: readonly ArrayLike<number>[], x: number, y: number): boolean =>
  polygons.reduce((inside, xy) => inside !== holds(xy, x, y), false)

/** Voronoi nodes inside the polygons and the edges between them. */
class NodeGraph {
  private readonly index = new Map<number, number>()
  private readonly x: number[] = []
  private readonly y: number[] = []
  private readonly radius: number[] = []
  private readonly links: number[][] = []

  at(triangle: number, [x, y, radius]: readonly [number, number, number]): number {
    const known = this.index.get(triangle)
    if (known !== undefined) return known
    const node = this.x.length
    this.index.set(triangle, node)
    this.x.push(x)
    this.y.push(y)
    this.radius.push(radius)
    this.links.push([])
    return node
  }

  join(a: number, b: number): void {
    if (a === b) return
    this.links[a]!.push(b)
    this.links[b]!.push(a)
  }

  /** Chains between junctions and ends, without spurs into corners and without places that are too narrow. */
  strands(least: number, most: number): MiddleLine[] {
    this.dropNarrow(least)
    this.dropSpurs()
    const lines: MiddleLine[] = []
    const used = new Set<number>()
    const key = (a: number, b: number): number => Math.min(a, b) * this.x.length + Math.max(a, b)
    const follow = (start: number, next: number): void => {
      const chain = [start, next]
      used.add(key(start, next))
      for (;;) {
        const at = chain[chain.length - 1]!
        const before = chain[chain.length - 2]!
        if (at === start || this.links[at]!.length !== 2) break
        const on = this.links[at]!.find((node) => node !== before)
        if (on === undefined || used.has(key(at, on))) break
        used.add(key(at, on))
        chain.push(on)
      }
      const closed = chain.length > 3 && chain[0] === chain[chain.length - 1]
      if (closed) chain.pop()
      const xy = chain.flatMap((node) => [this.x[node]!, this.y[node]!])
      const width = chain.map((node) => Math.min(most, 2 * this.radius[node]!))
      if (!closed) {
        // The middle ends half a width before the rim does; the largest circle there shows how far there is room.
        if (this.links[chain[0]!]!.length === 1) reachOut(xy, width, 0, 1)
        if (this.links[chain[chain.length - 1]!]!.length === 1) reachOut(xy, width, chain.length - 1, chain.length - 2)
      }
      for (let pass = 0; pass < SMOOTHING; pass++) smooth(xy, width, closed)
      lines.push({ ...withoutNeedless(xy, width, closed), closed })
    }
    for (const odd of [true, false]) {
      for (let node = 0; node < this.x.length; node++) {
        if (odd && this.links[node]!.length === 2) continue
        for (const next of this.links[node]!) if (!used.has(key(node, next))) follow(node, next)
      }
    }
    return lines
  }

  private dropNarrow(least: number): void {
    for (let node = 0; node < this.x.length; node++) if (2 * this.radius[node]! < least) this.remove(node)
  }

  private dropSpurs(): void {
    const ends = this.links.flatMap((links, node) => (links.length === 1 ? [node] : []))
    for (const end of ends) {
      const chain = [end]
      let length = 0
      for (;;) {
        const at = chain[chain.length - 1]!
        const on = this.links[at]!.find((node) => node !== chain[chain.length - 2])
        if (on === undefined) break
        length += Math.hypot(this.x[on]! - this.x[at]!, this.y[on]! - this.y[at]!)
        if (this.links[on]!.length > 2) {
          if (length < SPUR * 2 * this.radius[on]!) for (const node of chain) this.remove(node)
          break
        }
        if (this.links[on]!.length < 2) break
        chain.push(on)
      }
    }
  }

  private remove(node: number): void {
    for (const other of this.links[node]!) this.links[other] = this.links[other]!.filter((n) => n !== node)
    this.links[node] = []
  }
}

/** Moves the end of a line outward by half its width, away from its neighbour. */
function reachOut(xy: number[], width: readonly number[], end: number, neighbour: number): void {
  const dx = xy[2 * end]! - xy[2 * neighbour]!
  const dy = xy[2 * end + 1]! - xy[2 * neighbour + 1]!
  const length = Math.hypot(dx, dy)
  if (length === 0) return
  xy[2 * end]! += (dx / length) * (width[end]! / 2)
  xy[2 * end + 1]! += (dy / length) * (width[end]! / 2)
}

/** Rounds of averaging with both neighbours: the points of a Voronoi diagram of samples lie to and fro about the middle. */
const SMOOTHING = 3

function smooth(xy: number[], width: number[], closed: boolean): void {
  const count = width.length
  const old = [...xy]
  const oldWidth = [...width]
  for (let i = closed ? 0 : 1; i < count - (closed ? 0 : 1); i++) {
    const a = (i + count - 1) % count
    const b = (i + 1) % count
    xy[2 * i] = (old[2 * a]! + 2 * old[2 * i]! + old[2 * b]!) / 4
    xy[2 * i + 1] = (old[2 * a + 1]! + 2 * old[2 * i + 1]! + old[2 * b + 1]!) / 4
    width[i] = (oldWidth[a]! + 2 * oldWidth[i]! + oldWidth[b]!) / 4
  }
}

/** Points may leave the straight between those that are kept by this, mm, and the width by this share. */
const STRAIGHT = 0.02
const EVEN = 0.05

function withoutNeedless(xy: readonly number[], width: readonly number[], closed: boolean): { xy: number[]; width: number[] } {
  // A closed line keeps its first and its last point, so that it never falls together.
  if (closed && width.length < 4) return { xy: [...xy], width: [...width] }
  const kept = [0]
  for (let i = 1; i < width.length - 1; i++) {
    const a = kept[kept.length - 1]!
    const dx = xy[2 * i + 2]! - xy[2 * a]!
    const dy = xy[2 * i + 3]! - xy[2 * a + 1]!
    const along = Math.hypot(dx, dy)
    let needed = along === 0
    for (let k = a + 1; k <= i && !needed; k++) {
      const px = xy[2 * k]! - xy[2 * a]!
      const py = xy[2 * k + 1]! - xy[2 * a + 1]!
      const between = width[a]! + ((width[i + 1]! - width[a]!) * (px * dx + py * dy)) / (along * along)
      needed = Math.abs(px * dy - py * dx) / along > STRAIGHT || Math.abs(width[k]! - between) > EVEN * width[k]!
    }
    if (needed) kept.push(i)
  }
  kept.push(width.length - 1)
  return { xy: kept.flatMap((i) => [xy[2 * i]!, xy[2 * i + 1]!]), width: kept.map((i) => width[i]!) }
}

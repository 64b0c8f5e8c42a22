import type { Edges } from './edges'
import { sixfoldVolume } from './measure'
import { type Mesh, triangleCount } from './mesh'
import type { Shells } from './shells'

/** How the bodies of a mesh lie in each other. A body is all shells that touch along edges. */
export interface Nesting {
  /** Whether each shell is inside out. */
  readonly isInverted: readonly boolean[]
  /** What the bodies enclose together once those are turned, mm³: hollows taken off, a body within a solid one counted once. */
  readonly volumeMm3: number
}

/** Bodies are looked into as long as there are fewer triangles than this to look through. */
const MOST_LOOKS = 5e7
/** A pair of boxes takes about as long as so many triangles. */
const PER_PAIR = 10
/** Triangles of a body that are asked whether they lie in another; the majority is believed. */
const ASKED = 3

interface Box {
  readonly min: [number, number, number]
  readonly max: [number, number, number]
}

interface Body {
  volume: number
  readonly box: Box
  readonly triangles: number[]
  /** The smallest body that it lies in. */
  home?: Body
  /** 1 or −1: which way its file has it, and which way is right. */
  turn?: number
}

/**
 * The outermost of nested bodies faces outward; what lies in it keeps facing it as it did, so that a hollow stays one when a
 * whole file is inside out.
 */
export function findNesting(mesh: Mesh, shells: Shells, edges: Edges): Nesting {
  const bodyOf = joinTouching(mesh, shells, edges)
  const bodies = new Map<number, Body>()
  for (let t = 0; t < triangleCount(mesh); t++) {
    const body = bodyOf[shells.ofTriangle[t]!]!
    let own = bodies.get(body)
    if (!own) {
      own = { volume: 0, box: { min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] }, triangles: [] }
      bodies.set(body, own)
    }
    own.volume += sixfoldVolume(mesh, t) / 6
    own.triangles.push(t)
    widen(own.box, mesh, t)
  }
  const largestFirst = [...bodies.values()].sort((a, b) => Math.abs(b.volume) - Math.abs(a.volume))
  findHomes(mesh, largestFirst)
  let volumeMm3 = 0
  for (const body of largestFirst) {
    const { home, volume } = body
    // Homes are larger, so their turn is known.
    body.turn = home ? home.turn! : volume < 0 ? -1 : 1
    const faces = body.turn * Math.sign(volume)
    const isWithinSolid = home !== undefined && home.turn! * Math.sign(home.volume) > 0
    if (!isWithinSolid || faces < 0) volumeMm3 += body.turn * volume
  }
  return { isInverted: bodyOf.map((body) => bodies.get(body)!.turn === -1), volumeMm3 }
}

/** For each shell the first of those that it touches over edges of more than two triangles. */
function joinTouching(mesh: Mesh, { count, ofTriangle }: Shells, edges: Edges): number[] {
  const first = Array.from({ length: count }, (_, shell) => shell)
  const root = (shell: number): number => {
    let at = shell
    while (first[at] !== at) {
      first[at] = first[first[at]!]!
      at = first[at]!
    }
    return at
  }
  const on = new Map<number, number>()
  for (let c = 0; c < mesh.triangles.length; c++) {
    const edge = edges.ofTriangle[c]!
    if (edges.uses[edge]! <= 2) continue
    const shell = root(ofTriangle[Math.floor(c / 3)]!)
    const other = on.get(edge)
    if (other === undefined) on.set(edge, shell)
    else first[shell] = root(other)
  }
  return first.map((_, shell) => root(shell))
}

function widen({ min, max }: Box, { positions, triangles }: Mesh, t: number): void {
  for (let corner = 3 * t; corner < 3 * t + 3; corner++) {
    for (let k = 0; k < 3; k++) {
      const value = positions[3 * triangles[corner]! + k]!
      if (value < min[k]!) min[k] = value
      if (value > max[k]!) max[k] = value
    }
  }
}

function findHomes(mesh: Mesh, largestFirst: readonly Body[]): void {
  let looks = 0
  for (const [i, body] of largestFirst.entries()) {
    // The smallest that holds it is its home.
    for (let k = i - 1; k >= 0; k--) {
      const other = largestFirst[k]!
      looks += PER_PAIR
      if (!boxContains(other.box, body.box)) continue
      looks += ASKED * other.triangles.length
      if (looks > MOST_LOOKS) return
      if (!liesIn(mesh, body, other)) continue
      body.home = other
      break
    }
  }
}

const boxContains = (outer: Box, inner: Box): boolean =>
  [0, 1, 2].every((k) => outer.min[k]! <= inner.min[k]! && outer.max[k]! >= inner.max[k]!)

function liesIn(mesh: Mesh, body: Body, other: Body): boolean {
  let within = 0
  for (let i = 0; i < ASKED; i++) {
    const t = body.triangles[Math.floor((i * body.triangles.length) / ASKED)]!
    if (isWithin(mesh, other.triangles, middleOf(mesh, t))) within++
  }
  return 2 * within > ASKED
}

type Point = readonly [x: number, y: number, z: number]

const middleOf = ({ positions, triangles }: Mesh, t: number): Point =>
  [0, 1, 2].map((k) => [0, 1, 2].reduce((sum, corner) => sum + positions[3 * triangles[3 * t + corner]! + k]! / 3, 0)) as unknown as Point

/** A direction that no edge of a drawn part is likely to have. */
const RAY: Point = [0.7548776662, 0.5698402909, 0.3247179572]

/** Whether a ray from a point leaves a closed surface more often than it enters it (Möller & Trumbore 1997, from memory). */
function isWithin({ positions: p, triangles }: Mesh, own: readonly number[], [x, y, z]: Point): boolean {
  let inside = false
  for (const t of own) {
    const [a, b, c] = [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!]
    const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!]
    const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!]
    const [hx, hy, hz] = [RAY[1] * vz - RAY[2] * vy, RAY[2] * vx - RAY[0] * vz, RAY[0] * vy - RAY[1] * vx]
    const along = ux * hx + uy * hy + uz * hz
    if (along === 0) continue
    const [sx, sy, sz] = [x - p[a]!, y - p[a + 1]!, z - p[a + 2]!]
    const u = (sx * hx + sy * hy + sz * hz) / along
    if (u < 0 || u > 1) continue
    const [qx, qy, qz] = [sy * uz - sz * uy, sz * ux - sx * uz, sx * uy - sy * ux]
    const v = (RAY[0] * qx + RAY[1] * qy + RAY[2] * qz) / along
    if (v < 0 || u + v > 1) continue
    if ((vx * qx + vy * qy + vz * qz) / along > 0) inside = !inside
  }
  return inside
}

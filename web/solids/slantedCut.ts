import { type Direction, frameOf } from '@sable/core/physics/strength/direction'
import { isLaid } from '@sable/core/toolpath/toolpath'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { PieceList, type Pieces } from './pieceList'

/** The edges of a box, whose corners are numbered by their three bits: along the line, across it, up. */
const EDGES = [0, 1, 2].flatMap((bit) =>
  [0, 1, 2, 3, 4, 5, 6, 7].filter((corner) => (corner & (1 << bit)) === 0).map((corner) => [corner, corner | (1 << bit)] as const),
)

/**
 * The part cut through by a plane across any direction: every line is a box, and the polygon that the plane makes of it is
 * drawn as a rectangle of the same area along its longest edge. To the right is the level direction across, upwards the
 * other one.
 *
 * @param at how far along the direction the plane stands from the origin, mm
 */
export function piecesAcross(moves: DrawnMoves, direction: Direction, at: number): Pieces {
  const { x, y, z, feature, width, area } = moves
  const { along, level, upright } = frameOf(direction)
  const pieces = new PieceList(1 << 10)
  const corner = { u: new Float64Array(8), v: new Float64Array(8), off: new Float64Array(8) }
  const cut: Point[] = []
  for (let m = 0; m < feature.length; m++) {
    if (!isLaid(feature[m]!) || !(width[m]! > 0)) continue
    const [dx, dy] = [x[m + 1]! - x[m]!, y[m + 1]! - y[m]!]
    const length = Math.hypot(dx, dy)
    if (length === 0) continue
    const [sideX, sideY] = [(-dy / length) * (width[m]! / 2), (dx / length) * (width[m]! / 2)]
    const height = area[m]! / width[m]!
    let [low, high] = [Infinity, -Infinity]
    for (let c = 0; c < 8; c++) {
      const side = c & 2 ? 1 : -1
      const px = (c & 1 ? x[m + 1]! : x[m]!) + side * sideX
      const py = (c & 1 ? y[m + 1]! : y[m]!) + side * sideY
      // The nozzle runs on top of the layer.
      const pz = z[m]! - (c & 4 ? 0 : height)
      corner.off[c] = along[0] * px + along[1] * py + along[2] * pz - at
      corner.u[c] = level[0] * px + level[1] * py
      corner.v[c] = upright[0] * px + upright[1] * py + upright[2] * pz
      low = Math.min(low, corner.off[c]!)
      high = Math.max(high, corner.off[c]!)
    }
    if (low > 0 || high < 0) continue
    cut.length = 0
    for (const [a, b] of EDGES) {
      const [from, to] = [corner.off[a]!, corner.off[b]!]
      if (from > 0 === to > 0) continue
      const share = from / (from - to)
      cut.push([corner.u[a]! + share * (corner.u[b]! - corner.u[a]!), corner.v[a]! + share * (corner.v[b]! - corner.v[a]!)])
    }
    const drawn = asRectangle(cut)
    if (drawn) pieces.add(...drawn, m)
  }
  return pieces.finish()
}

type Point = [u: number, v: number]

/** Both ends of the middle line and the thickness of a rectangle with the area of the polygon that some points span. */
function asRectangle(points: Point[]): [ax: number, ay: number, bx: number, by: number, width: number] | undefined {
  if (points.length < 3) return undefined
  const middle = points.reduce(([u, v], point) => [u + point[0] / points.length, v + point[1] / points.length], [0, 0] as Point)
  points.sort((a, b) => Math.atan2(a[1] - middle[1], a[0] - middle[0]) - Math.atan2(b[1] - middle[1], b[0] - middle[0]))
  let twice = 0
  let longest = 0
  let [eu, ev] = [1, 0]
  for (const [i, [u, v]] of points.entries()) {
    const [nextU, nextV] = points[(i + 1) % points.length]!
    twice += u * nextV - nextU * v
    const length = Math.hypot(nextU - u, nextV - v)
    if (length > longest) {
      longest = length
      eu = (nextU - u) / length
      ev = (nextV - v) / length
    }
  }
  let [low, high] = [Infinity, -Infinity]
  for (const [u, v] of points) {
    const along = (u - middle[0]) * eu + (v - middle[1]) * ev
    low = Math.min(low, along)
    high = Math.max(high, along)
  }
  const thickness = Math.abs(twice) / 2 / (high - low)
  if (!(thickness > 1e-6)) return undefined
  return [middle[0] + low * eu, middle[1] + low * ev, middle[0] + high * eu, middle[1] + high * ev, thickness]
}

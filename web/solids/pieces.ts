import { code, isLaid, isOfPart } from '@sable/core/toolpath/toolpath'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { PieceList, type Pieces } from './pieceList'

/** Drawn width of what lays nothing, and of places where the nozzle stands, mm. */
const TRAVEL = 0.1
const STAND = 0.7

/** What is done in one layer, in its order; what lays nothing only where it is asked for. */
export function piecesOfLayer(moves: DrawnMoves, layer: number, withTravels: boolean): Pieces {
  const { x, y, feature, width, layerStart } = moves
  const from = layerStart[layer] ?? 0
  const to = layerStart[layer + 1] ?? from
  const pieces = new PieceList(to - from)
  for (let m = from; m < to; m++) {
    const laid = isLaid(feature[m]!)
    if (!laid && !withTravels) continue
    const stands = feature[m] === code.retract || feature[m] === code.pushBack
    pieces.add(x[m]!, y[m]!, x[m + 1]!, y[m + 1]!, laid ? width[m]! : stands ? STAND : TRAVEL, m)
  }
  return pieces.finish()
}

export type CutAxis = 'x' | 'y'

/**
 * The part cut through upright, across an axis: lines that meet the plane, as the rectangles that it makes of them. The other
 * level axis runs to the right and height upwards.
 */
export function piecesOfCut(moves: DrawnMoves, axis: CutAxis, at: number): Pieces {
  const { feature, width, area, z } = moves
  const [along, beside] = axis === 'x' ? [moves.x, moves.y] : [moves.y, moves.x]
  const pieces = new PieceList(1 << 12)
  for (let m = 0; m < feature.length; m++) {
    if (!isLaid(feature[m]!)) continue
    const a = along[m]! - at
    const b = along[m + 1]! - at
    const half = width[m]! / 2
    if ((a > half && b > half) || (a < -half && b < -half)) continue
    const run = b - a
    const length = Math.hypot(run, beside[m + 1]! - beside[m]!)
    if (length === 0) continue
    const height = area[m]! / width[m]!
    const middle = z[m]! - height / 2
    // Where its middle line comes within half a width of the plane: a slanted line is cut broader than it is wide.
    const share = (to: number): number =>
      Math.abs(run) < 1e-9 ? (to < 0 ? 0 : 1) : Math.max(0, Math.min(1, (to * Math.sign(run) - a) / run))
    const reach = half * (Math.abs(beside[m + 1]! - beside[m]!) / length)
    const [s, e] = [share(-reach), share(reach)]
    const [u, v] = [beside[m]! + s * (beside[m + 1]! - beside[m]!), beside[m]! + e * (beside[m + 1]! - beside[m]!)]
    const widen = half * (Math.abs(run) / length)
    const [low, high] = [Math.min(u, v) - widen, Math.max(u, v) + widen]
    if (high - low > 1e-4) pieces.add(low, middle, high, middle, height, m)
  }
  return pieces.finish()
}

/** Those that stay on the part: without supports and what lies around its foot. */
export function piecesOfPart({ ends, width, move }: Pieces, { feature }: DrawnMoves): Pieces {
  const own = new PieceList(move.length)
  for (let i = 0; i < move.length; i++)
    if (isOfPart(feature[move[i]!]!)) own.add(ends[4 * i]!, ends[4 * i + 1]!, ends[4 * i + 2]!, ends[4 * i + 3]!, width[i]!, move[i]!)
  return own.finish()
}

/** Those whose middle lies at a place across that is wanted, mm. */
export function keepPieces({ ends, width, move }: Pieces, wanted: (x: number) => boolean): Pieces {
  const own = new PieceList(move.length)
  for (let i = 0; i < move.length; i++)
    if (wanted((ends[4 * i]! + ends[4 * i + 2]!) / 2))
      own.add(ends[4 * i]!, ends[4 * i + 1]!, ends[4 * i + 2]!, ends[4 * i + 3]!, width[i]!, move[i]!)
  return own.finish()
}

/** The piece under a point, no farther than `reach` mm from its edge; the one laid last where several are. */
export function pieceAt({ ends, width }: Pieces, x: number, y: number, reach: number): number | undefined {
  let best: number | undefined
  let nearest = reach
  for (let i = 0; i < width.length; i++) {
    const [ax, ay, bx, by] = [ends[4 * i]!, ends[4 * i + 1]!, ends[4 * i + 2]!, ends[4 * i + 3]!]
    const [dx, dy] = [bx - ax, by - ay]
    const along = dx * dx + dy * dy
    const t = along === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / along))
    const off = Math.max(0, Math.hypot(x - ax - t * dx, y - ay - t * dy) - width[i]! / 2)
    if (off <= nearest) {
      nearest = off
      best = i
    }
  }
  return best
}

/** How many pieces of a layer are done after `seconds`, the one in hand counted by its share. */
export function doneAt({ move }: Pieces, { start, duration }: DrawnMoves, seconds: number): number {
  let low = 0
  let high = move.length
  while (low < high) {
    const middle = (low + high) >>> 1
    const m = move[middle]!
    if (start[m]! + duration[m]! <= seconds) low = middle + 1
    else high = middle
  }
  const now = move[low]
  if (now === undefined) return low
  return low + Math.max(0, Math.min(1, (seconds - start[now]!) / Math.max(1e-9, duration[now]!)))
}

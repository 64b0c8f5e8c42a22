import type { Motion } from '../motion/planMotion'
import type { Toolpath } from '../toolpath/toolpath'

/** Moves that are written as one arc. */
export interface Arc {
  /** The move after the last of them. */
  readonly to: number
  /** Of its centre, mm. */
  readonly cx: number
  readonly cy: number
  readonly clockwise: boolean
}

/** Fewer moves than this are written as they are. */
const FEWEST = 4
/** So many are looked at at most. */
const MOST = 600
/** No corner lies farther from the arc, and no chord, mm. */
const [OFF, SAG] = [0.008, 0.02]
/** Rises are even within this, mm. */
const EVEN = 5e-4
/** A whole turn has no end of its own to go to; wider arcs are straight lines to any machine, mm. */
const [MOST_TURN, WIDEST] = [1.9 * Math.PI, 500]

/**
 * The longest arc that some moves of one line from a move on lie on: laid alike and asked alike, within a hundredth of a millimetre; nothing where there is
 * none worth a word. Heights may rise evenly with the length.
 *
 * @param end the move before which it has to end
 */
export function arcFrom(path: Toolpath, motion: Pick<Motion, 'asked' | 'acceleration'>, move: number, end: number): Arc | undefined {
  const { feature, area, scope, air } = path
  if (!(area[move]! > 0)) return undefined
  const isAlike = (m: number): boolean =>
    feature[m] === feature[move] &&
    area[m] === area[move] &&
    scope[m] === scope[move] &&
    air[m]! >> 6 === air[move]! >> 6 &&
    motion.asked[m] === motion.asked[move] &&
    motion.acceleration[m] === motion.acceleration[move]
  let last = move + 1
  while (last < end && last - move < MOST && isAlike(last)) last++
  if (last - move < FEWEST) return undefined
  // The longest that fits lies between one that does and one that does not; whether it fits falls off once.
  let [fits, tooFar] = [0, last - move + 1]
  let found: Arc | undefined
  for (let count = FEWEST; count < tooFar; count = Math.min(2 * count, tooFar === last - move + 1 ? last - move : tooFar - 1)) {
    const arc = through(path, move, move + count)
    if (!arc) {
      tooFar = count
      break
    }
    ;[fits, found] = [count, arc]
    if (count === last - move) break
  }
  while (tooFar - fits > 1 && fits > 0) {
    const count = Math.floor((fits + tooFar) / 2)
    const arc = count <= last - move ? through(path, move, move + count) : undefined
    if (arc) [fits, found] = [count, arc]
    else tooFar = count
  }
  return found
}

/** The arc through the ends of some moves and their middle, where all of them lie on it. */
function through({ x, y, z }: Toolpath, from: number, to: number): Arc | undefined {
  const middle = (from + to) >> 1
  const [ax, ay] = [x[middle]! - x[from]!, y[middle]! - y[from]!]
  const [bx, by] = [x[to]! - x[from]!, y[to]! - y[from]!]
  const twice = 2 * (ax * by - ay * bx)
  if (Math.abs(twice) < 1e-9) return undefined
  const [a2, b2] = [ax * ax + ay * ay, bx * bx + by * by]
  const [ox, oy] = [(by * a2 - ay * b2) / twice, (ax * b2 - bx * a2) / twice]
  const radius = Math.hypot(ox, oy)
  if (radius > WIDEST) return undefined
  const [cx, cy] = [x[from]! + ox, y[from]! + oy]
  const sense = Math.sign(twice)
  let [turn, length] = [0, 0]
  const lengths: number[] = []
  for (let i = from; i < to; i++) {
    const [ux, uy, vx, vy] = [x[i]! - cx, y[i]! - cy, x[i + 1]! - cx, y[i + 1]! - cy]
    if (Math.abs(Math.hypot(vx, vy) - radius) > OFF) return undefined
    const step = Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)
    if (step * sense <= 0 || radius * (1 - Math.cos(step / 2)) > SAG) return undefined
    turn += Math.abs(step)
    if (turn > MOST_TURN) return undefined
    length += Math.hypot(vx - ux, vy - uy)
    lengths.push(length)
  }
  const rise = z[to]! - z[from]!
  for (const [i, own] of lengths.entries()) if (Math.abs(z[from + i + 1]! - z[from]! - (rise * own) / length) > EVEN) return undefined
  return { to, cx, cy, clockwise: sense < 0 }
}

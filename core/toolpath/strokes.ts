import { acrossOf, type FillLines } from '../geometry/fillLines'
import type { LineChain } from '../patterns/chainLines'
import type { Pen } from './pen'

/** Something that waits to be laid in one go. */
export interface Stroke {
  readonly feature: number
  /** Squared distance from a point to where the stroke could be begun. */
  nearness(x: number, y: number): number
  /** A point of it, that tells which body it belongs to. */
  readonly anchor: readonly [x: number, y: number]
  /** Lays it, begun where it is nearest. */
  lay(pen: Pen): void
}

/** How a stroke is laid: cross-section is width × height × flow. */
export interface Bead {
  readonly feature: number
  readonly width: number
  readonly height: number
  /** Share of a full line, 1 for all of it. */
  readonly flow: number
}

/** Ends of neighbouring lines are joined when they are no farther apart than this many line widths. */
const LONGEST_JOINT = 2.2

/** Parallel lines, laid back and forth; joined at their ends or each by itself. */
export class ChainStroke implements Stroke {
  readonly anchor: readonly [number, number]
  /** Where it can be begun, x, y each: start and end of the first line, then of the last. */
  private readonly corners: Float64Array

  constructor(
    private readonly lines: FillLines,
    private readonly chain: LineChain,
    private readonly bead: Bead,
    private readonly joined: boolean,
  ) {
    const line = chain[0]!
    const u = (lines.start[line]! + lines.end[line]!) / 2
    this.anchor = toPlane(lines, u, acrossOf(lines, line))
    this.corners = Float64Array.from(
      [line, chain[chain.length - 1]!].flatMap((at) => [
        ...toPlane(lines, lines.start[at]!, acrossOf(lines, at)),
        ...toPlane(lines, lines.end[at]!, acrossOf(lines, at)),
      ]),
    )
  }

  get feature(): number {
    return this.bead.feature
  }

  nearness(x: number, y: number): number {
    const corner = 2 * this.nearestCorner(x, y)
    return (this.corners[corner]! - x) ** 2 + (this.corners[corner + 1]! - y) ** 2
  }

  lay(pen: Pen): void {
    const { lines, chain, bead, joined } = this
    const corner = this.nearestCorner(pen.atX, pen.atY)
    const [fromLast, fromEnd] = [corner >= 2, corner % 2 === 1]
    pen.setLine(bead.feature, bead.width * bead.height * bead.flow, bead.width)
    const order = chain.map((_, i) => chain[fromLast ? chain.length - 1 - i : i]!)
    // Back and forth: each line begins on the side where the one before it ended.
    const isBack = (i: number): boolean => fromEnd !== (i % 2 === 1)
    const startOf = (i: number): number => (isBack(i) ? lines.end : lines.start)[order[i]!]!
    const endOf = (i: number): number => (isBack(i) ? lines.start : lines.end)[order[i]!]!
    let shorter = 0
    for (const [i, line] of order.entries()) {
      const v = acrossOf(lines, line)
      const sense = isBack(i) ? -1 : 1
      const length = lines.end[line]! - lines.start[line]!
      const next = order[i + 1]
      const gap = next === undefined ? Infinity : Math.hypot(startOf(i + 1) - endOf(i), acrossOf(lines, next) - v)
      const joins = joined && gap < LONGEST_JOINT * bead.width
      // What joins two lines is laid too, so both end half of it before the rim and nothing is laid twice.
      const before = Math.min(shorter, length / 3)
      shorter = joins ? gap / 2 : 0
      const after = Math.min(shorter, length / 3)
      const from = toPlane(lines, startOf(i) + sense * before, v)
      if (before > 0) pen.lay(from[0], from[1])
      else pen.goTo(from[0], from[1])
      const to = toPlane(lines, endOf(i) - sense * after, v)
      pen.lay(to[0], to[1])
    }
  }

  /** Which of the four corners is nearest. */
  private nearestCorner(x: number, y: number): number {
    const { corners } = this
    let best = 0
    let least = Infinity
    for (let k = 0; k < 4; k++) {
      const dx = corners[2 * k]! - x
      const dy = corners[2 * k + 1]! - y
      const squared = dx * dx + dy * dy
      if (squared < least) {
        least = squared
        best = k
      }
    }
    return best
  }
}

/** A polyline of any shape, closed or open, of even or varying width. */
export class LineStroke implements Stroke {
  constructor(
    private readonly xy: ArrayLike<number>,
    private readonly closed: boolean,
    private readonly bead: Bead,
    /** Width at each point, mm, where it varies. */
    private readonly widths?: ArrayLike<number>,
    /** Point at which a closed line must begin. */
    private readonly begin?: number,
  ) {}

  get feature(): number {
    return this.bead.feature
  }

  get anchor(): readonly [number, number] {
    return [this.xy[0]!, this.xy[1]!]
  }

  nearness(x: number, y: number): number {
    return this.nearest(x, y).squared
  }

  /** Point of a closed line, or end of an open one, that is nearest. */
  nearest(x: number, y: number): { point: number; squared: number } {
    const count = this.xy.length / 2
    let point = 0
    let squared = Infinity
    for (let i = 0; i < count; i += this.closed ? 1 : Math.max(1, count - 1)) {
      const d = (this.xy[2 * i]! - x) ** 2 + (this.xy[2 * i + 1]! - y) ** 2
      if (d < squared) {
        squared = d
        point = i
      }
    }
    return { point, squared }
  }

  lay(pen: Pen): void {
    const { xy, closed, bead, widths } = this
    const count = xy.length / 2
    const first = this.begin ?? this.nearest(pen.atX, pen.atY).point
    const step = !closed && first > 0 ? -1 : 1
    let at = first
    pen.goTo(xy[2 * at]!, xy[2 * at + 1]!)
    pen.setLine(bead.feature, bead.width * bead.height * bead.flow, bead.width)
    for (let left = closed ? count : count - 1; left > 0; left--) {
      const from = at
      at += step
      if (at === count) at = 0
      if (widths) {
        const width = (widths[from]! + widths[at]!) / 2
        pen.setLine(bead.feature, width * bead.height * bead.flow, width)
      }
      pen.lay(xy[2 * at]!, xy[2 * at + 1]!)
    }
  }
}

const toPlane = ({ cos, sin }: FillLines, u: number, v: number): [number, number] => [u * cos - v * sin, u * sin + v * cos]

/** Lays strokes one after another, always on to the one that begins nearest. */
export function layNearestFirst(strokes: readonly Stroke[], pen: Pen): void {
  const left = [...strokes]
  while (left.length > 0) takeNearest(left, (stroke) => stroke.nearness(pen.atX, pen.atY)).lay(pen)
}

export function takeNearest<T>(from: T[], nearness: (item: T) => number): T {
  let best = 0
  let least = Infinity
  for (let i = 0; i < from.length; i++) {
    const squared = nearness(from[i]!)
    if (squared < least) {
      least = squared
      best = i
    }
  }
  return from.splice(best, 1)[0]!
}

import type { Contours, ContoursBuilder } from './contours'

/**
 * Closed rims of one layer in plain arrays, worked on without the polygon kernel where nothing meets: most insets of most
 * layers only move every edge sideways. What cannot be told for certain is left to the kernel.
 *
 * ```
 * start  rim → its first point; one more entry than rims
 * xy     x, y per point, mm; solid on the left
 * ```
 */
export class Rims {
  xy = new Float64Array(1024)
  start = new Uint32Array(64)
  count = 0

  get points(): number {
    return this.start[this.count]!
  }

  /** Of all rims together, mm. */
  get length(): number {
    let length = 0
    for (let r = 0; r < this.count; r++) {
      const to = this.start[r + 1]!
      for (let i = this.start[r]!, j = to - 1; i < to; j = i++) {
        const dx = this.xy[2 * i]! - this.xy[2 * j]!
        const dy = this.xy[2 * i + 1]! - this.xy[2 * j + 1]!
        length += Math.sqrt(dx * dx + dy * dy)
      }
    }
    return length
  }

  clear(): void {
    this.count = 0
  }

  read({ xy, polygonStart, groupStart }: Contours, group: number): this {
    this.clear()
    for (let p = groupStart[group]!; p < groupStart[group + 1]!; p++) {
      const from = polygonStart[p]!
      const to = polygonStart[p + 1]!
      this.reserve(to - from)
      this.xy.set(xy.subarray(2 * from, 2 * to), 2 * this.points)
      this.endRim(to - from)
    }
    return this
  }

  write(out: ContoursBuilder): void {
    for (let r = 0; r < this.count; r++) {
      const from = this.start[r]!
      const count = this.start[r + 1]! - from
      const { xy, at } = out.reserve(count)
      for (let i = 0; i < 2 * count; i++) xy[at + i] = this.xy[2 * from + i]!
      out.endPolygon(count)
    }
  }

  /** Makes room for points after the last rim. */
  reserve(points: number): void {
    const needed = 2 * (this.points + points)
    if (needed <= this.xy.length) return
    const grown = new Float64Array(2 * needed)
    grown.set(this.xy.subarray(0, 2 * this.points))
    this.xy = grown
  }

  /** Closes a rim of points that were written behind the last one. */
  endRim(points: number): void {
    if (this.count + 2 > this.start.length) {
      const grown = new Uint32Array(2 * this.start.length)
      grown.set(this.start)
      this.start = grown
    }
    this.start[this.count + 1] = this.start[this.count]! + points
    this.count++
  }
}

/** Length of all rims, mm, and by how much it falls per mm of inset while no place vanishes: 2·Σ tan(turn/2). */
export interface RimMeasure {
  readonly length: number
  readonly fall: number
}

/**
 * Leaves out points while the chord over them stays within `tolerance` mm of each: from every point that is kept, a wedge
 * of directions that pass near enough to all points since is narrowed until one lies outside of it.
 */
export function thin(rims: Rims, tolerance: number, into: Rims): Rims {
  into.clear()
  const { xy } = rims
  for (let r = 0; r < rims.count; r++) {
    const from = rims.start[r]!
    const to = rims.start[r + 1]!
    into.reserve(to - from)
    const first = 2 * into.points
    const out = into.xy
    let n = 0
    let anchorX = xy[2 * from]!
    let anchorY = xy[2 * from + 1]!
    out[first] = anchorX
    out[first + 1] = anchorY
    n = 1
    let open = true
    let lowX = 0
    let lowY = 0
    let highX = 0
    let highY = 0
    let reach = 0
    for (let i = from + 1; i <= to; i++) {
      const at = i === to ? from : i
      const dx = xy[2 * at]! - anchorX
      const dy = xy[2 * at + 1]! - anchorY
      const squared = dx * dx + dy * dy
      const isInside = open || (squared >= reach && lowX * dy - lowY * dx >= 0 && dx * highY - dy * highX >= 0)
      if (!isInside) {
        // The point before this one is kept and the wedge begins anew from it.
        i--
        anchorX = xy[2 * i]!
        anchorY = xy[2 * i + 1]!
        out[first + 2 * n] = anchorX
        out[first + 2 * n + 1] = anchorY
        n++
        open = true
        reach = 0
        continue
      }
      reach = squared
      if (squared <= tolerance * tolerance) continue
      const sin = tolerance / Math.sqrt(squared)
      const cos = Math.sqrt(1 - sin * sin)
      const rightX = dx * cos + dy * sin
      const rightY = dy * cos - dx * sin
      const leftX = dx * cos - dy * sin
      const leftY = dy * cos + dx * sin
      if (open || lowX * rightY - lowY * rightX > 0) {
        lowX = rightX
        lowY = rightY
      }
      if (open || leftX * highY - leftY * highX > 0) {
        highX = leftX
        highY = leftY
      }
      open = false
    }
    if (n >= 3) into.endRim(n)
  }
  return into
}

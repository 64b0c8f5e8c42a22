import type { RimMeasure, Rims } from './rims'

/** 1 + cosine of the turn: corners that turn outward by more than 120° would reach farther than twice the distance and are cut. */
const SHARPEST_OUTWARD = 0.5
/** 1 + cosine of the turn of a corner that turns back on itself. */
const HAIRPIN = 1e-3
/** Longer corners than this many times the distance are cut, as the kernel cuts them. */
const MITER_LIMIT = 2
/** Two edges whose directions differ by less than this (sine) do not tell where they meet. */
const PARALLEL = 1e-4

/**
 * Moves every rim to its left by `distance` mm, keeping corners sharp. Edges that the move uses up are left out. Whether
 * rims meet is not looked at.
 *
 * @returns how long the rims were and should become, or undefined where that is not enough to find the inset
 */
export class RimShifter {
  private x = new Float64Array(0)
  private y = new Float64Array(0)
  private ux = new Float64Array(0)
  private uy = new Float64Array(0)
  private qx = new Float64Array(0)
  private qy = new Float64Array(0)
  private next = new Int32Array(0)
  private before = new Int32Array(0)
  private length = 0
  private fall = 0

  shift(rims: Rims, distance: number, into: Rims): RimMeasure | undefined {
    into.clear()
    this.length = 0
    this.fall = 0
    for (let r = 0; r < rims.count; r++) if (!this.shiftRim(rims, r, distance, into)) return undefined
    return { length: this.length, fall: this.fall }
  }

  private shiftRim(rims: Rims, rim: number, d: number, into: Rims): boolean {
    let left = this.readEdges(rims, rim, d)
    if (left < 3 || !this.shiftCorners(left, d)) return false
    const { ux, uy, qx, qy, next, before } = this
    let e = 0
    for (let sound = 0; sound < left; ) {
      const n = next[e]!
      if ((qx[n]! - qx[e]!) * ux[e]! + (qy[n]! - qy[e]!) * uy[e]! >= 0) {
        e = n
        sound++
        continue
      }
      // The edge was used up: its neighbours meet.
      const b = before[e]!
      if (--left < 3) return false
      next[b] = n
      before[n] = b
      if (!this.meet(b, n, d)) return false
      e = b
      sound = Math.max(0, sound - 2)
    }
    into.reserve(left)
    let at = 2 * into.points
    for (let k = 0; k < left; k++, e = next[e]!) {
      into.xy[at++] = qx[e]!
      into.xy[at++] = qy[e]!
    }
    into.endRim(left)
    return true
  }

  /** Directions of the edges of a rim, those without length left out. Returns how many there are. */
  private readEdges({ xy, start }: Rims, rim: number, d: number): number {
    const from = start[rim]!
    const to = start[rim + 1]!
    // Every corner may be cut and give an edge more.
    if (2 * (to - from) > this.x.length) this.grow(4 * (to - from))
    const { ux, uy } = this
    let n = 0
    for (let i = from; i < to; i++) {
      const j = i + 1 === to ? from : i + 1
      const dx = xy[2 * j]! - xy[2 * i]!
      const dy = xy[2 * j + 1]! - xy[2 * i + 1]!
      const l = Math.sqrt(dx * dx + dy * dy)
      if (l < 1e-9) continue
      this.length += l
      if (n > 0) n = this.cut(n, xy[2 * i]!, xy[2 * i + 1]!, dx / l, dy / l, d)
      this.put(n++, xy[2 * i]!, xy[2 * i + 1]!, dx / l, dy / l)
    }
    if (n > 0) {
      n = this.cut(n, this.x[0]!, this.y[0]!, ux[0]!, uy[0]!, d)
      this.next[n - 1] = 0
      this.before[0] = n - 1
    }
    return n
  }

  private put(n: number, x: number, y: number, ux: number, uy: number): void {
    this.x[n] = x
    this.y[n] = y
    this.ux[n] = ux
    this.uy[n] = uy
    this.next[n] = n + 1
    this.before[n] = n - 1
  }

  /** Puts an edge without length across a corner that would reach too far out. Returns how many edges there are. */
  private cut(n: number, x: number, y: number, ux: number, uy: number, d: number): number {
    const bx = this.ux[n - 1]!
    const by = this.uy[n - 1]!
    const along = 1 + bx * ux + by * uy
    if (along >= SHARPEST_OUTWARD || along < HAIRPIN || (bx * uy - by * ux) * d >= 0) return n
    const l = Math.hypot(bx + ux, by + uy)
    this.put(n, x, y, (bx + ux) / l, (by + uy) / l)
    return n + 1
  }

  private shiftCorners(count: number, d: number): boolean {
    const { x, y, ux, uy, qx, qy } = this
    for (let e = 0, b = count - 1; e < count; b = e++) {
      const turn = ux[b]! * uy[e]! - uy[b]! * ux[e]!
      const along = 1 + ux[b]! * ux[e]! + uy[b]! * uy[e]!
      if (along < HAIRPIN) return false
      const half = turn / along
      this.fall += 2 * (half > MITER_LIMIT ? MITER_LIMIT : half < -MITER_LIMIT ? -MITER_LIMIT : half)
      qx[e] = x[e]! - (d * (uy[b]! + uy[e]!)) / along
      qy[e] = y[e]! + (d * (ux[b]! + ux[e]!)) / along
    }
    return true
  }

  /** Corner between two edges that were no neighbours before. */
  private meet(b: number, e: number, d: number): boolean {
    const { x, y, ux, uy, qx, qy } = this
    const turn = ux[b]! * uy[e]! - uy[b]! * ux[e]!
    if (turn * d < PARALLEL * Math.abs(d)) return false
    const bx = x[b]! - d * uy[b]!
    const by = y[b]! + d * ux[b]!
    const way = ((x[e]! - d * uy[e]! - bx) * uy[e]! - (y[e]! + d * ux[e]! - by) * ux[e]!) / turn
    qx[e] = bx + way * ux[b]!
    qy[e] = by + way * uy[b]!
    return true
  }

  private grow(edges: number): void {
    this.x = new Float64Array(edges)
    this.y = new Float64Array(edges)
    this.ux = new Float64Array(edges)
    this.uy = new Float64Array(edges)
    this.qx = new Float64Array(edges)
    this.qy = new Float64Array(edges)
    this.next = new Int32Array(edges)
    this.before = new Int32Array(edges)
  }
}

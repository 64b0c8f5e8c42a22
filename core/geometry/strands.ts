import { joined, joinStarts } from '../units/shared'

/**
 * Polylines with a width of their own at every point, of many groups (one a layer), packed so that they cross threads
 * without copying.
 *
 * ```
 * groupStart   g → first strand of group g; one more entry than groups
 * strandStart  s → first point of strand s; one more entry than strands
 * xy           x, y per point, mm
 * width        of the line at each point, mm
 * closed       1 where the last point joins the first, per strand
 * ```
 */
export interface Strands {
  readonly xy: Float64Array
  readonly width: Float32Array
  readonly strandStart: Uint32Array
  readonly groupStart: Uint32Array
  readonly closed: Uint8Array
}

/** Collects strands group by group. */
export class StrandsBuilder {
  private readonly xy: number[] = []
  private readonly width: number[] = []
  private readonly strandStart: number[] = [0]
  private readonly groupStart: number[] = [0]
  private readonly closed: number[] = []

  add(xy: ArrayLike<number>, width: ArrayLike<number> | number, closed = false): void {
    for (let i = 0; i < xy.length; i++) this.xy.push(xy[i]!)
    for (let i = 0; i < xy.length / 2; i++) this.width.push(typeof width === 'number' ? width : width[i]!)
    this.strandStart.push(this.xy.length / 2)
    this.closed.push(closed ? 1 : 0)
  }

  endGroup(): void {
    this.groupStart.push(this.closed.length)
  }

  /** Ends a group that is the same as the one before it, or as one farther back. */
  repeatGroup(back = 1): void {
    const [from, to] = this.groupStart.slice(-1 - back) as [number, number]
    for (let s = from; s < to; s++) {
      const [start, end] = [this.strandStart[s]!, this.strandStart[s + 1]!]
      this.add(this.xy.slice(2 * start, 2 * end), this.width.slice(start, end), this.closed[s] === 1)
    }
    this.endGroup()
  }

  finish(): Strands {
    return {
      xy: Float64Array.from(this.xy),
      width: Float32Array.from(this.width),
      strandStart: Uint32Array.from(this.strandStart),
      groupStart: Uint32Array.from(this.groupStart),
      closed: Uint8Array.from(this.closed),
    }
  }
}

/** Groups of several packs of strands one behind the other. */
export const joinStrands = (parts: readonly Strands[]): Strands => ({
  xy: joined(parts.map(({ xy }) => xy)),
  width: joined(parts.map(({ width }) => width)),
  strandStart: joinStarts(parts.map(({ strandStart }) => strandStart)),
  groupStart: joinStarts(parts.map(({ groupStart }) => groupStart)),
  closed: joined(parts.map(({ closed }) => closed)),
})

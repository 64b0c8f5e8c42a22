import { joined, joinStarts } from '../units/shared'

/**
 * Closed contours of many groups (mostly: one group a layer), packed so that they cross threads without copying.
 *
 * ```
 * groupStart   g → first polygon of group g; one more entry than groups
 * polygonStart p → first point of polygon p; one more entry than polygons
 * xy           x, y per point, mm; the last point joins the first
 * ```
 * Outer contours run counter-clockwise, holes clockwise.
 */
export interface Contours {
  readonly xy: Float64Array
  readonly polygonStart: Uint32Array
  readonly groupStart: Uint32Array
}

export const groupCount = (contours: Contours): number => contours.groupStart.length - 1

/** Collects contours group by group without knowing their number beforehand. */
export class ContoursBuilder {
  private xy = new Float64Array(512)
  private points = 0
  private readonly polygonStart: number[] = [0]
  private readonly groupStart: number[] = [0]

  /** Room for `count` more points; returns the array and where in it to write x, y pairs. */
  reserve(count: number): { xy: Float64Array; at: number } {
    const needed = 2 * (this.points + count)
    if (needed > this.xy.length) {
      const grown = new Float64Array(Math.max(needed, this.xy.length * 2))
      grown.set(this.xy.subarray(0, 2 * this.points))
      this.xy = grown
    }
    return { xy: this.xy, at: 2 * this.points }
  }

  /** Closes a polygon of `count` points that were written to the reserved room. */
  endPolygon(count: number): void {
    this.points += count
    this.polygonStart.push(this.points)
  }

  get polygonCount(): number {
    return this.polygonStart.length - 1
  }

  addPolygon(xy: ArrayLike<number>): void {
    const room = this.reserve(xy.length / 2)
    for (let i = 0; i < xy.length; i++) room.xy[room.at + i] = xy[i]!
    this.endPolygon(xy.length / 2)
  }

  endGroup(): void {
    this.groupStart.push(this.polygonStart.length - 1)
  }

  /** Ends a group that is the same as the one before it, or as one farther back. */
  repeatGroup(back = 1): void {
    const [from, to] = this.groupStart.slice(-1 - back) as [number, number]
    for (let p = from; p < to; p++) {
      const [start, end] = [this.polygonStart[p]!, this.polygonStart[p + 1]!]
      const { xy, at } = this.reserve(end - start)
      xy.copyWithin(at, 2 * start, 2 * end)
      this.endPolygon(end - start)
    }
    this.endGroup()
  }

  finish(): Contours {
    return {
      xy: this.xy.slice(0, 2 * this.points),
      polygonStart: Uint32Array.from(this.polygonStart),
      groupStart: Uint32Array.from(this.groupStart),
    }
  }
}

/** Groups of several contours one behind the other. */
export const joinContours = (parts: readonly Contours[]): Contours => ({
  xy: joined(parts.map(({ xy }) => xy)),
  polygonStart: joinStarts(parts.map(({ polygonStart }) => polygonStart)),
  groupStart: joinStarts(parts.map(({ groupStart }) => groupStart)),
})

/** Whether two groups hold the same polygons, point for point. */
export function isSameGroup({ xy, polygonStart, groupStart }: Contours, a: number, b: number): boolean {
  const polygons = groupStart[a + 1]! - groupStart[a]!
  if (polygons !== groupStart[b + 1]! - groupStart[b]!) return false
  const [firstA, firstB] = [polygonStart[groupStart[a]!]!, polygonStart[groupStart[b]!]!]
  for (let p = 1; p <= polygons; p++)
    if (polygonStart[groupStart[a]! + p]! - firstA !== polygonStart[groupStart[b]! + p]! - firstB) return false
  const points = polygonStart[groupStart[a + 1]!]! - firstA
  for (let i = 0; i < 2 * points; i++) if (xy[2 * firstA + i] !== xy[2 * firstB + i]) return false
  return true
}

/** Area of one group, mm²: outer contours minus holes. */
export function groupArea(contours: Contours, group: number): number {
  let area = 0
  for (let p = contours.groupStart[group]!; p < contours.groupStart[group + 1]!; p++) area += polygonArea(contours, p)
  return area
}

/** Signed area of one polygon, mm²: positive when it runs counter-clockwise (shoelace formula). */
export function polygonArea({ xy, polygonStart }: Contours, polygon: number): number {
  const from = polygonStart[polygon]!
  const to = polygonStart[polygon + 1]!
  let twice = 0
  for (let i = from, j = to - 1; i < to; j = i++) twice += xy[2 * j]! * xy[2 * i + 1]! - xy[2 * i]! * xy[2 * j + 1]!
  return twice / 2
}

/** Groups without a polygon. */
export const emptyContours = (groups: number): Contours => ({
  xy: new Float64Array(0),
  polygonStart: new Uint32Array(1),
  groupStart: new Uint32Array(groups + 1),
})

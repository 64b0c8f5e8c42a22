/** A line along the middle of a narrow place: x, y per point (mm) and how wide the place is there (mm). */
export interface MiddleLine {
  readonly xy: number[]
  readonly width: number[]
  readonly closed: boolean
}

/**
 * Moves the end of a line outward by half its width, in the direction in which it comes from farther away than that: nearer,
 * its points stand where branches to the corners began.
 */
export function reachOut(xy: number[], width: number[], atStart: boolean): void {
  const end = atStart ? 0 : width.length - 1
  const inward = atStart ? 1 : -1
  const reach = width[end]! / 2
  let from = end + inward
  const isLast = (i: number): boolean => i === (atStart ? width.length - 1 : 0)
  while (!isLast(from) && Math.hypot(xy[2 * end]! - xy[2 * from]!, xy[2 * end + 1]! - xy[2 * from + 1]!) < reach) from += inward
  const dx = xy[2 * end]! - xy[2 * from]!
  const dy = xy[2 * end + 1]! - xy[2 * from + 1]!
  const length = Math.hypot(dx, dy)
  if (length === 0) return
  xy[2 * end]! += (dx / length) * reach
  xy[2 * end + 1]! += (dy / length) * reach
  // The largest circle at a square end is a hair too small: the place is as wide there as it was shortly before.
  if (length < 2 * reach) width[end] = Math.max(width[end]!, width[from]!)
  const needless = Math.abs(from - end) - 1
  const at = atStart ? 1 : from + 1
  xy.splice(2 * at, 2 * needless)
  width.splice(at, needless)
}

/** Rounds of averaging with both neighbours: the points of a Voronoi diagram of samples lie to and fro about the middle. */
export const SMOOTHING = 3

export function smooth(xy: number[], width: number[], closed: boolean): void {
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
const EVEN = 0.025

export function withoutNeedless(xy: readonly number[], width: readonly number[], closed: boolean): { xy: number[]; width: number[] } {
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

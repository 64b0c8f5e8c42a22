import { type MiddleLine, middleLines } from '../geometry/medialAxis'
import type { PolygonOps, Region } from '../geometry/polygon'
import { polygonsOf } from '../geometry/polygonsOf'
import type { StrandsBuilder } from '../geometry/strands'
import { HIDDEN_TOLERANCE, type WallSettings } from './walls'

/** A line wider than this many line widths is laid as two. */
const WIDEST_LINE = 1.5
/** What is thinner than this, mm, is no detail but the roughness of the model. */
const LEAST_DETAIL = 0.06

/**
 * Fills places that are too narrow for a wall on either side: one line along their middle, or two beside it where one
 * would be too wide.
 *
 * @returns area that is too thin for any line, mm²; asked for at the surface only, where it is detail that gets lost
 */
export function layThin(
  ops: PolygonOps,
  places: Region,
  width: number,
  settings: WallSettings,
  thinLines: StrandsBuilder,
  atSurface: boolean,
): number {
  const least = Math.min(settings.leastLineWidth, width)
  const fillable = settings.thinLines === 'left' ? ops.empty() : opened(ops, places, least * 0.98)
  for (const piece of polygonsOf(ops, ops.simplify(fillable, width * HIDDEN_TOLERANCE))) {
    for (const line of middleLines(piece, least, 2 * width + least)) addThin(line, width, thinLines)
  }
  if (!atSurface) return 0
  const detail = opened(ops, places, LEAST_DETAIL)
  return ops.isEmpty(detail) ? 0 : ops.area(ops.isEmpty(fillable) ? detail : ops.subtract(detail, fillable))
}

export function addThin({ xy, width: widths, closed }: MiddleLine, width: number, thinLines: StrandsBuilder): void {
  for (const line of besideMiddle(xy, widths, closed, WIDEST_LINE * width)) thinLines.add(line.xy, line.width, closed)
}

const opened = (ops: PolygonOps, region: Region, width: number): Region => {
  const shrunk = ops.offset(region, -width / 2)
  return ops.isEmpty(shrunk) ? shrunk : ops.offset(shrunk, width / 2)
}

/** One line along the middle, or, where it would be wider than `most` on average, two of half its width beside it. */
function besideMiddle(xy: number[], width: number[], closed: boolean, most: number): { xy: number[]; width: number[] }[] {
  if (width.reduce((sum, w) => sum + w, 0) / width.length <= most) return [{ xy, width }]
  const halves = width.map((w) => w / 2)
  return [1, -1].map((side) => ({ xy: shifted(xy, width, closed, side / 4), width: halves }))
}

/** A line moved sideways at every point by a share of the width there. */
function shifted(xy: readonly number[], width: readonly number[], closed: boolean, share: number): number[] {
  const count = width.length
  return width.flatMap((w, i) => {
    const before = closed ? (i + count - 1) % count : Math.max(0, i - 1)
    const after = closed ? (i + 1) % count : Math.min(count - 1, i + 1)
    const dx = xy[2 * after]! - xy[2 * before]!
    const dy = xy[2 * after + 1]! - xy[2 * before + 1]!
    const length = Math.hypot(dx, dy) || 1
    return [xy[2 * i]! - (dy / length) * w * share, xy[2 * i + 1]! + (dx / length) * w * share]
  })
}

import { middleLines } from '../geometry/medialAxis'
import type { PolygonOps, Region } from '../geometry/polygon'
import { polygonsOf } from '../geometry/polygonsOf'
import type { NarrowLines } from './narrowLines'
import { HIDDEN_TOLERANCE, leastOf, type WallSettings, widestNarrow } from './walls'

/** What is thinner than this, mm, is no detail but the roughness of the model. */
const LEAST_DETAIL = 0.06

/**
 * Fills places that are too narrow for a wall on either side with lines along their middle.
 *
 * @param depth of the walls around the places; 0 at the surface
 * @returns area that is too thin for any line, mm²; told at the surface only, where it is detail that gets lost
 */
export function layThin(ops: PolygonOps, places: Region, width: number, settings: WallSettings, lines: NarrowLines, depth: number): number {
  const least = leastOf(settings, width)
  const fillable = settings.thinLines === 'left' ? ops.empty() : opened(ops, places, least)
  for (const piece of polygonsOf(ops, ops.simplify(fillable, width * HIDDEN_TOLERANCE))) {
    for (const line of middleLines(piece, least, widestNarrow(settings, width))) lines.fill(line, { width, least }, depth)
  }
  if (depth > 0) return 0
  const detail = opened(ops, places, LEAST_DETAIL)
  return ops.isEmpty(detail) ? 0 : ops.area(ops.isEmpty(fillable) ? detail : ops.subtract(detail, fillable))
}

const opened = (ops: PolygonOps, region: Region, width: number): Region => {
  const shrunk = ops.offset(region, -width / 2)
  return ops.isEmpty(shrunk) ? shrunk : ops.offset(shrunk, width / 2)
}

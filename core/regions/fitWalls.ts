import type { PolygonOps, Region } from '../geometry/polygon'
import type { StrandsBuilder } from '../geometry/strands'
import { layThin } from './layThin'
import { HIDDEN_TOLERANCE, isShort, SKIN_TOLERANCE, spareFor, type WallSettings } from './walls'

interface LayerWalls {
  readonly walls: readonly Region[]
  readonly inside: Region
}

/**
 * Walls where there is room for them on both sides, and lines of a width of their own in every place that is narrower.
 *
 * @param free what the walls outside of these leave
 * @param from how many those are
 */
export function fitWalls(
  ops: PolygonOps,
  free: Region,
  from: number,
  width: number,
  settings: WallSettings,
  thinLines: StrandsBuilder,
): LayerWalls & { readonly lost: number } {
  const walls: Region[] = []
  let lost = 0
  for (let depth = from; depth < settings.wallCount && !ops.isEmpty(free); depth++) {
    const hidden = ops.simplify(free, width * HIDDEN_TOLERANCE)
    const rim = depth === 0 ? free : hidden
    const spare = depth === 0 ? 0 : spareFor(settings, width)
    let rest = ops.offset(hidden, -width)
    const core = spare > 0 ? ops.offset(rest, -spare) : rest
    if (hasVanished(ops, hidden, core, width + spare, width)) {
      const kept = depth === 0 ? ops.offset(rim, -width) : core
      walls.push(ops.offset(kept, width / 2 + spare))
      const held = ops.isEmpty(kept) ? kept : ops.offset(kept, spare + width * (1 + HIDDEN_TOLERANCE))
      lost += layThin(ops, ops.isEmpty(held) ? rim : ops.subtract(rim, held), width, settings, thinLines, depth === 0)
      rest = spare > 0 && !ops.isEmpty(kept) ? ops.offset(kept, spare) : kept
    } else walls.push(ops.offset(rim, -width / 2))
    free = rest
  }
  return { walls, inside: openInside(ops, ops.simplify(free, width * SKIN_TOLERANCE), width, settings, thinLines), lost }
}

/**
 * Whether an inset made a place vanish, told cheaply from the lengths of both rims: without that the length falls as the
 * corners say, and by twice the length of every lost strip.
 */
function hasVanished(ops: PolygonOps, before: Region, after: Region, by: number, width: number): boolean {
  return isShort(ops.measureRim(before), by, ops.measureRim(after).length, width)
}

/** Places of the inside that are narrower than a line leave it; a line of their own width fills them. */
function openInside(ops: PolygonOps, inside: Region, width: number, settings: WallSettings, thinLines: StrandsBuilder): Region {
  if (ops.isEmpty(inside)) return inside
  const shrunk = ops.offset(inside, -width / 2)
  if (!hasVanished(ops, inside, shrunk, width / 2, width)) return inside
  const kept = ops.isEmpty(shrunk) ? shrunk : ops.intersect(ops.offset(shrunk, width / 2 + width * HIDDEN_TOLERANCE), inside)
  layThin(ops, ops.isEmpty(kept) ? inside : ops.subtract(inside, kept), width, settings, thinLines, false)
  return kept
}

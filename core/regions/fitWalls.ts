import type { PolygonOps, Region } from '../geometry/polygon'
import { holds, polygonsOf, regionOf } from '../geometry/polygonsOf'
import { layThin } from './layThin'
import type { NarrowLines } from './narrowLines'
import { WIDEST_LINE } from './sideBySide'
import { HIDDEN_TOLERANCE, isShort, LEAST_INSIDE, SKIN_TOLERANCE, spareFor, type WallSettings, widestNarrow } from './walls'

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
  lines: NarrowLines,
): LayerWalls & { readonly lost: number } {
  const walls: Region[] = []
  let lost = 0
  for (let depth = from; depth < settings.wallCount && !ops.isEmpty(free); depth++) {
    const hidden = ops.simplify(free, width * HIDDEN_TOLERANCE)
    const rim = depth === 0 ? free : hidden
    const spare = spareFor(settings, width)
    const all = ops.offset(hidden, -width - spare)
    if (hasVanished(ops, hidden, all, width + spare, width)) {
      // Where narrow places are left there is no line along their middle that walls would have to make way for.
      const core = settings.thinLines === 'left' ? all : withoutHardlyWide(ops, all, ops.offset(hidden, -widestNarrow(settings, width) / 2))
      const room = ops.isEmpty(core) ? core : ops.offset(core, spare + width * (1 + HIDDEN_TOLERANCE))
      // The surface keeps every point that the insets would round off.
      const wall =
        depth === 0 && !ops.isEmpty(core)
          ? ops.intersect(ops.offset(rim, -width / 2), ops.offset(room, -width / 2))
          : ops.offset(core, width / 2 + spare)
      walls.push(wall)
      lost += layThin(ops, ops.isEmpty(room) ? rim : ops.subtract(rim, room), width, settings, lines, depth)
      free = ops.isEmpty(core) ? core : ops.offset(core, spare)
    } else {
      walls.push(ops.offset(rim, -width / 2))
      free = ops.offset(hidden, -width)
    }
  }
  return { walls, inside: openInside(ops, ops.simplify(free, width * SKIN_TOLERANCE), width, settings, lines), lost }
}

/**
 * Of places with room for walls those that have it clearly somewhere. Elsewhere they would begin and end with every tremble
 * of the rim.
 *
 * @param clear what is left of them by an inset that asks for more room
 */
function withoutHardlyWide(ops: PolygonOps, places: Region, clear: Region): Region {
  if (ops.isEmpty(places) || ops.isEmpty(clear)) return ops.empty()
  const clearBodies = polygonsOf(ops, clear)
  const kept = polygonsOf(ops, places).filter(([outer]) => clearBodies.some(([body]) => holds(outer!, body![0]!, body![1]!)))
  return regionOf(ops, kept.flat())
}

/**
 * Whether an inset made a place vanish, told cheaply from the lengths of both rims: without that the length falls as the
 * corners say, and by twice the length of every lost strip.
 */
function hasVanished(ops: PolygonOps, before: Region, after: Region, by: number, width: number): boolean {
  return isShort(ops.measureRim(before), by, ops.measureRim(after).length, width)
}

/** Places of the inside that are hardly wider than a line leave it; a line of their own width fills them. */
function openInside(ops: PolygonOps, inside: Region, width: number, settings: WallSettings, lines: NarrowLines): Region {
  if (ops.isEmpty(inside)) return inside
  const clear = ops.offset(inside, (-WIDEST_LINE / 2) * width)
  if (!hasVanished(ops, inside, clear, (WIDEST_LINE / 2) * width, width)) return inside
  const half = (LEAST_INSIDE / 2) * width
  const core = withoutHardlyWide(ops, ops.offset(inside, -half), clear)
  const kept = ops.isEmpty(core) ? core : ops.intersect(ops.offset(core, half + width * HIDDEN_TOLERANCE), inside)
  layThin(ops, ops.isEmpty(kept) ? inside : ops.subtract(inside, kept), width, settings, lines, settings.wallCount)
  return kept
}

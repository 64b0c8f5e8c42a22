import { directionOf } from '@sable/core/physics/strength/direction'
import type { Purpose } from '@sable/core/physics/strength/purpose'

type Load = Purpose['load']
export type Point = readonly [x: number, y: number, z: number]

/** Within this of an axis, degrees, a load is taken to be meant along it. */
const SNAP = 15
/** A grip covers at most this much of the length from either end, per cent. */
const MOST = 45

/**
 * The load that two touches of the part mean: it acts from where it is held towards where it is loaded, and each grip reaches
 * from its end of the part to its touch.
 *
 * @param corners of the part, three coordinates each, mm
 * @returns nothing when both touches are the same place
 */
export function loadFromPicks(load: Load, held: Point, loaded: Point, corners: ArrayLike<number>): Load | undefined {
  const run = held.map((from, i) => loaded[i]! - from) as unknown as Point
  const length = Math.hypot(...run)
  if (length < 1e-3) return undefined
  const unit = run.map((part) => part / length)
  const strongest = [0, 1, 2].reduce((best, axis) => (Math.abs(unit[axis]!) > Math.abs(unit[best]!) ? axis : best), 0)
  const snaps = Math.abs(unit[strongest]!) >= Math.cos((SNAP * Math.PI) / 180)
  // Directions of the load model point from the low end to the high one.
  const along = snaps ? [0, 1, 2].map((axis) => (axis === strongest ? 1 : 0)) : unit
  const heldLow = along.reduce((sum, part, i) => sum + part * run[i]!, 0) > 0
  let [low, high] = [Infinity, -Infinity]
  const placeOf = (x: number, y: number, z: number): number => along[0]! * x + along[1]! * y + along[2]! * z
  for (let i = 0; i < corners.length; i += 3) {
    const at = placeOf(corners[i]!, corners[i + 1]!, corners[i + 2]!)
    if (at < low) low = at
    if (at > high) high = at
  }
  const share = (point: Point): number => (100 * (placeOf(...point) - low)) / Math.max(1e-6, high - low)
  const [lower, upper] = heldLow ? [held, loaded] : [loaded, held]
  const bends = load.kind === 'bend' || load.kind === 'bendHigh'
  return {
    ...load,
    ...(bends ? { kind: heldLow ? 'bend' : 'bendHigh' } : {}),
    ...(snaps ? { axis: (['x', 'y', 'z'] as const)[strongest]! } : { axis: 'free', ...directionOf(unit as unknown as Point) }),
    heldTo: Math.round(Math.max(0, Math.min(MOST, share(lower)))),
    loadedFrom: Math.round(Math.max(100 - MOST, Math.min(100, share(upper)))),
  }
}

import type { Orientation } from '../../mesh/orientations'
import { type Direction, directionOf, frameOf } from './direction'
import type { Purpose } from './purpose'

/** A purpose whose load keeps its place on the part when that is turned. */
export function carriedTo({ axisOf, turned }: Orientation, purpose: Purpose): Purpose {
  const { kind, axis, heldTo, loadedFrom } = purpose.load
  if (axis === 'weakest') return purpose
  if (axis === 'free') return { ...purpose, load: { ...purpose.load, ...turnedDirection(purpose.load, turned) } }
  const { axis: now, reversed } = axisOf(axis)
  if (!reversed) return { ...purpose, load: { ...purpose.load, axis: now } }
  // What was held at its low end is held at its high end once that axis points back.
  const swapped = kind === 'bend' ? 'bendHigh' : kind === 'bendHigh' ? 'bend' : kind
  return { ...purpose, load: { ...purpose.load, kind: swapped, axis: now, heldTo: 100 - loadedFrom, loadedFrom: 100 - heldTo } }
}

const turnedDirection = (direction: Direction, turned: Orientation['turned']): Direction => directionOf(turned(frameOf(direction).along))

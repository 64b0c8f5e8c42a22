import type { Mesh } from '@sable/core/mesh/mesh'
import { type Level, wallOfCells } from './wallOfCells'

const SEGMENTS = 120
const WINDOWS = 10
const PER_WINDOW = SEGMENTS / WINDOWS
/** Of each window's share of the round, so many segments are open. */
const OPEN = 7
/** A straight foot, the windows, a rim that bridges them, and a brim that leans out by 55° over the air, mm. */
const levels: readonly Level[] = [
  { z: 0, inner: 21, outer: 24.5 },
  { z: 5, inner: 21, outer: 24.5 },
  { z: 17, inner: 21, outer: 24.5 },
  { z: 20, inner: 21, outer: 24.5 },
  { z: 25, inner: 24.5, outer: 31.6 },
  { z: 27, inner: 25.9, outer: 31.6 },
]

/** The collar through which a lantern breathes: windows to be bridged, and a brim that hangs over. */
export const ventCollar = (): Mesh => wallOfCells(levels, SEGMENTS, (level, segment) => level !== 1 || segment % PER_WINDOW >= OPEN)

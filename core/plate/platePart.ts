import type { Override } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Toolpath } from '../toolpath/toolpath'
import type { Footprint } from './footprint'

/** Where a part stands on a plate: how far its middle lies from the middle of the bed, mm, and ° counter-clockwise. */
export interface Standing {
  readonly x: number
  readonly y: number
  readonly turn: number
}

/** One part of a plate as it was laid by itself, its middle at x = y = 0. */
export interface PlatePart {
  readonly name: string
  readonly path: Toolpath
  readonly settings: Settings
  /** Bound by what melts, as its own motion minds them. */
  readonly overrides: readonly Override[]
  readonly footprint: Footprint
  readonly heightMm: number
  /** What it takes off the reel by itself. */
  readonly massG: number
  readonly lengthMm: number
}

/** How the parts of a plate are printed: all of a height before the next, or one whole part after another. */
export const plateOrders = ['together', 'inTurn'] as const
export type PlateOrder = (typeof plateOrders)[number]

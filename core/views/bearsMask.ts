import type { AxisLoadPath } from '../physics/strength/loadPathByAxis'

/**
 * What of a part bears a load, seen along the part's rows and across the load's direction: for drawing, so limbs that lie over
 * one another in the third direction count as one that bears when any of them does.
 *
 * ```
 * mask        1 where something bears; one line a section, `cells` across
 * low, high   extent along the load's direction, mm
 * across      direction in which the cells run, and in acrossLow and acrossHigh their extent, mm
 * ```
 */
export interface BearsMask {
  readonly sections: number
  readonly cells: number
  readonly mask: Uint8Array
  readonly low: number
  readonly high: number
  readonly across: readonly [x: number, y: number, z: number]
  readonly acrossLow: number
  readonly acrossHigh: number
}

const CELLS = 256
/** Rims are drawn a little beyond what bears, so that the map does not fray along them, mm. */
const MARGIN = 0.75

/** @param top of the part, mm: where sections are layers they reach up to it */
export function bearsMask({ loadPath, along, level, first, step }: AxisLoadPath, top: number): BearsMask {
  const { stretches, sectioning, bears } = loadPath
  const { rows, layers, start, low, high } = stretches
  const byLayer = sectioning.placeStride !== 1
  const [acrossLow, acrossHigh] = byLayer ? [first - step / 2, first + (rows - 0.5) * step] : extentOf(low, high)
  const perMm = CELLS / Math.max(1e-6, acrossHigh - acrossLow)
  const mask = new Uint8Array(sectioning.sections * CELLS)
  const fill = (section: number, from: number, to: number): void => {
    const begin = Math.max(0, Math.floor((from - acrossLow) * perMm))
    const end = Math.min(CELLS, Math.ceil((to - acrossLow) * perMm))
    mask.fill(1, section * CELLS + begin, section * CELLS + Math.max(begin, end))
  }
  for (let row = 0; row < rows; row++)
    for (let layer = 0; layer < layers; layer++) {
      const cell = row * layers + layer
      for (let i = start[cell]!; i < start[cell + 1]!; i++) {
        if (bears[i] === 0) continue
        if (byLayer) fill(layer, first + (row - 0.5) * step - MARGIN, first + (row + 0.5) * step + MARGIN)
        else fill(row, low[i]! - MARGIN, high[i]! + MARGIN)
      }
    }
  return {
    sections: sectioning.sections,
    cells: CELLS,
    mask,
    low: byLayer ? 0 : first - step / 2,
    high: byLayer ? top : first + (rows - 0.5) * step,
    across: byLayer ? along : [level[0], level[1], 0],
    acrossLow,
    acrossHigh,
  }
}

/** Whether something bears at a place: so far along the load's direction and so far across it, mm. */
export function bearsIn({ sections, cells, mask, low, high, acrossLow, acrossHigh }: BearsMask, at: number, across: number): boolean {
  const section = Math.floor(((at - low) / (high - low)) * sections)
  const cell = Math.floor(((across - acrossLow) / (acrossHigh - acrossLow)) * cells)
  if (section < 0 || section >= sections || cell < 0 || cell >= cells) return false
  return mask[section * cells + cell] === 1
}

function extentOf(low: Float64Array, high: Float64Array): [low: number, high: number] {
  const least = low.reduce((least, value) => Math.min(least, value), Infinity)
  return low.length > 0 ? [least - MARGIN, high.reduce((most, value) => Math.max(most, value), -Infinity) + MARGIN] : [0, 1]
}

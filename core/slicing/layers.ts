import type { Contours } from '../geometry/contours'
import type { BeltLine } from '../mesh/tiltedBelt'

/** A part cut into layers from the bed up: one group of contours a layer, lengths in mm. */
export interface Layers {
  /** Height of each layer's top above the bed, where the nozzle runs. */
  readonly top: Float64Array
  /** Thickness of each layer. */
  readonly height: Float64Array
  readonly outlines: Contours
  /** Only on a tilted belt. */
  readonly belt?: BeltLine
  /** What had to be mended, as plain sentences with heights. */
  readonly notes: readonly string[]
}

export const layerCount = (layers: Layers): number => layers.top.length

/** First layer whose top reaches a height; the last one above them all. */
export function layerAt(tops: ArrayLike<number>, z: number): number {
  let low = 0
  let high = Math.max(0, tops.length - 1)
  while (low < high) {
    const middle = (low + high) >>> 1
    if (tops[middle]! < z) low = middle + 1
    else high = middle
  }
  return low
}

import type { Contours } from '../regions/contours'

/** A part cut into layers from the bed up: one group of contours a layer, lengths in mm. */
export interface Layers {
  /** Height of each layer's top above the bed, where the nozzle runs. */
  readonly top: Float64Array
  /** Thickness of each layer. */
  readonly height: Float64Array
  readonly outlines: Contours
  /** On a tilted belt: the belt meets the layer whose middle is at height z along y = beltStart + beltSlope · z. */
  readonly beltStart?: number
  readonly beltSlope?: number
  /** What had to be mended, as plain sentences with heights. */
  readonly notes: readonly string[]
}

export const layerCount = (layers: Layers): number => layers.top.length

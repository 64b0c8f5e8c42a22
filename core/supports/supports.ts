import type { Contours } from '../geometry/contours'

export interface SupportSettings {
  readonly lineWidth: number
  readonly supports: 'off' | 'plain' | 'branching'
  /** Degrees from the vertical. */
  readonly supportAngle: number
  readonly supportFrom: 'bed' | 'everywhere'
  readonly supportTopLayers: number
  /** mm, within the layer. */
  readonly supportGap: number
  /** Empty layers under the part. */
  readonly supportGapLayers: number
  readonly trunkDiameter: number
  readonly tipDiameter: number
  /** Degrees from the vertical. */
  readonly branchLean: number
}

/** What holds overhangs up; one group a layer, mm. */
export interface Supports {
  readonly body: Contours
  /** Laid densely, right under the part. */
  readonly top: Contours
  /** Places that would need support and cannot have it: mm² of overhang, summed over layers. */
  readonly unheldMm2: number
}

import type { Contours } from '../geometry/contours'
import type { Scopes } from '../profile/overrides'

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

/** All supports of a part are of one kind: its own, or that of the first place that wants some; nothing where none are wanted. */
export const supportKind = ({ settings, overrides }: Pick<Scopes, 'settings' | 'overrides'>): 'plain' | 'branching' | undefined => {
  const [first] = [settings, ...overrides.map(({ values }) => values)].flatMap(({ supports = 'off' }) =>
    supports === 'off' ? [] : [supports],
  )
  return first
}

/** What holds overhangs up; one group a layer, mm. */
export interface Supports {
  readonly body: Contours
  /** Laid densely, right under the part. */
  readonly top: Contours
  /** Places that would need support and cannot have it: mm² of overhang, summed over layers. */
  readonly unheldMm2: number
}

import type { Constants } from '../../constants/constants'
import type { Scopes } from '../../profile/overrides'
import type { SectionSettingsOf } from './sections'

/** What sections read that is no setting. */
export interface SectionReads {
  readonly infillStiffness: number
  readonly acrossLines: number
  /** Of the part as it lies, mm: tops and bottoms hold its infill as so much of it. */
  readonly heightMm: number
}

export const sectionReads = ({ strength: { infill, acrossLines } }: Constants, heightMm: number): SectionReads => ({
  infillStiffness: infill,
  acrossLines,
  heightMm,
})

/** What sections read of a profile, wherever it holds. */
export const sectionSettings =
  (scopes: Scopes, { infillStiffness, acrossLines, heightMm }: SectionReads): SectionSettingsOf =>
  (scope) => {
    const own = scopes.settingsOf(scope)
    const confined = ((own.topLayers + own.bottomLayers) * own.layerHeight) / heightMm
    return { ...own, infillStiffness, acrossLines, confined }
  }

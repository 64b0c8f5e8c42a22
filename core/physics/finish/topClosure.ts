import type { Constants } from '../../constants/constants'
import type { Settings } from '../../profile/settings'

/** How many families of lines share the density, so that each stands so many times as far apart. */
const families: Readonly<Record<Settings['infillPattern'], number>> = {
  lines: 1,
  concentric: 1,
  grid: 2,
  hexagons: 2,
  gyroid: 2,
  triangles: 3,
  cubic: 3,
  topPropping: 1,
}

export interface TopClosure {
  /** Free way between the lines under a top, mm; absent where there is no infill at all. */
  readonly gapMm?: number
  readonly thicknessMm: number
  /** Thickness over what the gap needs: under 1 the top may sag between the lines or stay open. */
  readonly closure: number
}

/** Skin thickness against the infill gap that it must bridge. */
export function topClosure(
  settings: Pick<Settings, 'infillDensity' | 'infillPattern' | 'lineWidth' | 'topLayers' | 'layerHeight'>,
  { closes }: Pick<Constants['finish'], 'closes'>,
): TopClosure {
  const { infillDensity, infillPattern, lineWidth, topLayers, layerHeight } = settings
  const thicknessMm = topLayers * layerHeight
  if (infillDensity <= 0) return { thicknessMm, closure: 0 }
  const gapMm = Math.max(0, ((families[infillPattern] * 100) / infillDensity - 1) * lineWidth)
  return { gapMm, thicknessMm, closure: gapMm > 0 ? thicknessMm / (closes * gapMm) : Infinity }
}

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

/** Free way between lines of infill, mm; endless where there is none. */
export const spanBetweenLines = ({
  infillDensity,
  infillPattern,
  lineWidth,
}: Pick<Settings, 'infillDensity' | 'infillPattern' | 'lineWidth'>): number =>
  infillDensity > 0 ? Math.max(0, ((families[infillPattern] * 100) / infillDensity - 1) * lineWidth) : Infinity

export interface TopClosure {
  /** Free way under a top, mm: between lines or, where that is less, between walls; absent where neither is known. */
  readonly gapMm?: number
  readonly thicknessMm: number
  /** Thickness over what the gap needs: under 1 the top may sag between the lines or stay open. */
  readonly closure: number
}

/**
 * Top thickness against the free span that it must bridge: between infill lines, or from wall to wall where that is less.
 *
 * @param cavityMm widest way from wall to wall under a top, where somebody looked
 */
export function topClosure(
  settings: Pick<Settings, 'infillDensity' | 'infillPattern' | 'lineWidth' | 'topLayers' | 'layerHeight'>,
  { closes }: Pick<Constants['finish'], 'closes'>,
  cavityMm = Infinity,
): TopClosure {
  const { topLayers, layerHeight } = settings
  const thicknessMm = topLayers * layerHeight
  const gapMm = Math.min(spanBetweenLines(settings), cavityMm)
  if (gapMm === Infinity) return { thicknessMm, closure: 0 }
  return { gapMm, thicknessMm, closure: gapMm > 0 ? thicknessMm / (closes * gapMm) : Infinity }
}

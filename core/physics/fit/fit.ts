import type { Constants } from '../../constants/constants'
import type { Settings } from '../../profile/settings'
import { expansionOf, heatOf } from '../../shelf/heat'
import type { Material } from '../../shelf/material'
import type { Hole } from './smallestHole'

/** How far what is printed is off the size of its model, mm. */
export interface FitFigures {
  /** By which the longest side is shorter, and that as a share. */
  readonly shrinkMm: number
  readonly shrinkShare: number
  /** By which the foot spreads to every side. */
  readonly flareMm: number
  /** The smallest round hole that stands upright, and by how much it comes out narrower across. */
  readonly hole?: { readonly diameterMm: number; readonly underMm: number }
  /** The largest of them all. */
  readonly worstMm: number
  readonly worst: 'shrinkage' | 'foot' | 'hole'
}

/** Shrinkage is from where the plastic keeps its shape down to this room, °C. */
const ROOM = 25

/**
 * Dimensions: the solid contracts from its softening temperature to the room (linear expansion, any handbook), the first layer is
 * squeezed out and stays soft on a warm bed, and a hole loses what its chords cut off, what its wall is pulled inward by while it
 * sets, and its share of the shrinkage. Flare and pull are semi-empirical.
 */
export function fitOf({
  settings,
  setup: { material, constants },
  sizeMm,
  hole,
}: {
  readonly settings: Pick<Settings, 'lineWidth' | 'firstLayerFlow' | 'flow' | 'bedTemperature' | 'firstLayerBed'>
  readonly setup: { readonly material: Material; readonly constants: Constants }
  readonly sizeMm: readonly [number, number, number]
  readonly hole: Hole | undefined
}): FitFigures {
  const { fit } = constants
  const { softening } = heatOf(material)
  const shrinkShare = fit.shrinkage * expansionOf(material) * Math.max(0, softening - ROOM)
  const shrinkMm = shrinkShare * Math.max(...sizeMm)
  const { lineWidth } = settings
  const bed = settings.firstLayerBed > 0 ? settings.firstLayerBed : settings.bedTemperature
  const tooMuch = (settings.flow / 100) * (settings.firstLayerFlow / 100) - 1
  const flareMm = Math.max(0, (lineWidth * tooMuch) / 2 + fit.flare * Math.exp((bed - softening) / SOFTER))
  const under =
    hole &&
    hole.chordMm + fit.pull * (1 + lineWidth / hole.diameterMm) + hole.diameterMm * shrinkShare + lineWidth * (settings.flow / 100 - 1)
  const candidates = [
    ['shrinkage', shrinkMm],
    ['foot', flareMm],
    ['hole', under ?? 0],
  ] as const
  const [worst, worstMm] = candidates.reduce((most, next) => (next[1] > most[1] ? next : most))
  return {
    shrinkMm,
    shrinkShare,
    flareMm,
    ...(hole && under !== undefined ? { hole: { diameterMm: hole.diameterMm, underMm: under } } : {}),
    worstMm,
    worst,
  }
}

/** So many °C nearer to softening the foot spreads by e times as much; semi-empirical. */
const SOFTER = 15

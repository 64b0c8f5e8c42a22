import type { Constants } from '../../constants/constants'
import { outerBrim } from '../../profile/outerBrim'
import type { Settings } from '../../profile/settings'
import { expansionOf, heatOf } from '../../shelf/heat'
import type { Material } from '../../shelf/material'
import type { Printer } from '../../shelf/printer'
import type { Layers } from '../../slicing/layers'
import { airTemperature } from '../cooling/layerCooling'

export interface WarpFigures {
  /** What pulls the ends of the foot up over what holds them down: from 1 on corners lift. */
  readonly risk: number
  /** Strain that is left to shrink once the plastic keeps its shape, its contact length, mm, and the air about it, °C. */
  readonly strain: number
  readonly contactMm: number
  readonly airC: number
}

/** What lies on the bed. */
export interface Foot {
  /** Longest way across it, mm. */
  readonly lengthMm: number
}

/** So much of a part's height pulls at its foot: what is above has the rest to hold on to, mm; semi-empirical. */
const PULLS = 8
/** From either end so much of the foot holds it down, mm; semi-empirical. */
const HOLDS = 10
/** A bed that is so many °C colder than the middle of its label holds e times less; semi-empirical. */
const COLDER = 15
/** Strain for which the constant is told: of ABS in a room. */
const AT_STRAIN = 0.0075
/** Lengths are told over this, mm. */
const LONG = 100

/** The foot of a part: how far the first layer reaches. */
export function footOf({ outlines: { xy, polygonStart, groupStart } }: Pick<Layers, 'outlines'>): Foot {
  let [lowX, highX, lowY, highY] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = polygonStart[groupStart[0]!]!; i < polygonStart[groupStart[1]!]!; i++) {
    lowX = Math.min(lowX, xy[2 * i]!)
    highX = Math.max(highX, xy[2 * i]!)
    lowY = Math.min(lowY, xy[2 * i + 1]!)
    highY = Math.max(highY, xy[2 * i + 1]!)
  }
  return { lengthMm: highX > lowX ? Math.hypot(highX - lowX, highY - lowY) : 0 }
}

/**
 * Warping: what a part still has to shrink pulls the ends of its foot up, the more the stiffer, the higher and the longer it is,
 * against what the bed holds over an end of the foot and its brim: `risk = c·E·ε²·H·L/(σ·ℓ)`. The strain is that from softening
 * to the air about the part, which an enclosure keeps warm. Semi-empirical but for the strain.
 */
export function warpOf({
  settings,
  setup: { material, printer, constants },
  foot,
  sizeMm,
  solidShare,
}: {
  readonly settings: Pick<Settings, 'brim' | 'brimWidth' | 'bedTemperature'>
  readonly setup: { readonly material: Material; readonly printer: Printer; readonly constants: Constants }
  readonly foot: Foot
  readonly sizeMm: readonly [number, number, number]
  /** Of the solid that is laid: sparse infill pulls less. */
  readonly solidShare: number
}): WarpFigures {
  const airC = airTemperature({ printer, constants: constants.cooling })
  const strain = constants.fit.shrinkage * expansionOf(material) * Math.max(0, heatOf(material).softening - airC)
  // What is freed when an end comes off goes with the square of the strain (energy release, any text on fracture).
  const pulls =
    material.strength.modulus *
    strain *
    (strain / AT_STRAIN) *
    Math.min(PULLS, sizeMm[2]) *
    Math.min(1, solidShare) *
    (foot.lengthMm / LONG)
  const [low, high] = material.bedRange
  const cold = Math.exp(-Math.max(0, (low + high) / 2 - settings.bedTemperature) / COLDER)
  const holds = constants.sway.adhesion * (Math.min(HOLDS, foot.lengthMm / 2) + outerBrim(settings)) * cold
  return { risk: holds > 0 ? (constants.fit.warps * pulls) / holds : 0, strain, contactMm: foot.lengthMm, airC }
}

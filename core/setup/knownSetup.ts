import { type ConstantId, type Constants, constantOf, medians } from '../constants/constants'
import { heatOf } from '../shelf/heat'
import type { Basis } from '../shelf/material'
import type { Setup } from './resolve'

/** A constant as it is known for a setup. */
export interface Known {
  /** One standard deviation: of the logarithm, or in the constant's own unit. */
  readonly spread: number
  readonly basis: Basis
  /** Who says so, where it is more than the table. */
  readonly from?: string
}

/** Spread of a strength that was measured on the material itself: what bars scatter by. Common practice. */
const BROKEN_BARS = 0.07

/** How well a constant is known for a setup. */
export function knownOf({ material, known }: Pick<Setup, 'material' | 'known'>, id: ConstantId): Known {
  const { spread } = constantOf(id)
  const read = known?.[id]
  if (read) return { spread: read.spread, basis: read.basis, from: read.from }
  if (id === 'melt.ladder' && (material.ladder ?? []).length > 0)
    return { spread, basis: 'measured', from: `the flow ladder of ${material.name}` }
  if (id === 'strength.inLayer' && material.strength.basis === 'measured')
    return { spread: BROKEN_BARS, basis: 'measured', from: `the record of ${material.name}` }
  return { spread, basis: 'assumed' }
}

export type KnownSetup = Setup & { readonly constants: Constants }

/**
 * A setup whose records say what its constants make of them: strengths, heat and fan as they are known to be, not as the record
 * tells. Done once, where a prediction begins.
 */
export function knownSetup(setup: Setup): KnownSetup {
  const { constants = medians } = setup
  const { strength, cooling } = constants
  const { material, printer } = setup
  const { conductivity, specificHeat, softening } = heatOf(material)
  const { inLayer, modulus, bondFactor } = material.strength
  return {
    ...setup,
    constants,
    printer: { ...printer, cooling: (printer.cooling ?? cooling.duct) * cooling.reach },
    material: {
      ...material,
      heat: { conductivity, specificHeat: specificHeat * cooling.specificHeat, softening: softening + cooling.softening },
      strength: {
        ...material.strength,
        inLayer: inLayer * strength.inLayer,
        modulus: modulus * strength.modulus,
        bondFactor: bondFactor * strength.bond,
      },
    },
  }
}

import { type Standing, standingWork } from '../physics/solved/standing'
import { deflections, type LayerSection, layerSections } from '../physics/sway/sway'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { code, isOfPart } from '../toolpath/toolpath'
import { InputError } from '../units/errors'
import { type Steps, within } from '../units/steps'
import type { LaidDown } from './layDown'
import type { Prediction } from './predict'
import { plasticOf, rankingVoxel } from './solvedWork'

/** How something stands under the nozzle, solved at one height. */
export interface SolvedStand extends Standing {
  readonly atZMm: number
  /** How far it gives way there in all, mm. */
  readonly mm: number
  /** Times what the beam of its sections says. */
  readonly overBeam: number
}

/** Nothing of what is steady. */
export interface SolvedSway {
  readonly part?: SolvedStand
  readonly support?: SolvedStand
}

/** What gives way by less is steady, whatever a solve would say, mm. Assumed. */
const STEADY_MM = 0.01
/** So many cells are solved at most. */
const MOST_CELLS = 60_000

type Predicted = Pick<Prediction, 'sway' | 'supportSway' | 'tracks' | 'melt' | 'settings'>

/**
 * How a part and its supports give way under the nozzle, solved where their beams say that they sway most; of a slender part at its top otherwise. Forces,
 * rocking and softness are those of the beams. Yields the share that is done.
 */
export function* solvedSwayWork({ single }: Pick<LaidDown, 'single'>, prediction: Predicted, setup: Setup): Steps<SolvedSway> {
  const { sway, supportSway } = prediction
  const plastic = plasticOf(setup, single, prediction)
  const sections = layerSections(single)
  const size = {
    // Of a support that is a line wide wider cells would make a wall.
    voxelMm: rankingVoxel(prediction.settings),
    mostCells: MOST_CELLS,
  }
  const at = swaysAt(sections, sway)
  const found: { part?: SolvedStand; support?: SolvedStand } = {}
  if (at !== undefined) {
    const { z } = sections[at]!
    const beam = deflections(sections, knownSetup(setup).material.strength.modulus, 1)[at]!
    const laid = (feature: number, own: number): boolean => isOfPart(feature) && own <= z + EXACT
    const stands = yield* within(standingWork(single, plastic, laid, size), 0, 0.5)
    const overBeam = stands.mmPerN / beam
    // What rocks it and how soft it is are in what the beam's figure says beyond the force on it.
    const mm = sway.mostMm > STEADY_MM ? sway.mostMm * overBeam : sway.worst.forceN * stands.mmPerN
    found.part = { ...stands, atZMm: z, mm, overBeam }
  }
  if (supportSway.mostMm > STEADY_MM) {
    const laid = (feature: number, own: number): boolean => isOfSupport(feature) && own <= supportSway.atZMm + EXACT
    try {
      const stands = yield* within(standingWork(single, plastic, laid, size), 0.5, 1)
      const mm = supportSway.forceN * stands.mmPerN
      found.support = { ...stands, atZMm: supportSway.atZMm, mm, overBeam: mm / supportSway.mostMm }
    } catch (error) {
      // Supports that stand on the part alone are left to their beams.
      if (!(error instanceof InputError)) throw error
    }
  }
  return found
}

/** Heights of layers are compared so finely, mm. */
const EXACT = 1e-6
const isOfSupport = (feature: number): boolean => feature === code.support || feature === code.supportTop

/** Whether there is anything to solve: a part or support that sways, or may. */
export const swayMatters = (prediction: Pick<Prediction, 'sway' | 'supportSway'>): boolean =>
  prediction.sway.mostMm > STEADY_MM || prediction.sway.isSlender || prediction.supportSway.mostMm > STEADY_MM

/** The section at which a part is solved; nothing of what is steady. */
function swaysAt(sections: readonly LayerSection[], { mostMm, atZMm, isSlender }: Prediction['sway']): number | undefined {
  if (sections.length === 0) return undefined
  if (mostMm > STEADY_MM) return sections.findIndex(({ z }) => z === atZMm)
  return isSlender ? sections.length - 1 : undefined
}

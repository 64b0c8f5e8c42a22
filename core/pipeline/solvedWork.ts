import { constantOf } from '../constants/constants'
import { caseAlong } from '../physics/solved/casesAlong'
import type { Plastic } from '../physics/solved/limits'
import { type SolvedLoad, solvedLoadWork } from '../physics/solved/solvedLoad'
import type { Case } from '../physics/solved/structure'
import { bearableVoxel, type Extent, extentOf, voxelsOf } from '../physics/solved/voxels'
import type { Purpose } from '../physics/strength/purpose'
import { type Axis, axes } from '../physics/strength/sections'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { layerAt } from '../slicing/layers'
import { layerTop, type Toolpath } from '../toolpath/toolpath'
import { type Steps, within } from '../units/steps'
import type { LaidDown } from './layDown'
import type { Prediction } from './predict'

/** How wide a cell is where nothing else is asked for, mm: good for stiffness and place; ranking infill against walls wants one line. */
export const PREVIEW_MM = 0.9
/** So many cells are solved at most; of larger parts they are wider. */
const MOST_CELLS = 120_000

/** What a prediction's plastic bears: with what is missing of it, and the bond of each of its layers. */
export function plasticOf(setup: Setup, path: Toolpath, { tracks, melt }: Pick<Prediction, 'tracks' | 'melt'>): Plastic {
  const { material, constants } = knownSetup(setup)
  const { modulus, inLayer } = material.strength
  const left = 1 - melt.missing
  const tops = Float64Array.from({ length: path.layerStart.length - 1 }, (_, layer) => layerTop(path, layer))
  return {
    modulus: left * modulus,
    inLayer: left * inLayer,
    acrossLines: constants.strength.acrossLines,
    shear: constants.strength.shear,
    spreads: spreadsOf(setup),
    // What is missing in a layer is in its bond already.
    bondAt: (z) => (tracks.bond[layerAt(tops, z)] ?? material.strength.bondFactor) / left,
  }
}

/** What is doubted of a strength, as long as nothing was measured. */
function spreadsOf({ known = {} }: Setup): Plastic['spreads'] {
  const own = (id: 'strength.inLayer' | 'strength.bond'): number => known[id]?.spread ?? constantOf(id).spread
  return { lines: own('strength.inLayer'), layers: Math.hypot(own('strength.inLayer'), own('strength.bond')) }
}

type Predicted = Pick<Prediction, 'tracks' | 'melt'>

/** The load at which a predicted part fails, from the lines that are laid. Yields the share that is done. */
export function* solvedWork(
  { single }: Pick<LaidDown, 'single'>,
  prediction: Predicted,
  setup: Setup,
  caseOf: (extent: Extent) => Case,
  voxelMm = PREVIEW_MM,
): Steps<SolvedLoad> {
  const voxels = voxelsOf(single, bearableVoxel(single, voxelMm, MOST_CELLS))
  return yield* solvedLoadWork(voxels, plasticOf(setup, single, prediction), caseOf(extentOf(single)))
}

/** A solved load and the axis along which it acts. */
export interface SolvedAlong extends SolvedLoad {
  readonly axis: Axis
}

/** Why a load of a purpose is not solved, in a sentence; nothing where it is. */
export function notSolved({ kind, axis }: Pick<Purpose['load'], 'kind' | 'axis'>): string | undefined {
  if (kind === 'threePoint') return 'Three points are not solved yet: both ends would have to slide.'
  if (axis === 'free') return 'Only loads along X, Y or Z are solved yet.'
  return undefined
}

/**
 * The load of a purpose, solved: along its axis, or along each and the least of them. Yields the share that is done.
 *
 * @throws RangeError where it is not solved
 */
export function* solvedForPurpose(
  laid: Pick<LaidDown, 'single'>,
  prediction: Predicted,
  setup: Setup,
  { kind, axis, heldTo, loadedFrom }: Purpose['load'],
): Steps<SolvedAlong> {
  if (kind === 'threePoint' || axis === 'free') throw new RangeError('no such load is solved')
  const all: readonly Axis[] = axis === 'weakest' ? axes : [axis]
  const grip = { heldTo: heldTo / 100, loadedFrom: loadedFrom / 100 }
  const { single } = laid
  const voxels = voxelsOf(single, bearableVoxel(single, PREVIEW_MM, MOST_CELLS))
  const plastic = plasticOf(setup, single, prediction)
  let weakest: SolvedAlong | undefined
  for (const [i, along] of all.entries()) {
    const work = solvedLoadWork(voxels, plastic, caseAlong(extentOf(single), along, kind, grip))
    const found = yield* within(work, i / all.length, (i + 1) / all.length)
    if (!weakest || found.failureN < weakest.failureN) weakest = { ...found, axis: along }
  }
  return weakest!
}

import { constantOf } from '../constants/constants'
import type { Plastic } from '../physics/solved/limits'
import { type Case, type SolvedLoad, solvedLoadWork } from '../physics/solved/solvedLoad'
import { bearableVoxel, type Extent, extentOf, voxelsOf } from '../physics/solved/voxels'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { layerTop, type Toolpath } from '../toolpath/toolpath'
import type { LaidDown } from './layDown'
import type { Prediction } from './predict'

/** How wide a cell is where nothing else is asked for, mm: good for stiffness and place; ranking infill against walls wants one line. */
export const PREVIEW_MM = 0.9
/** So many cells are solved at most; of larger parts they are wider. */
const MOST_CELLS = 200_000

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

/** The layer in which a height lies. */
function layerAt(tops: Float64Array, z: number): number {
  let [low, high] = [0, tops.length - 1]
  while (low < high) {
    const middle = (low + high) >> 1
    if (tops[middle]! < z) low = middle + 1
    else high = middle
  }
  return low
}

/** The load at which a predicted part fails, from the lines that are laid. Yields the share that is done. */
export function* solvedWork(
  { single }: Pick<LaidDown, 'single'>,
  prediction: Pick<Prediction, 'tracks' | 'melt' | 'mesh'>,
  setup: Setup,
  caseOf: (extent: Extent) => Case,
  voxelMm = PREVIEW_MM,
): Generator<number, SolvedLoad> {
  const voxels = voxelsOf(single, bearableVoxel(single, voxelMm, MOST_CELLS))
  return yield* solvedLoadWork(voxels, plasticOf(setup, single, prediction), caseOf(extentOf(single)))
}

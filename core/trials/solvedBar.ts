import { solvedCasesWork } from '../physics/solved/solvedLoad'
import { bearableVoxel, voxelsOf } from '../physics/solved/voxels'
import type { LaidDown } from '../pipeline/layDown'
import type { Prediction } from '../pipeline/predict'
import { plasticOf, rankingVoxel } from '../pipeline/solvedWork'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import type { Steps } from '../units/steps'
import { trialKinds } from './kinds'
import type { TrialSpec } from './spec/trial'

/** So many cells are solved at most: of three bars only one is. */
const MOST_CELLS = 120_000

/**
 * Section modulus of a trial's bar, mm³, as its lines have it: the moment at which it breaks when solved, over what its plastic bears there. A bar of lines
 * is not full, and not all of its lines run along it. Nothing of a kind without bars.
 */
export function* solvedBarWork(
  spec: TrialSpec,
  { single }: Pick<LaidDown, 'single'>,
  prediction: Pick<Prediction, 'tracks' | 'melt' | 'settings' | 'bond'>,
  setup: Setup,
): Steps<number | undefined> {
  const bar = trialKinds[spec.kind].bar?.(spec)
  if (!bar) return undefined
  const plastic = plasticOf(setup, single, prediction)
  const voxels = voxelsOf(single, bearableVoxel(single, rankingVoxel(prediction.settings), MOST_CELLS))
  const [found] = yield* solvedCasesWork(voxels, plastic, [bar.case])
  const bears = bar.breaks === 'lines' ? plastic.inLayer : knownSetup(setup).material.strength.inLayer * prediction.bond.mean
  return (found!.load.failureN * bar.armMm) / bears
}

import { medians, valueIn } from '../constants/constants'
import type { Prediction } from '../pipeline/predict'
import type { Setup } from '../setup/resolve'
import { trialKinds } from './kinds'
import { heightsOf, type TrialSpec } from './spec/trial'
import type { Foretold } from './table/kind'

/** What a prediction of a trial's print says of each band: what a reading of it is held against. */
export function foretoldOf(
  spec: TrialSpec,
  { constants = medians }: Pick<Setup, 'constants'>,
  { timeS, filament, bond, tracks }: Pick<Prediction, 'timeS' | 'filament' | 'bond' | 'tracks'>,
): Foretold {
  const middleOf = (index: number): number => {
    const { fromZ, toZ } = heightsOf(spec, index)
    const at = (fromZ + toZ) / 2
    const layer = tracks.z.findIndex((z) => z >= at)
    return layer === -1 ? tracks.z.length - 1 : layer
  }
  return {
    timeS,
    massG: filament.massG,
    bond: bond.mean,
    inForce: Object.fromEntries(trialKinds[spec.kind].narrows.map((id) => [id, valueIn(constants, id)])),
    bands: spec.bands.map((_, i) => ({ swayMm: finite(tracks.swayMm[middleOf(i)]), cooling: finite(tracks.cooling[middleOf(i)]) })),
  }
}

/** A layer that has none of it says nothing. */
const finite = (value: number | undefined): number => (value !== undefined && Number.isFinite(value) ? value : 0)

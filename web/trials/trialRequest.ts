import { asModelled } from '@sable/core/mesh/place'
import type { Setup } from '@sable/core/setup/resolve'
import { trialKinds } from '@sable/core/trials/kinds'
import { trialKey } from '@sable/core/trials/plan'
import { overridesOf, type TrialSpec } from '@sable/core/trials/spec/trial'
import type { PlacedPart, PredictRequest } from '../predictions/worker/request'

/** A trial's print, as workers are asked for it. */
export const trialRequest = (spec: TrialSpec, setup: Setup): PredictRequest => ({
  ...thingOf(spec, setup),
  setup,
  values: spec.values,
  overrides: overridesOf(spec),
  load: undefined,
})

/** A part of the user's own in small, or what code makes. */
function thingOf(spec: TrialSpec, setup: Setup): PlacedPart {
  if (!spec.own)
    return {
      partId: '',
      contentKey: trialKey(spec, setup),
      fileName: `${trialKinds[spec.kind].name} trial`,
      placement: asModelled,
      made: { spec, setup },
    }
  const { partId, contentKey, fileName, scale } = spec.own
  return { partId, contentKey, fileName, placement: { ...asModelled, scale } }
}

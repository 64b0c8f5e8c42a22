import { asModelled } from '@sable/core/mesh/place'
import type { Setup } from '@sable/core/setup/resolve'
import { trialKinds } from '@sable/core/trials/kinds'
import { trialKey } from '@sable/core/trials/plan'
import { overridesOf, type TrialSpec } from '@sable/core/trials/spec/trial'
import type { PredictRequest } from '../predictions/worker/request'

/** A trial's print, as workers are asked for it. */
export const trialRequest = (spec: TrialSpec, setup: Setup): PredictRequest => ({
  partId: '',
  contentKey: trialKey(spec, setup),
  fileName: `${trialKinds[spec.kind].name} trial`,
  placement: asModelled,
  setup,
  values: spec.values,
  overrides: overridesOf(spec),
  load: undefined,
  made: { spec, setup },
})

import { asModelled } from '@sable/core/mesh/place'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { overridesOf, type TrialSpec } from '@sable/core/trials/spec/trial'
import type { TrialKind } from '@sable/core/trials/table/kind'
import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { createLineup, lineupsQuery } from '../api/lineups'
import { partsQuery, uploadPart } from '../api/parts'
import { predictionPool } from '../predictions/predictionStore'
import type { PredictRequest } from '../predictions/worker/request'
import type { TrialPlaceChoice } from './useTrialPlace'

/** Opens a trial on the bench: its thing as a part, its bands as overrides of a column. */
export function useOpenOnBench() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  return async (kind: TrialKind, spec: TrialSpec, request: PredictRequest, { printer, nozzle, spool }: TrialPlaceChoice): Promise<void> => {
    const name = `${kind.name} trial`
    const blob = (await predictionPool().anyWorker.writeModel(request, 'stl', name)) as Blob
    const part = await uploadPart(new File([blob], `${name}.stl`), new AbortController().signal)
    const lineup = await createLineup({
      name,
      partId: part.id,
      placement: asModelled,
      purpose: noPurpose,
      candidates: [
        {
          id: crypto.randomUUID(),
          name: 'trial',
          printer,
          nozzle,
          material: request.setup.material.key,
          spool,
          values: spec.values,
          overrides: overridesOf(spec),
        },
      ],
    })
    await Promise.all([queries.invalidateQueries(lineupsQuery), queries.invalidateQueries({ queryKey: partsQuery.queryKey })])
    await navigate(`/bench/${lineup.id}/layers`)
  }
}

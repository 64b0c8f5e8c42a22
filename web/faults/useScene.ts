import type { Case } from '@sable/contract/cases'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { type Scene, sceneOf } from '@sable/core/faults/spec/scene'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { SettingValues } from '@sable/core/profile/settings'
import { useEffect, useMemo, useState } from 'react'
import { keyOf, predictionPool, requestFor } from '../predictions/predictionStore'
import type { PredictRequest } from '../predictions/worker/request'

interface Found {
  readonly key?: string
  readonly prediction?: Prediction
  readonly failed?: string
}

const MOST_KEPT = 24
const kept = new Map<string, Prediction>()

/** Predicts what a case asks about, by a name of its own in the pool. */
function usePrediction(name: string, request: PredictRequest | undefined): Found {
  const key = request && keyOf(request)
  const [found, setFound] = useState<Found>({})
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the request says.
  useEffect(() => {
    if (!request || key === undefined) return
    const known = kept.get(key)
    if (known) {
      setFound({ key, prediction: known })
      return
    }
    let wanted = true
    predictionPool().submit(name, request, {
      onProgress: () => {},
      onLost: () => {},
      onAnswer: (answer) => {
        if (answer.kind === 'done') {
          kept.set(key, answer.prediction)
          if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value as string)
        }
        if (!wanted) return
        if (answer.kind === 'done') setFound({ key, prediction: answer.prediction })
        else if (answer.kind === 'refused') setFound({ key, failed: `${answer.message} ${answer.remedy}` })
      },
    })
    return () => {
      wanted = false
    }
  }, [key])
  return found.key === key ? found : {}
}

/** What failed, as a request: with other values where a change is looked at. */
export function useCaseRequest(one: Case, part: StoredPart | undefined, shelf: Shelf, change?: SettingValues): PredictRequest | undefined {
  return useMemo(() => {
    if (!part) return undefined
    const candidate = change ? { ...one.candidate, values: { ...one.candidate.values, ...change } } : one.candidate
    return requestFor(candidate, one, part, shelf)
  }, [one, part, shelf, change])
}

/** The scene of a case, once what failed is predicted. */
export function useScene(one: Case, request: PredictRequest | undefined): { readonly scene?: Scene; readonly failed?: string } {
  const { prediction, failed } = usePrediction('case', request)
  return useMemo(
    () => ({
      ...(prediction && request ? { scene: sceneOf(request.setup, prediction, one.candidate.overrides, one.atZ) } : {}),
      ...(failed === undefined ? {} : { failed }),
    }),
    [prediction, request, one.candidate.overrides, one.atZ, failed],
  )
}

/** The same print with a change, to see what else it does. */
export const useChanged = (request: PredictRequest | undefined): Prediction | undefined =>
  usePrediction('case, changed', request).prediction

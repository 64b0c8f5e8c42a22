import type { Mesh } from '@sable/core/mesh/mesh'
import type { Prediction } from '@sable/core/pipeline/predict'
import { useEffect, useState } from 'react'
import { keyOf, predictionPool } from '../predictions/predictionStore'
import type { PredictRequest } from '../predictions/worker/request'

/** What is known of a trial's print: its shape at once, its figures when they are there. */
export interface Planned {
  readonly mesh?: Mesh
  readonly prediction?: Prediction
  readonly failed?: string
}

const MOST_KEPT = 12
const meshes = new Map<string, Mesh>()
const predictions = new Map<string, Prediction>()
const keep = <T>(kept: Map<string, T>, key: string, value: T): void => {
  kept.set(key, value)
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value as string)
}

/** The thing and the figures of a trial, as its bands change. */
export function usePlanned(request: PredictRequest | undefined): Planned {
  const key = request && keyOf(request)
  const [found, setFound] = useState<Planned & { readonly key?: string }>({})
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the request says.
  useEffect(() => {
    if (!request || key === undefined) return
    let wanted = true
    const tell = (more: Planned): void => {
      if (wanted) setFound((before) => ({ ...(before.key === key ? before : {}), key, ...more }))
    }
    const failed = (error: unknown): void => tell({ failed: error instanceof Error ? error.message : String(error) })
    const mesh = meshes.get(key)
    if (mesh) tell({ mesh })
    else
      predictionPool()
        .anyWorker.meshOf(request)
        .then((made) => {
          keep(meshes, key, made as Mesh)
          tell({ mesh: made as Mesh })
        })
        .catch(failed)
    const prediction = predictions.get(key)
    if (prediction) tell({ prediction })
    else
      predictionPool().submit(TRIAL, request, {
        onProgress: () => {},
        onLost: () => {},
        onAnswer: (answer) => {
          if (answer.kind === 'done') {
            keep(predictions, key, answer.prediction)
            tell({ prediction: answer.prediction })
          } else if (answer.kind === 'refused') tell({ failed: `${answer.message} ${answer.remedy}` })
        },
      })
    return () => {
      wanted = false
    }
  }, [key])
  return found.key === key ? found : {}
}

/** By which the pool knows it: a newer trial takes the place of an older. */
const TRIAL = 'trial'

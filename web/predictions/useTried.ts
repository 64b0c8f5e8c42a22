import type { Prediction } from '@sable/core/pipeline/predict'
import { useEffect, useState } from 'react'
import { predictionPool } from './predictionStore'
import type { PredictRequest } from './worker/request'

/** A prediction that was tried: nothing in it where it cannot be printed. */
export interface Tried {
  readonly prediction: Prediction | undefined
}

/**
 * Predictions of several candidates, by their places in the list, as far as they are there. The list must keep its identity
 * for as long as it says the same.
 */
export function useTried(requests: readonly PredictRequest[]): readonly (Tried | undefined)[] {
  const [found, setFound] = useState<readonly (Tried | undefined)[]>([])
  useEffect(() => {
    setFound([])
    if (requests.length === 0) return
    const stop = new Int32Array(new SharedArrayBuffer(4))
    void predictionPool().tryAll(requests, stop, (index, prediction) => {
      if (Atomics.load(stop, 0) === 0) setFound((before) => Object.assign([...before], { [index]: { prediction } }))
    })
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [requests])
  return found
}

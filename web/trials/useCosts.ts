import type { Prediction } from '@sable/core/pipeline/predict'
import * as Comlink from 'comlink'
import { useEffect, useState } from 'react'
import { keyOf, predictionPool } from '../predictions/predictionStore'
import type { PredictRequest } from '../predictions/worker/request'

const known = new Map<string, Pick<Prediction, 'timeS' | 'filament'>>()

/** What some prints take, one after another, as far as it is there: for lists that only tell minutes and grams. */
export function useCosts(
  requests: readonly (PredictRequest | undefined)[],
): readonly (Pick<Prediction, 'timeS' | 'filament'> | undefined)[] {
  const keys = requests.map((request) => (request ? keyOf(request) : ''))
  const [, redraw] = useState(0)
  const all = keys.join('\n')
  // biome-ignore lint/correctness/useExhaustiveDependencies: the keys say all that the requests say.
  useEffect(() => {
    const stop = new Int32Array(new SharedArrayBuffer(4))
    const run = async (): Promise<void> => {
      for (const [i, request] of requests.entries()) {
        if (!request || known.has(keys[i]!) || Atomics.load(stop, 0) === 1) continue
        const answer = await predictionPool().anyWorker.predict(
          request,
          stop,
          Comlink.proxy(() => {}),
        )
        if (answer.kind !== 'done') continue
        known.set(keys[i]!, { timeS: answer.prediction.timeS, filament: answer.prediction.filament })
        redraw((n) => n + 1)
      }
    }
    // A worker that ended tells nothing: the list stands without.
    run().catch(() => {})
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [all])
  return keys.map((key) => known.get(key))
}

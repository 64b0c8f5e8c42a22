import type { Prediction } from '@sable/core/pipeline/predict'
import type { Step } from '@sable/core/steps/trail'
import { predictionPool } from '../../predictions/predictionStore'
import type { PredictRequest } from '../../predictions/worker/request'
import type { Measure } from './measures'

interface Handlers {
  /** Its first entry is set to 1 to give up. */
  readonly stop: Int32Array
  readonly onProgress: (done: number, of: number) => void
}

/**
 * Orders steps so that each is the one that gains most after those before it: really computed, one round a step. Nothing
 * where it was given up.
 */
export async function bestFirst(
  steps: readonly Step[],
  requestFor: (taken: ReadonlySet<string>) => PredictRequest | undefined,
  worth: (prediction: Prediction) => number,
  better: Measure['better'],
  { stop, onProgress }: Handlers,
): Promise<Step[] | undefined> {
  const order: Step[] = []
  const gain = better === 'more' ? 1 : -1
  // What is left at the end needs no comparison.
  const rounds = (steps.length * (steps.length + 1)) / 2 - 1
  let done = 0
  while (order.length < steps.length - 1) {
    const left = steps.filter((step) => !order.includes(step))
    const requests = left.map((step) => requestFor(new Set([...order, step].map(({ id }) => id))))
    const possible = left.filter((_, i) => requests[i] !== undefined)
    const values = new Map<Step, number>()
    await predictionPool().tryAll(
      requests.filter((request): request is PredictRequest => request !== undefined),
      stop,
      (index, prediction) => {
        if (prediction) values.set(possible[index]!, gain * worth(prediction))
        onProgress(++done, rounds)
      },
    )
    if (Atomics.load(stop, 0) === 1) return undefined
    order.push(left.reduce((most, step) => ((values.get(step) ?? -Infinity) > (values.get(most) ?? -Infinity) ? step : most)))
  }
  return [...order, ...steps.filter((step) => !order.includes(step))]
}

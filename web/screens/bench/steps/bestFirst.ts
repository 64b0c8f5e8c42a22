import type { Prediction } from '@sable/core/predict'
import type { Step } from '@sable/core/steps/trail'
import * as Comlink from 'comlink'
import { predictionPool } from '../../../predictions/predictionStore'
import type { PredictRequest } from '../../../workers/predictWorker'
import type { Measure } from './measures'

/** Orders steps so that each is the one that gains most after those before it: really computed, one round a step. */
export async function bestFirst(
  steps: readonly Step[],
  requestFor: (taken: ReadonlySet<string>) => PredictRequest | undefined,
  worth: (prediction: Prediction) => number,
  better: Measure['better'],
): Promise<Step[]> {
  const order: Step[] = []
  const gain = better === 'more' ? 1 : -1
  while (order.length < steps.length) {
    const left = steps.filter((step) => !order.includes(step))
    const requests = left.map((step) => requestFor(new Set([...order, step].map(({ id }) => id))))
    const values = new Map<number, number>()
    await predictionPool().anyWorker.tryAll(
      requests.filter((request): request is PredictRequest => request !== undefined),
      new Int32Array(new SharedArrayBuffer(4)),
      Comlink.proxy((index: number, prediction: Prediction | undefined) => {
        if (prediction) values.set(index, gain * worth(prediction))
      }),
    )
    const best = left.reduce((most, step, i) =>
      (values.get(i) ?? -Infinity) > (values.get(left.indexOf(most)) ?? -Infinity) ? step : most,
    )
    order.push(best)
  }
  return order
}
